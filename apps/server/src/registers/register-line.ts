/** What a register is told of a copy, after each change. */
export interface RegisterLine {
  /** Tells a copy from all others for ever; a line that comes twice overwrites itself. */
  code: string;
  state: string;
  since: string;
  recipient: string;
  address: string;
  mailing: string;
  batch: number;
  template: string;
  file: string;
  sha256: string | null;
  /** Values of the chosen columns, as JSON. */
  metadata: string | null;
  /** Number of the change; a later one is larger. */
  change_number: number;
  /** What happened last, who did it, and why. */
  event: string;
  who: string;
  said: string | null;
}

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
