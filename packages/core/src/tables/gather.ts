import { t } from '../words/words.js';
import { Allowance } from './allowance.js';
import { MailbagError } from '../errors/catalogue.js';
import { columnLetters, headingNames } from './headings.js';
import { ColumnProfile } from './profile.js';
import type { Cell, Column, ColumnReading, SourceNote, SourceRecord } from './record.js';
import { emptyCell } from './record.js';

/** Records that one source holds at most. */
export const ROW_LIMIT = 500_000;
/** Columns that one source has at most. */
export const COLUMN_LIMIT = 2000;
/** Records and UTF-16 units of what is handed on at a time. */
const BLOCK = 500;
const BLOCK_UNITS = 2_000_000;
/** UTF-16 units of the name of a column. */
const LONGEST_HEADING = 300;
const ERROR_CELL = /^#(N\/A|REF!|VALUE!|DIV\/0!|NAME\?|NUM!|NULL!|SPILL!|CALC!)$/;

/** Counts something and keeps the first places where it was. */
export class Tally {
  count = 0;
  readonly places: string[] = [];
  add(place: string): void {
    this.count++;
    if (this.places.length < 5) this.places.push(place);
  }
  note(code: SourceNote['code']): SourceNote[] {
    return this.count > 0 ? [{ code, count: this.count, names: this.places }] : [];
  }
}

/** What a sheet tells beside its rows, known when it has been read. */
export interface SheetFacts {
  /** 0-based. */
  hiddenColumns: readonly number[];
  /** Rows 1-based, columns 0-based. */
  merges: readonly { top: number; left: number; bottom: number; right: number }[];
  notes: readonly SourceNote[];
}
export const noFacts: SheetFacts = { hiddenColumns: [], merges: [], notes: [] };

export interface GatherOptions {
  /** The sheet or file, for sentences. */
  where: string;
  headingRow: number;
  /** By the name of the column. */
  readings: Readonly<Record<string, ColumnReading>>;
  onRecords(records: SourceRecord[]): void;
  /** Bytes of the file, unpacked. Undefined: it is no file. */
  size?: number;
  /** Whether rows that are too short are worth a word: in text files a lost delimiter does that. */
  tellsShort?: boolean;
  /** Whether there may be no rows yet. */
  mayBeEmpty?: boolean;
}

/** Gathers rows below the headings into records, with profiles and notes. */
export class Gatherer {
  private headings: string[] | null = null;
  private profiles: ColumnProfile[] = [];
  private readonly surplus = new Tally();
  /** Columns beyond the last heading. */
  private widened = 0;
  private readonly short = new Tally();
  private readonly errors = new Tally();
  private emptyRows = 0;
  private emptyRun = 0;
  private above = 0;
  private hidden = 0;
  private pending: SourceRecord[] = [];
  private pendingUnits = 0;
  private readonly allowance: Allowance;
  count = 0;

  constructor(private readonly options: GatherOptions) {
    this.allowance = new Allowance(options.where, options.size ?? Infinity);
  }

  see(row: number, cells: readonly Cell[], hidden: boolean): void {
    const { headingRow, where } = this.options;
    const units = this.allowance.take(row, cells);
    if (row < headingRow) {
      if (cells.some((cell) => cell?.text.trim())) this.above++;
      return;
    }
    if (row === headingRow) return this.head(row, cells);
    if (!this.headings) throw new MailbagError('sheet-no-headings', { row: headingRow, where });
    if (!cells.some((cell) => cell?.text.trim())) {
      this.emptyRun++;
      return;
    }
    this.emptyRows += this.emptyRun;
    this.emptyRun = 0;
    if (hidden) this.hidden++;
    if (cells.length > this.headings.length) this.widen(row, cells);
    const width = this.headings.length;
    if (this.options.tellsShort && cells.length < width - this.widened) this.short.add(t`row ${row}`);
    const record: SourceRecord = { row, cells: [] };
    for (let index = 0; index < width; index++) {
      const cell = cells[index] ?? emptyCell;
      record.cells.push(cell);
      this.profiles[index]!.see(cell);
      if (cell.text.startsWith('#') && ERROR_CELL.test(cell.text)) this.errors.add(`${columnLetters(index)}${row}`);
    }
    this.count++;
    if (this.count > ROW_LIMIT) throw new MailbagError('sheet-too-many-rows', { where, limit: ROW_LIMIT });
    this.pending.push(record);
    this.pendingUnits += units + width;
    if (this.pending.length >= BLOCK || this.pendingUnits >= BLOCK_UNITS) this.flush();
  }

  private head(row: number, cells: readonly Cell[]): void {
    const { where } = this.options;
    const texts = Array.from(cells, (cell) => (cell?.text ?? '').slice(0, LONGEST_HEADING));
    while (texts.length > 0 && !texts.at(-1)!.trim()) texts.pop();
    if (texts.length === 0) throw new MailbagError('sheet-no-headings', { row, where });
    if (texts.length > COLUMN_LIMIT)
      throw new MailbagError('sheet-too-many-columns', { where, columns: texts.length, limit: COLUMN_LIMIT });
    this.headings = texts;
    this.profiles = texts.map(() => new ColumnProfile());
  }

  /** Cells beyond the last heading get columns of their own, which are empty in the records before. */
  private widen(row: number, cells: readonly Cell[]): void {
    const headings = this.headings!;
    let last = cells.length - 1;
    while (last >= headings.length && !cells[last]?.text.trim()) last--;
    if (last < headings.length) return;
    if (last >= COLUMN_LIMIT)
      throw new MailbagError('sheet-too-many-columns', { where: this.options.where, columns: last + 1, limit: COLUMN_LIMIT });
    this.surplus.add(t`row ${row}`);
    while (headings.length <= last) {
      const profile = new ColumnProfile();
      for (let before = 0; before < this.count; before++) profile.see(emptyCell);
      headings.push('');
      this.profiles.push(profile);
      this.widened++;
    }
  }

  private flush(): void {
    if (this.pending.length > 0) this.options.onRecords(this.pending);
    this.pending = [];
    this.pendingUnits = 0;
  }

  done(facts: SheetFacts = noFacts): { columns: Column[]; notes: SourceNote[] } {
    const { where, headingRow, readings } = this.options;
    this.flush();
    if (!this.headings) throw new MailbagError('sheet-empty', { where });
    if (this.count === 0 && !this.options.mayBeEmpty) throw new MailbagError('sheet-empty', { where: `${where} below row ${headingRow}` });
    // A heading that is merged over several columns names all of them.
    const merged = new Tally();
    for (const { top, left, bottom, right } of facts.merges) {
      if (top <= headingRow && bottom >= headingRow) {
        for (let index = left; index <= Math.min(right, this.headings.length - 1); index++)
          if (!this.headings[index]!.trim()) this.headings[index] = this.headings[left] ?? '';
      } else if (top > headingRow) merged.add(`${columnLetters(left)}${top}`);
    }
    const { names, slugs, notes: headingNotes } = headingNames(this.headings);
    // What lies beyond the last heading is said by itself.
    const beyond = this.widened > 0 ? names.slice(-this.widened) : [];
    const notes = headingNotes.flatMap((note): SourceNote[] => {
      if (note.code !== 'empty-heading') return [note];
      const left = note.names.filter((name) => !beyond.includes(name));
      return left.length > 0 ? [{ ...note, count: left.length, names: left }] : [];
    });
    const columns: Column[] = [];
    for (const [index, name] of names.entries()) {
      const reading = Object.hasOwn(readings, name) ? readings[name] : undefined;
      const canBeKey = !columns.some(({ kind }) => kind === 'key');
      columns.push(this.profiles[index]!.done(name, slugs[index]!, reading, canBeKey));
    }
    const hiddenNames = facts.hiddenColumns.map((index) => names[index]).filter((name) => name !== undefined);
    const counted = (code: SourceNote['code'], count: number, places: string[] = []): SourceNote[] =>
      count > 0 ? [{ code, count, names: places }] : [];
    return {
      columns,
      notes: [
        ...notes,
        ...counted('rows-above', this.above),
        ...counted('hidden-rows', this.hidden),
        ...counted('hidden-columns', hiddenNames.length, hiddenNames),
        ...this.errors.note('error-cells'),
        ...(beyond.length > 0 ? [{ code: 'ragged-rows' as const, count: this.surplus.count, names: beyond }] : []),
        ...this.short.note('short-rows'),
        ...merged.note('merged-cells'),
        ...counted('empty-rows', this.emptyRows),
        ...facts.notes,
      ],
    };
  }
}
