import { t } from '../../words/words.js';
import { isMailbagError } from '../../errors/catalogue.js';
import type { Pattern } from '../../patterns/pattern.js';
import { compilePattern, patternExtras } from '../../patterns/pattern.js';
import { madeText, takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** Text with data and conditions in it, in the open language Liquid. */
export interface LiquidRule {
  kind: 'liquid';
  text: string;
  /** Columns by the names that the text has for them. */
  columns: Record<string, string>;
}

/** What the text can name beside columns. */
const EXTRAS = patternExtras.filter((name) => name !== 'template');

const compiled = new WeakMap<LiquidRule, Pattern>();
function patternOf(rule: LiquidRule): Pattern {
  let pattern = compiled.get(rule);
  if (!pattern) compiled.set(rule, (pattern = compilePattern(rule.text, [...EXTRAS, ...Object.keys(rule.columns)])));
  return pattern;
}

export const liquid: RuleKind<LiquidRule> = {
  kind: 'liquid',
  order: 21,
  title: t`composed text with conditions`,
  help: t`Text in the language Liquid: {{ name }} puts data in, {% if name == "…" %} asks. For whoever knows it; everything else is put together from parts.`,
  parts: {
    text: 'the text, with {{ names }} and {% tags %}',
    columns: `object: a name in the text, and the column that it stands for; beside them ${EXTRAS.join(', ')} are known`,
  },
  examples: [
    {
      rule: {
        kind: 'liquid',
        text: 'Plot {{ plot }}{% if shed == "yes" %} with shed{% endif %}',
        columns: { plot: 'Plot', shed: 'Has a shed' },
      },
      from: { Plot: 'B-12', 'Has a shed': 'yes' },
      gives: 'Plot B-12 with shed',
    },
  ],
  suits: (field) => !takesOneOf(field),
  begin: (_, column) => ({
    kind: 'liquid',
    text: column ? `{{ ${column.slug} }}` : '',
    columns: column ? { [column.slug]: column.name } : {},
  }),
  parse({ text, columns }) {
    if (typeof text !== 'string' || typeof columns !== 'object' || columns === null) return null;
    const own = Object.entries(columns as Record<string, unknown>);
    if (!own.every((entry): entry is [string, string] => /^[a-z_][a-z0-9_]*$/.test(entry[0]) && typeof entry[1] === 'string')) return null;
    return { kind: 'liquid', text, columns: Object.fromEntries(own) };
  },
  readsColumns: ({ columns }) => [...new Set(Object.values(columns))],
  with: (rule, change) => ({
    ...rule,
    columns: Object.fromEntries(Object.entries(rule.columns).map(([name, column]) => [name, change.column(column)])),
  }),
  make(rule, work) {
    const { code, batch, number, today } = work.context;
    const data: Record<string, string> = { code, batch: String(batch), number: String(number), today };
    for (const [name, column] of Object.entries(rule.columns)) data[name] = work.row.cell(column).text.trim();
    try {
      return madeText(patternOf(rule).render(data).trim());
    } catch (error) {
      if (!isMailbagError(error)) throw error;
      return { cannot: error.message, column: '', text: rule.text };
    }
  },
  sentence: (rule) => [{ text: rule.text }],
};
