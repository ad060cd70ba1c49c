import { evaluateTemplate } from '../map/packet.js';
import type { PacketTemplate } from '../map/packet.js';
import type { BatchContext } from '../map/fill-context.js';
import { SAMPLE_CODE, fillContext } from '../map/fill-context.js';
import { rowReader } from '../map/row.js';
import { isFillable } from '../pdf/field.js';
import type { FieldValue } from '../pdf/value.js';
import type { Column, SourceRecord } from '../tables/record.js';

/** A value that a field takes, as text: an on-value, an export value, several with commas; empty where it is blank or not ticked. */
export const surveyedValue = (value: FieldValue): string =>
  value === true ? 'true' : value === false ? '' : Array.isArray(value) ? value.join(', ') : value;

/** One value of a field over all records. */
export interface ValueCount {
  value: string;
  count: number;
  /** Place of the first record that has it, from 0. */
  index: number;
}

/** What a field takes over all records. */
export interface FieldSurvey {
  /** Place of the template in the packet. */
  template: number;
  field: string;
  /** Records for which it is blank, or not ticked. */
  empty: number;
  /** Records for which its rule cannot be worked out, or has no translation. */
  stopped: number;
  /** Different values, counted up to `MOST_COUNTED`. */
  distinct: number;
  /** The most usual values. */
  values: ValueCount[];
  /** The longest value; null: it is blank throughout. */
  longest: ValueCount | null;
}

/** What a map makes of all records. */
export interface Survey {
  records: number;
  fields: FieldSurvey[];
  /** Place of the record whose values are longest in all, and of the one that leaves most fields blank; null: there are none. */
  longest: number | null;
  emptiest: number | null;
}

/** Different values of a field that are counted one by one. */
export const MOST_COUNTED = 2000;
/** Usual values that are told. */
const MOST_TOLD = 12;

interface Counts {
  template: number;
  field: string;
  empty: number;
  stopped: number;
  values: Map<string, ValueCount>;
  longest: ValueCount | null;
}

/** Works out a map for all records, and counts what its fields take. Records come in blocks. */
export class MapSurvey {
  private readonly counts: Counts[][];
  private readonly read;
  private records = 0;
  private longest: { index: number; length: number } | null = null;
  private emptiest: { index: number; blanks: number } | null = null;

  constructor(
    private readonly templates: readonly PacketTemplate[],
    columns: readonly Pick<Column, 'name'>[],
    private readonly batch: BatchContext,
  ) {
    this.read = rowReader(columns);
    this.counts = templates.map(({ fields, map }, template) =>
      fields
        .filter((field) => isFillable(field) && Object.hasOwn(map, field.name))
        .map(({ name }) => ({ template, field: name, empty: 0, stopped: 0, values: new Map(), longest: null })),
    );
  }

  /** @param index place of the record among all, from 0 */
  see(record: SourceRecord, index: number): void {
    this.records++;
    const context = fillContext(this.batch, index, SAMPLE_CODE);
    const row = this.read(record);
    let [length, blanks] = [0, 0];
    this.templates.forEach((one, template) => {
      const copies = evaluateTemplate(one, row, context).map(({ values, problems }) => ({
        values,
        stopped: new Set(problems.map(({ field }) => field)),
      }));
      for (const counts of this.counts[template]!) {
        // Of several copies of a record, those in which a field takes the same count once: what is counted are records.
        const seen = new Set<string>();
        for (const { values, stopped } of copies) {
          const value = surveyedValue(values[counts.field] ?? '');
          length += value.length;
          const what = stopped.has(counts.field) ? 'stopped' : value.trim() === '' ? 'empty' : `=${value}`;
          if (seen.has(what)) continue;
          seen.add(what);
          if (what === 'stopped') counts.stopped++;
          else if (what === 'empty') {
            counts.empty++;
            blanks++;
          } else this.count(counts, value, index);
        }
      }
    });
    if (!this.longest || length > this.longest.length) this.longest = { index, length };
    if (!this.emptiest || blanks > this.emptiest.blanks) this.emptiest = { index, blanks };
  }

  private count(counts: Counts, value: string, index: number): void {
    const known = counts.values.get(value);
    if (known) known.count++;
    else if (counts.values.size < MOST_COUNTED) counts.values.set(value, { value, count: 1, index });
    if (!counts.longest || value.length > counts.longest.value.length) counts.longest = { value, count: 1, index };
  }

  done(): Survey {
    const fields = this.counts.flat().map(({ values, longest, ...counts }): FieldSurvey => ({
      ...counts,
      distinct: values.size,
      values: [...values.values()].sort((a, b) => b.count - a.count || a.index - b.index).slice(0, MOST_TOLD),
      longest: longest && (values.get(longest.value) ?? longest),
    }));
    return { records: this.records, fields, longest: this.longest?.index ?? null, emptiest: this.emptiest?.index ?? null };
  }
}

/** Which records a number of a survey counts. */
export type Counted = { of: 'empty' } | { of: 'stopped' } | { of: 'value'; value: string };

/** Tells whether a record is among those that a number of a survey counts. */
export function countedRecords(
  template: PacketTemplate,
  fieldName: string,
  counted: Counted,
  columns: readonly Pick<Column, 'name'>[],
  batch: BatchContext,
): (record: SourceRecord, index: number) => boolean {
  const read = rowReader(columns);
  const own = template.fields.filter(({ name }) => name === fieldName);
  return (record, index) =>
    evaluateTemplate({ ...template, fields: own }, read(record), fillContext(batch, index, SAMPLE_CODE)).some(({ values, problems }) => {
      if (!Object.hasOwn(values, fieldName)) return false;
      if (problems.length > 0) return counted.of === 'stopped';
      const value = surveyedValue(values[fieldName]!);
      return counted.of === 'empty' ? value.trim() === '' : counted.of === 'value' && value === counted.value;
    });
}
