import { MailbagError } from '@mailbag/core';

/** Whether there is no room left for a file: no space, or none for whoever Mailbag runs as. */
export const isDiskFullFor = (error: unknown): boolean => ['ENOSPC', 'EDQUOT'].includes((error as NodeJS.ErrnoException).code ?? '');

/** Why a file of a batch could not be written. @param path as it is told */
export function notWritten(error: unknown, path: string): MailbagError {
  if (isDiskFullFor(error)) return new MailbagError('batch-disk-full', { path }, { cause: error });
  return new MailbagError('batch-not-made', { path, why: (error as NodeJS.ErrnoException).code ?? String(error) }, { cause: error });
}
