import type { ErrorCode, ErrorFields, TableExcerpt, TableReading, TemplateDescription } from '@mailbag/core';
import type { FrozenMailing } from '../batches/frozen-mailing.js';

/** What worker threads can do. Each task's input and output cross the thread boundary as data. */
export interface Tasks {
  inspect: { input: { path: string; file: string }; output: TemplateDescription };
  excerpt: { input: { path: string; file: string; reading: TableReading }; output: TableExcerpt };
  /** Writes the records into `source_record`; the source itself is finished by the caller. */
  readSource: {
    input: { sourceId: number; path: string; file: string; reading: TableReading };
    output: {
      columns: import('@mailbag/core').Column[];
      notes: import('@mailbag/core').SourceNote[];
      count: number;
      reading: TableReading;
    };
  };
  /** Runs the checks of a mailing and replaces its rows in `finding`. */
  check: { input: { mailingId: number; sourceId: number; mailing: FrozenMailing }; output: { findings: number } };
  /** Makes the planned copies of a stretch of records and writes their sizes and digests; their state is changed by the caller. */
  make: { input: { batchId: number; from: number; to: number }; output: { made: number[] } };
}

export type TaskName = keyof Tasks;
/** Errors of the catalogue come back as data. */
export type TaskResult<Output> = { ok: true; output: Output } | { ok: false; code: ErrorCode; fields: ErrorFields };
