import type { CopyChange } from '../stores/copy-event.store.js';

/**
 * What a register is told of a copy, after each change; a line that comes twice overwrites itself. The detail of the change is called `said` there: the
 * tables and files of registers belong to others, who read them by their names.
 */
export type RegisterLine = Omit<CopyChange, 'detail'> & { said: CopyChange['detail'] };
export const registerLine = ({ detail, ...change }: CopyChange): RegisterLine => ({ ...change, said: detail });

export const registerColumns = [
  'code',
  'state',
  'since',
  'recipient',
  'address',
  'mailing',
  'batch',
  'template',
  'file',
  'sha256',
  'metadata',
  'change_number',
  'event',
  'who',
  'said',
] as const satisfies readonly (keyof RegisterLine)[];

/** Where lines are written to. Each keeps what it has: the same lines may come again after a failure. */
export interface RegisterWriter {
  write(lines: readonly RegisterLine[]): Promise<void>;
  close(): Promise<void>;
}
