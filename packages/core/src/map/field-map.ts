import type { Field } from '../pdf/field.js';
import { isFillable } from '../pdf/field.js';
import type { FieldValues } from '../pdf/value.js';
import type { FillContext } from './fill-context.js';
import type { FillRule } from './registry.js';
import { readsColumns, workOn } from './registry.js';
import type { Row } from './row.js';
import type { Cannot, Untranslated } from './rule.js';

/** Rules by field name, for one template. A field without a rule keeps what the template itself shows. */
export type FieldMap = Record<string, FillRule>;

/** Why a field stays blank though a rule fills it: its value is not accepted, or the rule cannot be worked out. */
export type Problem = { field: string } & (
  { untranslated: Untranslated; cannot?: undefined } | { cannot: Cannot; untranslated?: undefined }
);

export interface Evaluation {
  values: FieldValues;
  problems: Problem[];
}

/** The values of one record for one template. */
export function evaluateMap(fields: readonly Field[], map: FieldMap, row: Row, context: FillContext): Evaluation {
  const values: FieldValues = {};
  const problems: Problem[] = [];
  const work = workOn(row, context);
  for (const field of fields) {
    const rule = Object.hasOwn(map, field.name) ? map[field.name] : undefined;
    if (!rule || !isFillable(field)) continue;
    const { value, untranslated, cannot } = work.evaluate(rule, field);
    values[field.name] = value;
    if (cannot) problems.push({ field: field.name, cannot });
    else if (untranslated) problems.push({ field: field.name, untranslated });
  }
  return { values, problems };
}
/** How far a packet is mapped: fields that take a value, and those of them that have a rule. */
export function mapProgress(templates: readonly { fields: readonly Field[]; map: FieldMap }[]): { fillable: number; filled: number } {
  let fillable = 0;
  let filled = 0;
  for (const { fields, map } of templates) {
    for (const field of fields.filter(isFillable)) {
      fillable++;
      if (Object.hasOwn(map, field.name)) filled++;
    }
  }
  return { fillable, filled };
}

/** Columns that no rule reads. */
export function unusedColumns(columns: readonly { name: string }[], maps: readonly FieldMap[], also: readonly string[] = []): string[] {
  const used = new Set([...also, ...maps.flatMap((map) => Object.values(map).flatMap(readsColumns))]);
  return columns.map((column) => column.name).filter((name) => !used.has(name));
}

/** Columns that rules read and the source does not have. */
export function missingColumns(columns: readonly { name: string }[], maps: readonly FieldMap[]): string[] {
  const known = new Set(columns.map((column) => column.name));
  return [...new Set(maps.flatMap((map) => Object.values(map).flatMap(readsColumns)))].filter((name) => !known.has(name));
}
