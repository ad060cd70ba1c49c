import type { SourceRecord, TableReading, TableResult } from '@mailbag/core';
import type { SourceInput, SourceKindName } from '../../work/tasks.js';

/** How the records of one kind of source are read, in the thread that does it. */
export interface ReadingKind<Name extends SourceKindName> {
  read(
    from: Extract<SourceInput, { kind: Name }>,
    reading: TableReading,
    onRecords: (records: SourceRecord[]) => void,
  ): Promise<TableResult>;
}
