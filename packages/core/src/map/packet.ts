import type { Field } from '../pdf/field.js';
import type { Condition } from './condition.js';
import { holds, readCondition, rulesIn, withRulesIn } from './condition.js';
import type { Evaluation, FieldMap } from './field-map.js';
import { evaluateMap } from './field-map.js';
import type { FillContext } from './fill-context.js';
import { parseRule, readsColumns, renameColumn, workOn } from './registry.js';
import type { CopyCount } from './repeated.js';
import { columnsThrough, copyRows } from './repeated.js';
import type { Row } from './row.js';
import type { Cannot } from './rule.js';
import { isCannot } from './rule.js';

/** A template of a packet as one record meets it. */
export interface PacketTemplate {
  fields: readonly Field[];
  map: FieldMap;
  /** The records that get it. Left out or null: all of them. */
  when?: Condition | null;
  /** How many copies a record gets. Left out or null: one. */
  count?: CopyCount | null;
}

/** A copy of a record for a template: its values, and the record as it sees it. */
export interface CopyEvaluation extends Evaluation {
  row: Row;
}

/** A record as each of its copies of a template sees it, none where it does not get it; or why that cannot be told. */
export function rowsFor({ when, count }: Pick<PacketTemplate, 'when' | 'count'>, row: Row, context: FillContext): Row[] | Cannot {
  const isMeant = when ? holds(when, workOn(row, context)) : true;
  return typeof isMeant !== 'boolean' ? isMeant : isMeant ? copyRows(count, row) : [];
}

/** As `rowsFor`, none where it cannot be told. */
export function copiesFor(template: Pick<PacketTemplate, 'when' | 'count'>, row: Row, context: FillContext): Row[] {
  const rows = rowsFor(template, row, context);
  return isCannot(rows) ? [] : rows;
}

/** The values of each copy of a record for a template; none: it does not get it, or it cannot be told whether. */
export const evaluateTemplate = (template: PacketTemplate, row: Row, context: FillContext): CopyEvaluation[] =>
  copiesFor(template, row, context).map((own) => ({ ...evaluateMap(template.fields, template.map, own, context), row: own }));

/** The columns that a packet reads, for its conditions and its maps: those of all items where they stand for one another. */
export const packetColumns = (templates: readonly Pick<PacketTemplate, 'map' | 'when' | 'count'>[]): string[] => [
  ...new Set(
    templates.flatMap(({ map, when, count }) => {
      const read = Object.values(map).flatMap(readsColumns);
      return [...(when ? rulesIn(when).flatMap(readsColumns) : []), ...read, ...(count ? columnsThrough(count, read) : [])];
    }),
  ),
];

/** Something that is given as a condition, read as one; null: it is none. */
export const parseCondition = (given: unknown): Condition | null =>
  readCondition(given, (one) => (typeof one === 'string' ? { kind: 'column', column: one } : parseRule(one).rule));

/** What a packet reads, by the ids of its templates. */
export interface PacketRules {
  maps: Record<string, FieldMap>;
  /** Left out: every record gets every template. */
  conditions?: Record<string, Condition>;
  /** Left out: a record gets one copy of each. */
  counts?: Record<string, CopyCount>;
}

/** The rules and conditions of a packet with a column of another name. */
export function rulesWithColumn({ maps, conditions, counts }: PacketRules, from: string, to: string): PacketRules {
  const each = <One, Other>(things: Record<string, One>, change: (one: One) => Other): Record<string, Other> =>
    Object.fromEntries(Object.entries(things).map(([name, one]) => [name, change(one)]));
  return {
    maps: each(maps, (map) => each(map, (rule) => renameColumn(rule, from, to))),
    ...(conditions && { conditions: each(conditions, (one) => withRulesIn(one, (rule) => renameColumn(rule, from, to))) }),
    ...(counts && {
      counts: each(counts, (one) => ({ ...one, items: one.items.map((item) => item.map((name) => (name === from ? to : name))) })),
    }),
  };
}
