import { t } from '../../words/words.js';
import { graphemes } from '../../text/graphemes.js';
import type { FillRule } from '../registry.js';
import { isCannot, madeText, takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** A value with no more than so many characters. */
export interface ShortenRule {
  kind: 'shorten';
  of: FillRule;
  /** The most characters, as people see them, with the mark. */
  to: number;
  /** Where it ends: behind the last whole word, or anywhere. */
  at: 'word' | 'character';
  /** What stands behind what was left out; may be empty. */
  mark: string;
}

/** The text with at most so many characters; one that is short enough stays as it is. */
function shortened(text: string, { to, at, mark }: ShortenRule): string {
  const all = graphemes(text);
  if (all.length <= to) return text;
  const kept = all.slice(0, Math.max(0, to - graphemes(mark).length)).join('');
  const next = text.slice(kept.length, kept.length + 1);
  // A first word that is too long by itself ends anywhere.
  const whole = at === 'word' && /\S/.test(next) && /\s/.test(kept.trim()) ? kept.slice(0, kept.search(/\s\S*$/)) : kept;
  return whole.trimEnd() + mark;
}

export const shorten: RuleKind<ShortenRule> = {
  kind: 'shorten',
  order: 24,
  asItStands: true,
  title: t`a value, shortened`,
  help: t`Keeps no more characters than fit, up to a whole word if you like, with a mark behind what was left out.`,
  parts: {
    of: 'the rule whose value is shortened',
    to: 'the most characters, with the mark',
    at: '"word" (usual) to end behind a whole word, or "character"',
    mark: 'what stands behind what was left out, such as "…"; left out: nothing',
  },
  examples: [
    {
      rule: { kind: 'shorten', of: { kind: 'column', column: 'Remarks' }, to: 20, at: 'word', mark: '…' },
      from: { Remarks: 'The gate sticks in winter.' },
      gives: 'The gate sticks in…',
    },
    {
      rule: { kind: 'shorten', of: { kind: 'column', column: 'Remarks' }, to: 12, at: 'character', mark: '' },
      from: { Remarks: 'The gate sticks in winter.' },
      gives: 'The gate sti',
    },
  ],
  suits: (field) => !takesOneOf(field),
  begin: (field, column, before) => ({
    kind: 'shorten',
    of: before ?? { kind: 'column', column: column?.name ?? '' },
    to: field.maxLength ?? 40,
    at: 'word',
    mark: '',
  }),
  parse({ of, to, at = 'word', mark = '' }, read) {
    const whole = read(of);
    return whole &&
      Number.isInteger(to) &&
      (to as number) >= 1 &&
      (to as number) <= 100_000 &&
      (at === 'word' || at === 'character') &&
      typeof mark === 'string'
      ? { kind: 'shorten', of: whole, to: to as number, at, mark }
      : null;
  },
  inner: ({ of }) => [of],
  with: (rule, change) => ({ ...rule, of: change.rule(rule.of) }),
  make(rule, work) {
    const made = work.make(rule.of);
    return isCannot(made) || graphemes(made.text).length <= rule.to ? made : madeText(shortened(made.text, rule));
  },
  sentence: ({ of, to, at }, inner) => [...inner(of), { say: t`at most ${to} characters${at === 'word' ? t`, whole words` : ''}` }],
};
