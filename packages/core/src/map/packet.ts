import type { Field } from '../pdf/field.js';
import type { Condition } from './condition.js';
import { holds, readCondition, rulesIn, withRulesIn } from './condition.js';
import type { Evaluation, FieldMap } from './field-map.js';
import { evaluateMap } from './field-map.js';
import type { FillContext } from './fill-context.js';
import { parseRule, readsColumns, renameColumn, workOn } from './registry.js';
import type { Row } from './row.js';
import type { Cannot } from './rule.js';

/** A template of a packet as one record meets it. */
export interface PacketTemplate {
  fields: readonly Field[];
  map: FieldMap;
  /** The records that get it. Left out or null: all of them. */
  when?: Condition | null;
}

/** Whether a record gets a template, or why that cannot be told. */
export const isFor = ({ when }: Pick<PacketTemplate, 'when'>, row: Row, context: FillContext): boolean | Cannot =>
  when ? holds(when, workOn(row, context)) : true;

/** The values of a record for a template; null: it does not get it, or it cannot be told whether. */
export const evaluateTemplate = (template: PacketTemplate, row: Row, context: FillContext): Evaluation | null =>
  isFor(template, row, context) === true ? evaluateMap(template.fields, template.map, row, context) : null;

/** The columns that a packet reads, for its conditions and its maps. */
export const packetColumns = (templates: readonly Pick<PacketTemplate, 'map' | 'when'>[]): string[] => [
  ...new Set(
    templates.flatMap(({ map, when }) => [
      ...(when ? rulesIn(when).flatMap(readsColumns) : []),
      ...Object.values(map).flatMap(readsColumns),
    ]),
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
}

/** The rules and conditions of a packet with a column of another name. */
export function rulesWithColumn({ maps, conditions }: PacketRules, from: string, to: string): PacketRules {
  const each = <One, Other>(things: Record<string, One>, change: (one: One) => Other): Record<string, Other> =>
    Object.fromEntries(Object.entries(things).map(([name, one]) => [name, change(one)]));
  return {
    maps: each(maps, (map) => each(map, (rule) => renameColumn(rule, from, to))),
    ...(conditions && { conditions: each(conditions, (one) => withRulesIn(one, (rule) => renameColumn(rule, from, to))) }),
  };
}
