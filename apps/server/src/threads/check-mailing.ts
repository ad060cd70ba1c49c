import type { BatchContext, CheckScope, CheckSetup, CopyPlaces, NamedPicture, SaidFinding, SourceRecord } from '@mailbag/core';
import {
  copiesFor,
  RecordChecker,
  SAMPLE_CODE,
  checksComparing,
  checksOfRecords,
  comparingChecks,
  fillContext,
  packetColumns,
  recordOf,
  outputPattern,
  passwordFault,
  recordKeys,
  rowReader,
} from '@mailbag/core';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { dataOf, passwordPattern, patternNames } from '../frozen/message-of.js';
import { pictureOf, readPictureList } from '../files/picture-list.js';
import { pictureColumns } from '../frozen/record-digest.js';
import { wordsOf } from './foreign-words.js';
import { compileMailing } from './compile-mailing.js';
import { recordAt, recordBlocks } from './source-records.js';
import type { SurveyedMailing, Tasks } from '../work/tasks.js';
import type { Sql } from '../persistence/sql.js';
import { findingStore } from '../stores/finding.store.js';
import { mailingStore } from '../stores/mailing.store.js';
import { recordStore } from '../stores/record.store.js';
import { inTransaction, threadSql } from './worker-database.js';

/** Records after which the progress is told. */
const PROGRESS_EVERY = 2000;
/** Findings that are written before others have their turn. */
const WRITTEN_AT_ONCE = 5000;

/** Columns whose values go anywhere. */
function usedColumns({ plan, templates }: FrozenMailing): string[] {
  const named = [plan.keyColumn, plan.message.mailed ? plan.message.addressColumn : null];
  return [...new Set([...packetColumns(templates), ...pictureColumns(plan.output), ...named.filter((name) => typeof name === 'string')])];
}

/** A pattern that is no pattern yet, or a key that is gone, is told where it is entered. */
function whereRight<Pattern>(compile: () => Pattern): Pattern | null {
  try {
    return compile();
  } catch {
    return null;
  }
}

/** The passwords of a record's copies, with a code of the right shape in place of the one that it will have, and why they cannot have them. */
function passwordsOf({ plan, columns, templates }: FrozenMailing, batch: BatchContext): Pick<CheckSetup, 'passwordFault' | 'openPassword'> {
  const template = templates[0]?.name ?? '';
  const passwords = whereRight(() => passwordPattern(plan, columns));
  if (!passwords) return {};
  const of = (record: SourceRecord): ReturnType<typeof passwords> => passwords({ record, ordinal: 0, code: SAMPLE_CODE, batch, template });
  return {
    passwordFault: (record) => passwordFault(of(record)),
    openPassword: plan.output.openPassword?.trim() ? (record) => of(record).open : null,
  };
}

/** Where the copies of a record are wanted; null: each has something of its own in its name. */
function placesOf({ plan, columns, templates }: FrozenMailing, batch: BatchContext): CopyPlaces | null {
  const output = whereRight(() => outputPattern(plan.output.folder, plan.output.file, patternNames(columns)));
  if (!output || output.names.includes('code') || output.names.includes('number')) return null;
  const names = new Set(output.names);
  const read = rowReader(columns);
  const context = fillContext(batch, 0, SAMPLE_CODE);
  return {
    columns: [
      ...columns.filter(({ slug }) => names.has(slug)).map(({ name }) => name),
      ...packetColumns(templates.map(({ when }) => ({ map: {}, ...(when && { when }) }))),
      ...templates.flatMap(({ count }) => count?.items.flat() ?? []),
    ],
    of: (record) =>
      templates.flatMap((template) => {
        const paths = copiesFor(template, read(record), context).map((own) => {
          const copy = { record: recordOf(own, columns), ordinal: 0, code: SAMPLE_CODE, batch, template: template.name };
          const { folders, file } = output.path(dataOf(columns, copy, names));
          return [...folders, file].join('/');
        });
        // Sheets of one template for one record are numbered, and meant to be.
        return [...new Set(paths)];
      }),
  };
}

/** The boxes that take pictures of the records' own. */
async function namedPictures({ plan, templates, pictures }: FrozenMailing): Promise<NamedPicture[]> {
  const list = await readPictureList(pictures);
  return (plan.output.pictures ?? []).flatMap(({ template, field, column }) => {
    const at = templates.findIndex(({ id }) => id === template);
    return column === undefined || at < 0 ? [] : [{ template: at, field, column, has: (name) => pictureOf(list, name) !== undefined }];
  });
}

const setupOf = (
  { mailing, context }: Pick<SurveyedMailing, 'mailing' | 'context'>,
  templates: CheckSetup['templates'],
  pictures: readonly NamedPicture[] = [],
): CheckSetup => ({
  pictures,
  ...passwordsOf(mailing, context),
  places: placesOf(mailing, context),
  context: fillContext(context, 0, SAMPLE_CODE),
  columns: mailing.columns,
  templates,
  keyColumn: mailing.plan.keyColumn ?? null,
  addressColumn: mailing.plan.message.mailed ? (mailing.plan.message.addressColumn ?? null) : null,
  severalAddresses: mailing.plan.message.several ?? false,
  usedColumns: usedColumns(mailing),
  plan: mailing.plan.checks ?? {},
});

/** The templates as the checks of single records need them: compiled, so that values are measured with the metrics that draw them. */
async function measuredTemplates(
  { mailing, context }: Pick<SurveyedMailing, 'mailing' | 'context'>,
  records: AsyncIterable<Placed> | Iterable<Placed>,
): Promise<CheckSetup['templates']> {
  const characters = new Set<string>();
  const words = wordsOf(mailing, context, characters);
  words.ofRules();
  for await (const { record, ordinal } of records) words.ofRecord(record, ordinal);
  const fillers = await compileMailing(mailing, characters);
  return fillers.map((filler, at) => ({
    ...filler.template,
    when: mailing.templates[at]!.when ?? null,
    count: mailing.templates[at]!.count ?? null,
    measure: (values) => filler.measure(values),
  }));
}

/** A record at its place in the source, from 0. */
interface Placed {
  record: SourceRecord;
  ordinal: number;
}

async function* placedRecords(sourceId: number, from: number, to: number): AsyncGenerator<Placed> {
  for await (const { first, records } of recordBlocks(sourceId, from, to))
    for (const [index, record] of records.entries()) yield { record, ordinal: first + index };
}

const acceptanceKey = (recordKey: string, code: string, column: string, field: string, value: string): string =>
  JSON.stringify([recordKey, code, column, field, value]);

/** Writes findings down, at another place where it is told; what a person has accepted stays so, as long as record, column, field and value are the same. */
async function write(
  sql: Sql,
  mailingId: number,
  findings: readonly SaidFinding[],
  placeOf: (row: number) => { ordinal: number; key: string },
  place = mailingId,
): Promise<void> {
  const accepted = new Map(
    (await findingStore.acceptances(sql, mailingId)).map(({ id, recordKey, code, columnName, field, value }) => [
      acceptanceKey(recordKey, code, columnName, field, value),
      id,
    ]),
  );
  for (const { check, finding } of findings) {
    const { ordinal, key } = placeOf(finding.row);
    const { code, severity, column, field, value } = finding;
    await findingStore.add(sql, place, {
      ordinal,
      row: finding.row,
      code,
      severity,
      body: JSON.stringify(finding),
      checkName: check,
      columnName: column ?? '',
      mend: finding.mend ?? null,
      acceptanceId: severity === 'look' ? (accepted.get(acceptanceKey(key, code, column ?? '', field ?? '', value)) ?? null) : null,
    });
  }
}

/** Runs the checks that compare records over all of them. */
async function compareAll(
  { sourceId, mailing, context }: SurveyedMailing,
  scope: CheckScope,
): Promise<{ findings: SaidFinding[]; placeOf: (row: number) => { ordinal: number; key: string } }> {
  const places = new Map<number, { ordinal: number; key: string }>();
  const keyOf = recordKeys(mailing.columns, mailing.plan.keyColumn ?? null);
  const leftOut = new Set(mailing.plan.leftOut);
  const checker = new RecordChecker(setupOf({ mailing, context }, []), scope);
  for await (const { first, records } of recordBlocks(sourceId)) {
    records.forEach((record, index) => places.set(record.row, { ordinal: first + index, key: keyOf(record) }));
    checker.see(records.filter(({ row }) => !leftOut.has(row)));
  }
  return { findings: checker.done(), placeOf: (row) => places.get(row) ?? { ordinal: 0, key: '' } };
}

/** Where findings of a run stand that is under way: nobody asks for those of such a mailing. */
const pending = (mailingId: number): number => -mailingId;

/** Writes findings down beside those that hold, a few at a time, so that nobody waits for long who writes too. */
async function writeBeside(mailingId: number, findings: readonly SaidFinding[], placeOf: Parameters<typeof write>[3]): Promise<void> {
  for (let from = 0; from < findings.length; from += WRITTEN_AT_ONCE)
    await inTransaction((sql) => write(sql, mailingId, findings.slice(from, from + WRITTEN_AT_ONCE), placeOf, pending(mailingId)));
}

/** Runs the checks of single records over a stretch of them; one that is all of them compares them as well. */
export async function checkStretch(input: Tasks['checkStretch']['input']): Promise<void> {
  const { mailingId, sourceId, mailing, stretch } = input;
  const { from, to, compares } = stretch;
  const templates = await measuredTemplates(input, placedRecords(sourceId, from, to));
  const checker = new RecordChecker(
    setupOf(input, templates, await namedPictures(mailing)),
    compares ? { of: 'everything' } : { of: 'record' },
  );
  let told = from;
  const places = new Map<number, { ordinal: number; key: string }>();
  const keyOf = recordKeys(mailing.columns, mailing.plan.keyColumn ?? null);
  const leftOut = new Set(mailing.plan.leftOut);
  for await (const { first, records } of recordBlocks(sourceId, from, to)) {
    records.forEach((record, index) => places.set(record.row, { ordinal: first + index, key: keyOf(record) }));
    checker.see(records.filter(({ row }) => !leftOut.has(row)));
    if (first - told >= PROGRESS_EVERY) {
      await mailingStore.addCheckProgress(threadSql(), mailingId, first - told);
      told = first;
    }
  }
  await writeBeside(mailingId, checker.done(), (row) => places.get(row) ?? { ordinal: 0, key: '' });
}

/** Runs the checks that compare records with one another over all of a mailing. */
export async function checkComparing(input: Tasks['checkComparing']['input']): Promise<void> {
  const checks = comparingChecks(setupOf(input, []));
  if (checks.length === 0) return;
  const { findings, placeOf } = await compareAll(input, { of: 'all', checks });
  await writeBeside(input.mailingId, findings, placeOf);
}

/** Puts the findings of a run in place of those that held before, all at once; before a run: throws away what one left that never came to its end. */
export async function settleChecks({ mailingId, isBefore }: Tasks['settleChecks']['input']): Promise<void> {
  await inTransaction(async (sql) => {
    await mailingStore.clearCheckProgress(sql, mailingId);
    if (isBefore) return findingStore.dropAll(sql, pending(mailingId));
    await findingStore.dropAll(sql, mailingId);
    // One that was removed meanwhile leaves nothing behind.
    if (await mailingStore.version(sql, mailingId)) await findingStore.move(sql, pending(mailingId), mailingId);
    else await findingStore.dropAll(sql, pending(mailingId));
  });
}

/** Checks again what a change touches: the records themselves, and the checks that compare the changed columns. */
export async function checkTouched(input: Tasks['checkTouched']['input']): Promise<void> {
  const { mailingId, sourceId, mailing, only } = input;
  const leftOut = new Set(mailing.plan.leftOut);
  const keyOf = recordKeys(mailing.columns, mailing.plan.keyColumn ?? null);
  const reading = await recordStore.readingOf(threadSql(), sourceId);
  const records: { ordinal: number; record: SourceRecord; key: string }[] = [];
  for (const ordinal of reading === null ? [] : only.ordinals) {
    const record = await recordAt(reading!, ordinal);
    if (record) records.push({ ordinal, record, key: keyOf(record) });
  }
  const places = new Map(records.map(({ record, ordinal, key }) => [record.row, { ordinal, key }]));
  const setup = setupOf(input, await measuredTemplates(input, records), await namedPictures(mailing));
  const own = new RecordChecker(setup, { of: 'record' });
  own.see(records.map(({ record }) => record).filter(({ row }) => !leftOut.has(row)));
  const findings = own.done();
  const comparing = checksComparing(setup, only.columns);
  const compared = comparing.length > 0 ? await compareAll(input, { of: 'all', checks: comparing }) : null;
  const single = checksOfRecords(setup);
  await inTransaction(async (sql) => {
    for (const { ordinal } of records) await findingStore.dropOfChecks(sql, mailingId, single, ordinal);
    await findingStore.dropOfChecks(sql, mailingId, comparing, null);
    await write(sql, mailingId, findings, (row) => places.get(row) ?? { ordinal: 0, key: '' });
    if (compared) await write(sql, mailingId, compared.findings, compared.placeOf);
  });
}
