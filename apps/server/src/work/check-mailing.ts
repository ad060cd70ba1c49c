import type { Cell, SourceRecord } from '@mailbag/core';
import { RecordChecker, measureCopy } from '@mailbag/core';
import { foreignWords } from './foreign-words.js';
import { compileMailing } from './make-copies.js';
import type { Tasks } from './tasks.js';
import { workerDatabase } from './worker-database.js';

const BLOCK = 500;

/** Records of a source in blocks, so that a large one is never in memory whole. */
function* recordBlocks(sourceId: number): Generator<{ first: number; records: SourceRecord[] }> {
  const select = workerDatabase().prepare(
    'SELECT ordinal, row, cells FROM source_record WHERE sourceId = ? AND ordinal >= ? ORDER BY ordinal LIMIT ?',
  );
  for (let from = 0; ; from += BLOCK) {
    const rows = select.all([sourceId, from, BLOCK]) as { ordinal: number; row: number; cells: string }[];
    if (rows.length === 0) return;
    yield { first: from, records: rows.map(({ row, cells }) => ({ row, cells: JSON.parse(cells) as Cell[] })) };
  }
}

/** Runs all checks over all records of a mailing and replaces its findings in one transaction. */
export async function checkMailing({ mailingId, sourceId, mailing }: Tasks['check']['input']): Promise<Tasks['check']['output']> {
  const characters = new Set<string>();
  const ordinalOf = new Map<number, number>();
  const database = workerDatabase();
  for (const { first, records } of recordBlocks(sourceId)) {
    records.forEach((record, index) => {
      ordinalOf.set(record.row, first + index);
      for (const cell of record.cells) foreignWords(cell.text, characters);
    });
  }
  foreignWords(JSON.stringify(mailing.templates.map(({ map }) => map)), characters);
  const compiled = await compileMailing(mailing, characters);
  const checker = new RecordChecker({
    columns: mailing.columns,
    templates: mailing.templates.map(({ fields, map }, index) => ({
      fields,
      map,
      measure: (values) => measureCopy(compiled[index]!, values),
    })),
    keyColumn: mailing.plan.keyColumn ?? null,
    addressColumn: mailing.plan.message.mailed ? (mailing.plan.message.addressColumn ?? null) : null,
  });
  const leftOut = new Set(mailing.plan.leftOut);
  for (const { records } of recordBlocks(sourceId)) checker.see(records.filter(({ row }) => !leftOut.has(row)));
  const findings = checker.done();
  const insert = database.prepare('INSERT INTO finding (mailingId, ordinal, row, code, severity, body) VALUES (?, ?, ?, ?, ?, ?)');
  database.transaction(() => {
    database.prepare('DELETE FROM finding WHERE mailingId = ?').run([mailingId]);
    for (const finding of findings)
      insert.run([mailingId, ordinalOf.get(finding.row) ?? 0, finding.row, finding.code, finding.severity, JSON.stringify(finding)]);
  })();
  return { findings: findings.length };
}
