/** The data folder as a whole, for the server and the command line. */
export { BACKUPS, DATABASE, HOLDER, KEY, LOCK, STAMP } from './layout.js';
export { backup, backupName, isBackupName } from './backup.js';
export type { BackupManifest } from './backup.js';
export { restore } from './restore.js';
export { selfCheck } from './self-check.js';
export type { SelfCheckFault, SelfCheckResult } from './self-check.js';
export { FolderStamp } from './stamp.js';
export type { Displaced, FolderMemory } from './stamp.js';
export { lockFolder } from './lock.js';
export type { FolderLock } from './lock.js';
