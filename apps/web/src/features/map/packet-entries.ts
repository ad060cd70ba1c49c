import type { LearnedRule, TemplateDetail } from '@mailbag/contract';
import type { Column, FieldMap, FillRule } from '@mailbag/core';
import { isTelling, questionWords, sameHeading } from '@mailbag/core';
import type { SheetEntry } from './sheet-entries';
import { sheetEntries, withRule } from './sheet-entries';

/** An answer of the packet: it stands in one template, and may stand in others too, filled by the same rule. */
export interface PacketEntry extends SheetEntry {
  /** The same answer in other templates of the packet, one each. */
  also: SheetEntry[];
}

/** All the places of an answer, the first in front. */
export const placesOf = (entry: PacketEntry): SheetEntry[] => [entry, ...entry.also];

/** Names of the boxes of an answer in one template. */
export const boxesIn = (entry: PacketEntry, template: number | undefined): string[] =>
  placesOf(entry).flatMap((one) => (one.template.id === template ? one.parts.map(({ name }) => name) : []));

const text = (rule: FillRule | undefined): string => (rule ? JSON.stringify(rule) : '');

const wordsOf = ({ field, parts }: SheetEntry): string => questionWords(field, parts.length > 1);

function groupedByWords(entries: readonly SheetEntry[]): ReadonlyMap<string, SheetEntry[]> {
  const groups = new Map<string, SheetEntry[]>();
  for (const entry of entries) {
    const words = wordsOf(entry);
    const there = groups.get(words);
    if (there) there.push(entry);
    else groups.set(words, [entry]);
  }
  return groups;
}

/** Whether an answer of another template is the same, and nothing so far fills it otherwise. */
function isSame(one: SheetEntry, other: SheetEntry): boolean {
  if (one.isMixed || other.isMixed || wordsOf(one) !== wordsOf(other) || wordsOf(one) === '') return false;
  if (one.rule || other.rule) return text(one.rule) === text(other.rule);
  const isAlikeSuggested = text(one.suggested?.rule) === text(other.suggested?.rule);
  if (sameHeading(one.answer.section, other.answer.section) === 'same') return isAlikeSuggested || !one.suggested || !other.suggested;
  // Under other headings a bare “Name” may be anybody's; more words, for which the same column is found, are the same.
  return one.suggested !== undefined && isAlikeSuggested && isTelling(one.field);
}

/** The rows of the fill sheet for a packet: what several templates ask alike is one row, at its first place. */
export function packetEntries(
  templates: readonly TemplateDetail[],
  maps: Readonly<Record<number, FieldMap>>,
  columns: readonly Column[],
  learned: readonly LearnedRule[] = [],
): PacketEntry[] {
  const byTemplate = templates.map((one) => sheetEntries(one, maps[one.id] ?? {}, columns, learned));
  /** The answers of each template by their words. */
  const byWords = byTemplate.map(groupedByWords);
  const taken = new Set<SheetEntry>();
  return byTemplate.flatMap((entries, at) =>
    entries.flatMap((entry): PacketEntry[] => {
      if (taken.has(entry)) return [];
      const also: SheetEntry[] = [];
      const words = templates.length > 1 ? wordsOf(entry) : '';
      // Two alike in one template, such as the names of two witnesses, are two answers.
      if (byWords[at]!.get(words)?.length === 1)
        for (const others of byWords.slice(at + 1)) {
          const alike = others.get(words) ?? [];
          const [same] = alike;
          if (alike.length === 1 && same && !taken.has(same) && isSame(entry, same)) {
            taken.add(same);
            also.push(same);
          }
        }
      const suggested = entry.suggested ?? also.find((one) => one.suggested)?.suggested;
      return [{ ...entry, suggested: entry.rule ? undefined : suggested, also }];
    }),
  );
}

/** The maps of a packet with another rule for an answer, wherever it stands. @param rule undefined: none any more */
export function mapsWithRule(
  maps: Readonly<Record<number, FieldMap>>,
  entry: PacketEntry,
  rule: FillRule | undefined,
): Record<number, FieldMap> {
  const next = { ...maps };
  for (const one of placesOf(entry)) next[one.template.id] = withRule(next[one.template.id] ?? {}, one, rule);
  return next;
}
