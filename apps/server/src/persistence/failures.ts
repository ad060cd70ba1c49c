import { MailbagError } from '@mailbag/core';

/** Code of the driver's error, however it is wrapped (SQLite, “Result and Error Codes”); empty: it is no error of the database. */
export function sqliteCode(error: unknown): string {
  const { driverError, code } = (error ?? {}) as { driverError?: { code?: string }; code?: string };
  const found = driverError?.code ?? code ?? '';
  return found.startsWith('SQLITE_') ? found : '';
}

/** Whether somebody else holds what is wanted, so that it can be had a little later. */
export const isBusy = (error: unknown): boolean => /^SQLITE_(BUSY|LOCKED)/.test(sqliteCode(error));

const DISK_FULL = ['SQLITE_FULL', 'SQLITE_IOERR_WRITE', 'SQLITE_IOERR_SHMSIZE', 'SQLITE_IOERR_SHMMAP', 'ENOSPC', 'EDQUOT'];
/** Whether there is no room left, for the database or for a file. */
export const isDiskFull = (error: unknown): boolean =>
  DISK_FULL.includes(sqliteCode(error)) || DISK_FULL.includes(String((error as { code?: unknown } | null)?.code));

/** What a failure of the database or of the disk means for a person; other errors stay as they are. */
export function told(error: unknown): unknown {
  if (isDiskFull(error)) return new MailbagError('disk-full', {}, { cause: error });
  return isBusy(error) ? new MailbagError('database-busy', { seconds: 60 }, { cause: error }) : error;
}
