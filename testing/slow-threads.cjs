'use strict';
/* Preloaded into a server under test: threads take SLOW_THREADS milliseconds to begin, as on a machine that is busy. */
const { isMainThread } = require('node:worker_threads');

if (!isMainThread) Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, Number(process.env.SLOW_THREADS));
