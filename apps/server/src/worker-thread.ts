/** A thread that computes, as it is started. */
export { default } from './threads/worker.js';
