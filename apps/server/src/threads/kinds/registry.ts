import { readByKey } from '@mailbag/core';
import type { SourceRecord, TableReading, TableResult } from '@mailbag/core';
import type { SourceInput, SourceKindName } from '../../work/tasks.js';
import { databaseKind } from './database.js';
import { fileKind } from './file.js';
import { intakeKind } from './intake.js';
import type { ReadingKind } from './kind.js';

/** Each kind of source that is read, by its name. */
const kinds: { [Name in SourceKindName]: ReadingKind<Name> } = {
  file: fileKind,
  database: databaseKind,
  intake: intakeKind,
};

/** Reads the records of a source of any kind. @throws MailbagError as its kind does */
export function readRecords(from: SourceInput, reading: TableReading, onRecords: (records: SourceRecord[]) => void): Promise<TableResult> {
  const kind = kinds[from.kind] as ReadingKind<SourceKindName>;
  const [first] = 'files' in from ? from.files : [];
  return readByKey((wanted, take) => kind.read(from, wanted, take), reading, first?.file ?? 'The query', onRecords);
}
