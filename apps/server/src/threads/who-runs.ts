import { createHash } from 'node:crypto';
import type { StartChoice, StartGroup } from '@mailbag/contract';
import type { Cell, SourceRecord } from '@mailbag/core';
import { SAMPLE_CODE, addressesIn, copiesFor, fillContext, rowReader } from '@mailbag/core';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { paperWish } from './paper-wish.js';
import { columnsInCopies, keyDigests, valueDigests } from '../frozen/record-digest.js';
import { recordBlocks } from './source-records.js';
import type { Tasks } from '../work/tasks.js';
import { batchStore } from '../stores/batch.store.js';
import { findingStore } from '../stores/finding.store.js';
import { folderStore } from '../stores/folder.store.js';
import { threadSql } from './worker-database.js';

/** What a batch knows of a record that it made copies of. */
interface Had {
  values: string | null;
  /** Names of the columns whose values that digest is of. */
  used: string;
}

/** Everybody who has a copy of this mailing, by the digest of their key, and batches of which that cannot be told. */
async function hadCopies(mailingId: number, keyColumn: string | null, salt: string): Promise<{ had: Map<string, Had>; unknown: number[] }> {
  const sql = threadSql();
  const had = new Map<string, Had>();
  const unknown: number[] = [];
  for (const { keyDigest } of await batchStore.hadCopies(sql, mailingId)) had.set(keyDigest, { values: null, used: '[]' });
  for (const batch of await batchStore.withKeyColumns(sql, mailingId, keyColumn)) {
    const used = batch.usedColumns ?? '[]';
    if (batch.frozen === '') {
      for (const one of await batchStore.digestsWithCopies(sql, batch))
        if (one.keyDigest !== null) had.set(one.keyDigest, { values: one.valuesDigest, used });
      continue;
    }
    // Another column was the key then: the records say what their key would be now, as long as they are kept.
    const { columns } = JSON.parse(batch.frozen) as FrozenMailing;
    const isThere = keyColumn === null || columns.some(({ name }) => name === keyColumn);
    const keyOf = keyDigests(salt, columns, keyColumn);
    let hasValues = isThere;
    if (isThere)
      for (const row of await batchStore.recordsWithCopies(sql, batch)) {
        if (row.cells === '[]') hasValues = false;
        else had.set(keyOf({ row: row.row, cells: JSON.parse(row.cells) as Cell[] }), { values: row.valuesDigest, used });
      }
    if (!hasValues) unknown.push(batch.number);
  }
  return { had, unknown };
}

/** A record that may run, with what is told of it. */
export interface Candidate {
  ordinal: number;
  record: SourceRecord;
  key: string;
  values: string;
  hasOne: boolean;
  isChanged: boolean;
}

/** Goes through all records of a mailing and tells of each what decides whether it runs. @param see may keep what it likes */
export async function candidates(
  { mailingId, sourceId, mailing }: Pick<Tasks['whoRuns']['input'], 'mailingId' | 'sourceId' | 'mailing'>,
  see: (candidate: Candidate, held: 'stop' | 'left-out' | null) => void,
): Promise<{ unknown: number[]; used: string[] }> {
  const { plan, columns } = mailing;
  const salt = await folderStore.salt(threadSql());
  const keyColumn = plan.keyColumn ?? null;
  const { had, unknown } = await hadCopies(mailingId, keyColumn, salt);
  const used = columnsInCopies(mailing);
  const keyOf = keyDigests(salt, columns, keyColumn);
  const valuesOf = valueDigests(salt, columns, used);
  // What an earlier batch looked at may be other columns than this one does.
  const earlier = new Map([[JSON.stringify(used), valuesOf]]);
  const valuesAs = (names: string): ReturnType<typeof valueDigests> => {
    const known = earlier.get(names) ?? valueDigests(salt, columns, JSON.parse(names) as string[]);
    earlier.set(names, known);
    return known;
  };
  const leftOut = new Set(plan.leftOut);
  const stopped = new Set((await findingStore.stopped(threadSql(), mailingId)).map(({ ordinal }) => ordinal));
  for await (const { first, records } of recordBlocks(sourceId))
    records.forEach((record, index) => {
      const ordinal = first + index;
      const key = keyOf(record);
      const before = had.get(key);
      const isChanged = before !== undefined && before.values !== null && valuesAs(before.used)(record) !== before.values;
      const held = leftOut.has(record.row) ? 'left-out' : stopped.has(ordinal) ? 'stop' : null;
      see({ ordinal, record, key, values: valuesOf(record), hasOne: before !== undefined, isChanged }, held);
    });
  return { unknown, used };
}

/** Why a record that could run does not with this choice; null: it runs. */
export function choose({ who, rows }: StartChoice): (candidate: Candidate) => StartGroup | null {
  const chosen = new Set(rows ?? []);
  return ({ record, hasOne, isChanged }) => {
    switch (who) {
      case 'new':
        return hasOne ? 'has-one' : null;
      case 'changed':
        return isChanged ? null : hasOne ? 'unchanged' : 'none-yet';
      case 'selection':
        return chosen.has(record.row) ? null : 'not-selected';
      case 'everybody':
        return null;
    }
  };
}

/** Digest of who runs, over what, after which batches: as long as it is the same, nothing has changed since somebody looked. */
export class StartDigest {
  private readonly hash = createHash('sha256');
  private constructor(begun: unknown) {
    this.hash.update(JSON.stringify(begun));
  }
  static async of(mailingId: number, version: number, choice: StartChoice): Promise<StartDigest> {
    return new StartDigest([mailingId, version, choice.who, await batchStore.lastOf(threadSql(), mailingId)]);
  }
  runs({ key, values }: Candidate): void {
    this.hash.update(key).update(values);
  }
  done(): string {
    return this.hash.digest('hex');
  }
}

/** Who would run, and who not and why. */
export async function whoRuns({ version, choice, ...input }: Tasks['whoRuns']['input']): Promise<Tasks['whoRuns']['output']> {
  const { plan, columns } = input.mailing;
  const { message } = plan;
  const groups: Record<StartGroup, number[]> = {
    runs: [],
    mailed: [],
    paper: [],
    'no-address': [],
    again: [],
    stop: [],
    'left-out': [],
    'has-one': [],
    'none-yet': [],
    unchanged: [],
    'not-selected': [],
  };
  let copies = 0;
  const read = rowReader(columns);
  const sizes = { new: 0, changed: 0, everybody: 0 };
  const wantsPaper = paperWish(plan, columns);
  const address = columns.findIndex(({ name }) => name === message.addressColumn);
  const why = choose(choice);
  const digest = await StartDigest.of(input.mailingId, version, choice);
  const { unknown } = await candidates(input, (candidate, held) => {
    const { ordinal, record, hasOne, isChanged } = candidate;
    if (held) return void groups[held].push(ordinal);
    sizes.everybody++;
    if (!hasOne) sizes.new++;
    if (isChanged) sizes.changed++;
    const group = why(candidate);
    if (group) return void groups[group].push(ordinal);
    groups.runs.push(ordinal);
    const row = read(record);
    const context = fillContext(input.context, ordinal, SAMPLE_CODE);
    copies += input.mailing.templates.reduce((sum, template) => sum + copiesFor(template, row, context).length, 0);
    digest.runs(candidate);
    if (hasOne) groups.again.push(ordinal);
    if (!message.mailed) return;
    if (wantsPaper(record)) groups.paper.push(ordinal);
    else if (addressesIn(record.cells[address]?.text ?? '', message.several ?? false).addresses.length > 0) groups.mailed.push(ordinal);
    else groups['no-address'].push(ordinal);
  });
  return { groups, copies, sizes, unknownBatches: unknown, digest: digest.done() };
}
