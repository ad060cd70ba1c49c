import { distance } from 'fastest-levenshtein';
import { normalised } from '../map/choose.js';
import type { Column, SourceRecord } from './record.js';

/** Places that are told of each kind of change. */
const MOST_TOLD = 50;

/** What a new reading of a source has changed, beside the reading before. */
export interface SourceChanges {
  added: number;
  gone: number;
  changed: number;
  /** Keys, or rows where there is no key. */
  addedKeys: string[];
  goneKeys: string[];
  changedValues: { key: string; column: string; was: string; now: string }[];
  newColumns: string[];
  goneColumns: string[];
  /** Columns that are gone with those that probably took their place. */
  renamed: { from: string; to: string }[];
  /** Corrections that were made again, that the source has by now, and that fit no more. */
  corrections: { applied: number; fulfilled: number; unfit: { key: string; column: string; value: string; why: string }[] };
}

/** The key by which a record is known again: its key column, or its row where there is none. */
export function recordKeys(columns: readonly Pick<Column, 'name'>[], keyColumn: string | null): (record: SourceRecord) => string {
  const index = keyColumn === null ? -1 : columns.findIndex(({ name }) => name === keyColumn);
  return (record) => {
    const key = index < 0 ? '' : normalised(record.cells[index]?.text ?? '');
    return key === '' ? `row ${record.row}` : key;
  };
}

/** Tells records of one key apart by their order: the second of them is “key #2”. */
export class NumberedKeys {
  private readonly counts = new Map<string, number>();
  of(key: string): string {
    const count = (this.counts.get(key) ?? 0) + 1;
    this.counts.set(key, count);
    return count === 1 ? key : `${key} #${count}`;
  }
}

const bare = (name: string): string => name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');

/** How much two columns have in common: name, kind, examples. 0 to 1. */
function likeness(a: Column, b: Column): number {
  const [one, other] = [bare(a.name), bare(b.name)];
  const names = 1 - distance(one, other) / Math.max(one.length, other.length, 1);
  const within = one.length > 2 && other.length > 2 && (one.includes(other) || other.includes(one)) ? 0.8 : 0;
  const shared =
    a.examples.filter((example) => b.examples.includes(example)).length / Math.max(1, Math.min(a.examples.length, b.examples.length));
  return Math.max(names, within) * 0.5 + shared * 0.4 + (a.kind === b.kind ? 0.1 : 0);
}

/** Columns that are gone, each with the new one that is most like it. */
export function renamedColumns(before: readonly Column[], now: readonly Column[]): SourceChanges['renamed'] {
  const gone = before.filter(({ name }) => !now.some((column) => column.name === name));
  const added = now.filter(({ name }) => !before.some((column) => column.name === name));
  const pairs = gone
    .flatMap((from) => added.map((to) => ({ from: from.name, to: to.name, score: likeness(from, to) })))
    .filter(({ score }) => score >= 0.45)
    .sort((a, b) => b.score - a.score);
  const renamed: SourceChanges['renamed'] = [];
  for (const { from, to } of pairs) if (!renamed.some((one) => one.from === from || one.to === to)) renamed.push({ from, to });
  return renamed;
}

/**
 * Compares the records of two readings, block by block: first all of the earlier one, then all of the later. Of the earlier
 * only a digest a record is kept, so that a large source needs little memory.
 */
export class ChangeWatch {
  private readonly before = new Map<string, { digest: number; ordinal: number }>();
  private readonly common: [was: number, now: number][];
  private readonly keyBefore;
  private readonly keyNow;
  private readonly numbers = [new NumberedKeys(), new NumberedKeys()] as const;
  private seen = 0;
  readonly changes: SourceChanges;
  /** Places of the earlier records whose values changed, by key, with the new record. */
  readonly differing: { ordinal: number; key: string; record: SourceRecord }[] = [];

  constructor(
    private readonly columnsBefore: readonly Column[],
    columnsNow: readonly Column[],
    keyColumn: string | null,
  ) {
    const placeBefore = new Map(columnsBefore.map(({ name }, index) => [name, index]));
    this.common = columnsNow.flatMap(({ name }, index): [number, number][] =>
      placeBefore.has(name) ? [[placeBefore.get(name)!, index]] : [],
    );
    this.keyBefore = recordKeys(columnsBefore, keyColumn);
    this.keyNow = recordKeys(columnsNow, keyColumn);
    const names = (columns: readonly Column[]): string[] => columns.map(({ name }) => name);
    this.changes = {
      added: 0,
      gone: 0,
      changed: 0,
      addedKeys: [],
      goneKeys: [],
      changedValues: [],
      newColumns: names(columnsNow).filter((name) => !placeBefore.has(name)),
      goneColumns: names(columnsBefore).filter((name) => !names(columnsNow).includes(name)),
      renamed: renamedColumns(columnsBefore, columnsNow),
      corrections: { applied: 0, fulfilled: 0, unfit: [] },
    };
  }
  private digest(record: SourceRecord, side: 0 | 1): number {
    let hash = 0;
    for (const pair of this.common) {
      const text = record.cells[pair[side]]?.text ?? '';
      for (let index = 0; index < text.length; index++) hash = (Math.imul(hash, 31) + text.charCodeAt(index)) | 0;
      hash = (Math.imul(hash, 31) + 1) | 0;
    }
    return hash;
  }
  was(records: readonly SourceRecord[]): void {
    for (const record of records)
      this.before.set(this.numbers[0].of(this.keyBefore(record)), { digest: this.digest(record, 0), ordinal: this.seen++ });
  }
  now(records: readonly SourceRecord[]): void {
    for (const record of records) {
      const key = this.numbers[1].of(this.keyNow(record));
      const known = this.before.get(key);
      if (!known) {
        this.changes.added++;
        if (this.changes.addedKeys.length < MOST_TOLD) this.changes.addedKeys.push(key);
        continue;
      }
      this.before.delete(key);
      if (known.digest === this.digest(record, 1)) continue;
      this.changes.changed++;
      if (this.differing.length < MOST_TOLD) this.differing.push({ ordinal: known.ordinal, key, record });
    }
  }
  /** @param recordAt the earlier record at a place */
  done(recordAt: (ordinal: number) => SourceRecord | undefined): SourceChanges {
    this.changes.gone = this.before.size;
    this.changes.goneKeys = [...this.before.keys()].slice(0, MOST_TOLD);
    for (const { ordinal, key, record } of this.differing) {
      const before = recordAt(ordinal);
      for (const [was, now] of this.common) {
        const [old, fresh] = [before?.cells[was]?.text ?? '', record.cells[now]?.text ?? ''];
        if (old !== fresh && this.changes.changedValues.length < MOST_TOLD)
          this.changes.changedValues.push({ key, column: this.columnsBefore[was]!.name, was: old, now: fresh });
      }
    }
    return this.changes;
  }
}
