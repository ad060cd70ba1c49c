'use strict';
/*
 * Preloaded into a server under test: writes down which files are written through to the disk, and when.
 * WATCHED_DISK: the list, a line of JSON each. WATCHED_DISK_FULL: while this file is there, nothing can be written through, as on a full disk.
 */
const { appendFileSync, existsSync } = require('node:fs');
const promises = require('node:fs/promises');
const { syncBuiltinESMExports } = require('node:module');

const { WATCHED_DISK, WATCHED_DISK_FULL } = process.env;
const { open } = promises;
promises.open = async (path, ...more) => {
  const file = await open(path, ...more);
  const sync = file.sync.bind(file);
  file.sync = async () => {
    if (WATCHED_DISK_FULL && existsSync(WATCHED_DISK_FULL))
      throw Object.assign(new Error('ENOSPC: no space left on device, fsync'), { code: 'ENOSPC' });
    await sync();
    appendFileSync(WATCHED_DISK, `${JSON.stringify({ path: String(path), at: new Date().toISOString() })}\n`);
  };
  return file;
};
syncBuiltinESMExports();
