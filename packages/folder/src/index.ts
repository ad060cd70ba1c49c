/** The data folder as a whole, for the server and the command line. */
export { DATABASE, HOLDER, KEY, LOCK } from './layout.js';
export { lockFolder } from './lock.js';
export type { FolderLock } from './lock.js';
