import type { MigrationInterface, QueryRunner } from 'typeorm';
import type { Renaming } from '../frozen/present-names.js';
import { renameFrozen, renameIntake, renamePlan, renameReminder } from '../frozen/present-names.js';

/** Columns that say what is known of a row beside its state: why, or what the other side answered. */
const COLUMNS = [
  ['delivery', 'said', 'detail'],
  ['copy_event', 'said', 'detail'],
  ['incoming_report', 'said', 'detail'],
  ['print_run', 'said', 'detail'],
  ['register', 'said', 'failure'],
  ['mail_server', 'restSaid', 'restDetail'],
] as const;

/** Where fields of remarks, errors and reports stand as JSON: what the other side answered has one name. In a text of JSON no quote stands by itself, so only a key is met. */
const FIELDS = [
  ['delivery', 'detail', 'answer'],
  ['copy_event', 'detail', 'answer'],
  ['incoming_report', 'detail', 'answer'],
  ['incoming_report', 'doubt', 'answer'],
  ['print_run', 'detail', 'answer'],
  ['mail_server', 'restDetail', 'answer'],
  ['batch', 'error', 'answer'],
  ['source', 'error', 'answer'],
  ['job', 'error', 'answer'],
  ['delivery', 'refused', 'reply'],
  ['incoming_report', 'facts', 'diagnostic'],
] as const;

/** Documents as JSON, with what is renamed in them. */
const DOCUMENTS: [table: string, column: string, rename: Renaming][] = [
  ['mailing', 'plan', renamePlan],
  ['mailing_change', 'plan', renamePlan],
  ['batch', 'frozen', renameFrozen],
  ['batch', 'reminder', renameReminder],
  ['intake', 'plan', renameIntake],
  ['intake_edition', 'plan', renameIntake],
  ['intake_edition', 'frozen', renameFrozen],
];

async function renameDocuments(runner: QueryRunner, isBack: boolean): Promise<void> {
  for (const [table, column, rename] of DOCUMENTS)
    for (const { id, text } of (await runner.query(`SELECT id, ${column} AS text FROM ${table} WHERE ${column} IS NOT NULL`)) as {
      id: number;
      text: string;
    }[]) {
      const document = JSON.parse(text) as unknown;
      rename(document, isBack);
      const written = JSON.stringify(document);
      if (written !== text) await runner.query(`UPDATE ${table} SET ${column} = ? WHERE id = ?`, [written, id]);
    }
}

const renameFields = async (runner: QueryRunner, before: (name: string) => string, now: (name: string) => string): Promise<void> => {
  for (const [table, column, name] of FIELDS)
    await runner.query(
      `UPDATE ${table} SET ${column} = replace(${column}, '"${before(name)}":', '"${now(name)}":') WHERE ${column} LIKE '%"${before(name)}":%'`,
    );
};

/** Records under another table. @param ends of its definition */
const recordsIn = (ends: string): string[] => [
  `CREATE TABLE other_record (readingId INTEGER NOT NULL, ordinal INTEGER NOT NULL, row INTEGER NOT NULL, cells TEXT NOT NULL, ${ends}`,
  'INSERT INTO other_record (readingId, ordinal, row, cells) SELECT readingId, ordinal, row, cells FROM source_record ORDER BY readingId, ordinal',
  'DROP TABLE source_record',
  'ALTER TABLE other_record RENAME TO source_record',
];
const visitsAs = (before: string, now: string): string[] => [
  `ALTER TABLE ${before}_visit RENAME TO ${now}_visit`,
  `DROP INDEX ${before}_visit_by_end`,
  `CREATE INDEX ${now}_visit_by_end ON ${now}_visit (until)`,
  `UPDATE job SET kind = '${now}-visits' WHERE kind = '${before}-visits'`,
];

/** Parts of plans, and columns, have the names by which they are called everywhere; records lie where they are read fast. */
export class PlainNames1765900000000 implements MigrationInterface {
  name = 'PlainNames1765900000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const [table, before, now] of COLUMNS) await runner.query(`ALTER TABLE ${table} RENAME COLUMN ${before} TO ${now}`);
    await renameFields(
      runner,
      () => 'said',
      (name) => name,
    );
    await renameDocuments(runner, false);
    // Wide records take a third of the room, and are read in two thirds of the time, where they lie in pages of rows and not within the tree of their keys.
    for (const statement of [...visitsAs('kept', 'saved'), ...recordsIn('UNIQUE (readingId, ordinal))')]) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const statement of [...visitsAs('saved', 'kept'), ...recordsIn('PRIMARY KEY (readingId, ordinal)) WITHOUT ROWID')])
      await runner.query(statement);
    await renameDocuments(runner, true);
    await renameFields(
      runner,
      (name) => name,
      () => 'said',
    );
    for (const [table, before, now] of COLUMNS) await runner.query(`ALTER TABLE ${table} RENAME COLUMN ${now} TO ${before}`);
  }
}
