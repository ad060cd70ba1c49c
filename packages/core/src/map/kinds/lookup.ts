import { t } from '../../words/words.js';
import { byNormalised, normalised } from '../choose.js';
import type { FillRule } from '../registry.js';
import { cannotWork, isCannot, madeText } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** A line of a small table. `key` is compared without regard to case and stray spaces. */
export interface LookupLine {
  key: string;
  value: string;
}

/** A value that stands in a small table beside what the record says: the rate of a site, the officer of a district. */
export interface LookupRule {
  kind: 'lookup';
  of: FillRule;
  table: LookupLine[];
  /** For a key that is not in the table; null: a stop. */
  otherwise: FillRule | null;
  /** Where the table was taken from, so that it can be taken anew. Left out: it was written by hand. */
  from?: LookupOrigin;
}

/** Two columns of a source, as they were when the table was taken. */
export interface LookupOrigin {
  sourceId: number;
  source: string;
  key: string;
  value: string;
}

function parseOrigin(given: unknown): LookupOrigin | null {
  const { sourceId, source, key, value } = (given ?? {}) as Partial<Record<keyof LookupOrigin, unknown>>;
  return typeof sourceId === 'number' && typeof source === 'string' && typeof key === 'string' && typeof value === 'string'
    ? { sourceId, source, key, value }
    : null;
}

/** Lines of the longest table. */
export const LOOKUP_LIMIT = 5000;

const indexes = new WeakMap<readonly LookupLine[], ReadonlyMap<string, string>>();

export const lookup: RuleKind<LookupRule> = {
  kind: 'lookup',
  order: 27,
  asItStands: true,
  title: t`looked up in a table`,
  help: t`Finds the value that stands beside a key in a small table, such as the rate of a site or the officer of a district.`,
  parts: {
    of: 'the rule that gives the key',
    table: 'list of { "key", "value" }',
    otherwise: 'the rule for a key that is not in the table; null: a stop',
    'from?': '{ "sourceId", "source", "key", "value" }: the columns of another source that the table was taken from',
  },
  examples: [
    {
      rule: {
        kind: 'lookup',
        of: { kind: 'column', column: 'Site' },
        table: [
          { key: 'North field', value: '0.35' },
          { key: 'Brook', value: '0.42' },
        ],
        otherwise: null,
      },
      from: { Site: 'brook' },
      gives: '0.42',
    },
  ],
  suits: () => true,
  begin: (_, column, before) => ({
    kind: 'lookup',
    of: before ?? { kind: 'column', column: column?.name ?? '' },
    table: (column?.examples ?? []).map((key) => ({ key, value: '' })),
    otherwise: null,
  }),
  parse({ of, table, otherwise = null, from }, read) {
    const key = read(of);
    if (!key || !Array.isArray(table) || table.length > LOOKUP_LIMIT) return null;
    const lines = table.map((line): LookupLine | null => {
      const { key: name, value } = (line ?? {}) as Record<string, unknown>;
      return typeof name === 'string' && typeof value === 'string' ? { key: name, value } : null;
    });
    const rest = otherwise === null ? null : read(otherwise);
    if (!lines.every((line) => line !== null) || (otherwise !== null && !rest)) return null;
    const origin = from === undefined ? undefined : parseOrigin(from);
    if (origin === null) return null;
    return { kind: 'lookup', of: key, table: lines, otherwise: rest, ...(origin && { from: origin }) };
  },
  inner: ({ of, otherwise }) => (otherwise ? [of, otherwise] : [of]),
  with: (rule, change) => ({ ...rule, of: change.rule(rule.of), otherwise: rule.otherwise && change.rule(rule.otherwise) }),
  make({ of, table, otherwise }, work) {
    const made = work.make(of);
    if (isCannot(made)) return made;
    const text = made.text.trim();
    let index = indexes.get(table);
    if (!index) indexes.set(table, (index = byNormalised(table.map(({ key, value }) => [key, value] as const))));
    const found = index.get(normalised(text));
    if (found !== undefined) return madeText(found);
    if (otherwise) return work.make(otherwise);
    return text === '' ? madeText('') : cannotWork(work, of, text, t`is not in the table of the rule; add it there, or correct it`);
  },
  sentence: ({ of, table, otherwise, from }, inner) => [
    ...inner(of),
    { say: t`looked up in ${table.length} ${table.length === 1 ? t`line` : t`lines`}${from ? t` of ${from.source}` : ''}` },
    ...(otherwise ? [{ say: 'otherwise' }, ...inner(otherwise)] : []),
  ],
};
