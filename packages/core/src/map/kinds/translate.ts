import { t } from '../../words/words.js';
import { suggestTable } from '../suggest-table.js';
import { isButtonWithStates } from '../../pdf/field.js';
import { byNormalised, normalised } from '../choose.js';
import { blankFor, takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** `from`: text of the column, compared without regard to case and stray spaces. `to`: on-value or export value; empty: off or blank. */
export interface Translation {
  from: string;
  to: string;
}

/** Values of a column translated to on-values or options. A value without a translation is a finding, never a silent tick. */
export interface TranslateRule {
  kind: 'translate';
  column: string;
  table: Translation[];
}

/** Translations by what they translate. */
const indexes = new WeakMap<readonly Translation[], ReadonlyMap<string, Translation>>();

function translationOf(table: readonly Translation[], text: string): Translation | undefined {
  let index = indexes.get(table);
  if (!index) indexes.set(table, (index = byNormalised(table.map((one) => [one.from, one] as const))));
  return index.get(normalised(text));
}

function translationFrom(given: unknown): Translation | null {
  const { from, to } = (given ?? {}) as { from?: unknown; to?: unknown };
  return typeof from === 'string' && typeof to === 'string' ? { from, to } : null;
}

export const translate: RuleKind<TranslateRule> = {
  kind: 'translate',
  order: 30,
  asItStands: true,
  title: t`a column, translated`,
  help: t`Says which option each value of a column stands for. A value that is not in the list is a stop, never a silent tick.`,
  parts: {
    column: 'name of the column',
    table: 'list of { "from", "to" }: a value of the column, and the on-value or export value that it becomes; "Off" or empty for none',
  },
  examples: [
    {
      rule: {
        kind: 'translate',
        column: 'Season',
        table: [
          { from: 'summer', to: 'S' },
          { from: 'whole year', to: 'Y' },
        ],
      },
      from: { Season: 'whole year' },
      gives: 'Y',
    },
  ],
  suits: takesOneOf,
  begin: (field, column) => ({ kind: 'translate', column: column?.name ?? '', table: suggestTable(field, column) }),
  parse({ column, table }) {
    const read = Array.isArray(table) ? table.map(translationFrom) : [];
    return typeof column === 'string' && Array.isArray(table) && read.every((one) => one !== null)
      ? { kind: 'translate', column, table: read }
      : null;
  },
  readsColumns: (rule) => [rule.column],
  with: (rule, change) => ({ ...rule, column: change.column(rule.column) }),
  evaluate(rule, field, { row }) {
    const text = row.cell(rule.column).text;
    const found = translationOf(rule.table, text);
    if (found)
      return {
        value:
          found.to === '' || (isButtonWithStates(field) && found.to === 'Off')
            ? blankFor(field)
            : field.kind === 'list'
              ? [found.to]
              : found.to,
      };
    if (text.trim() === '') return { value: blankFor(field) };
    return {
      value: blankFor(field),
      untranslated: { column: rule.column, text, accepted: rule.table.map((one) => one.from).filter(Boolean) },
    };
  },
  sentence: (rule) => [{ column: rule.column }, { say: t`${rule.table.length} values translated` }],
};
