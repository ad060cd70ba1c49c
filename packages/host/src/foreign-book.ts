import { statSync } from 'node:fs';
import { Worker } from 'node:worker_threads';
import type { ForeignBook } from '@mailbag/core';
import { MailbagError } from '@mailbag/core';

/** The library holds a workbook whole, so what it may take is limited: bytes of the file, memory in MB, milliseconds. */
const MOST_BYTES = 40 * 1024 * 1024;
const MEMORY_MB = 700;
const TIME = 14_000;

/**
 * Reads a workbook in an older or binary format (.xls, .xlsb) in a thread of its own.
 * @throws MailbagError sheet-too-large, sheet-took-too-much, sheet-password, sheet-damaged
 */
export async function foreignBook(path: string, file: string): Promise<ForeignBook> {
  if (statSync(path).size > MOST_BYTES) throw new MailbagError('sheet-too-large', { file, limitMb: MOST_BYTES / 1048576 });
  const worker = new Worker(new URL('./foreign-book-thread.js', import.meta.url), {
    workerData: { path },
    resourceLimits: { maxOldGenerationSizeMb: MEMORY_MB },
    execArgv: [],
  });
  try {
    return await new Promise<ForeignBook>((resolve, reject) => {
      const timer = setTimeout(() => reject(new MailbagError('sheet-took-too-much', { file })), TIME);
      const told = (error: Error & { code?: string }): MailbagError =>
        error.code === 'ERR_WORKER_OUT_OF_MEMORY'
          ? new MailbagError('sheet-took-too-much', { file })
          : /password|encrypt/i.test(error.message)
            ? new MailbagError('sheet-password', { file })
            : new MailbagError('sheet-damaged', { file, part: 'the workbook' }, { cause: error });
      const took = (book: ForeignBook | null): void => (book ? resolve(book) : reject(new MailbagError('sheet-took-too-much', { file })));
      worker.once('message', took).once('error', (error: Error) => reject(told(error)));
      worker.once('exit', () => {
        clearTimeout(timer);
        reject(new MailbagError('sheet-damaged', { file, part: 'the workbook' }));
      });
    });
  } finally {
    await worker.terminate();
  }
}
