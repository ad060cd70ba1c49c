import { t } from '../../words/words.js';
import { nameCase } from '../../text/name-case.js';
import type { FillRule } from '../registry.js';
import { cannotWork, isCannot, madeText, takesOneOf } from '../rule.js';
import type { RuleKind } from '../rule.js';

/** How the letters of a text stand, and what is done with its spaces and lines. */
export interface ShapeRule {
  kind: 'shape';
  of: FillRule;
  letters: 'as-they-are' | 'capitals' | 'small' | 'names';
  /** Spaces at the ends go, and of several in a row one stays. */
  tidy: boolean;
  /** What stands between lines that are joined; null: they stay. */
  joinLines: string | null;
  /** Zeros are put in front up to so many characters; null: none. */
  zeros: number | null;
}

const changed = {
  'as-they-are': (text: string, _language: string) => text,
  capitals: (text: string, language: string) => text.toLocaleUpperCase(language),
  small: (text: string, language: string) => text.toLocaleLowerCase(language),
  names: (text: string, _language: string) => nameCase(text),
};

const letterWords = { 'as-they-are': '', capitals: t`in capitals`, small: t`in small letters`, names: t`as a name` };

export const shape: RuleKind<ShapeRule> = {
  kind: 'shape',
  order: 28,
  title: t`a text, tidied`,
  help: t`Capitals, small letters or the case of a name; stray spaces taken off, lines joined, zeros put in front.`,
  parts: {
    of: 'the rule whose text it is',
    letters: '"as-they-are", "capitals", "small" or "names" (“VAN DER BERG” becomes “van der Berg” within a name)',
    tidy: 'true: spaces at the ends go, and of several in a row one stays',
    joinLines: 'what stands between lines that are joined, such as ", "; null: they stay',
    zeros: 'zeros are put in front up to so many characters; null: none',
  },
  examples: [
    {
      rule: { kind: 'shape', of: { kind: 'column', column: 'Name' }, letters: 'names', tidy: true, joinLines: null, zeros: null },
      from: { Name: '  ANNA  VAN DER BERG ' },
      gives: 'Anna van der Berg',
    },
    {
      rule: { kind: 'shape', of: { kind: 'column', column: 'Member' }, letters: 'as-they-are', tidy: true, joinLines: null, zeros: 6 },
      from: { Member: '417' },
      gives: '000417',
    },
    {
      rule: { kind: 'shape', of: { kind: 'column', column: 'Address' }, letters: 'capitals', tidy: true, joinLines: ', ', zeros: null },
      from: { Address: 'Reed Lane 1\nLarkmere' },
      gives: 'REED LANE 1, LARKMERE',
    },
  ],
  suits: (field) => !takesOneOf(field),
  begin: (_, column, before) => ({
    kind: 'shape',
    of: before ?? { kind: 'column', column: column?.name ?? '' },
    letters: 'capitals',
    tidy: true,
    joinLines: null,
    zeros: null,
  }),
  parse({ of, letters = 'as-they-are', tidy = true, joinLines = null, zeros = null }, read) {
    const whole = read(of);
    if (!whole || typeof letters !== 'string' || !Object.hasOwn(changed, letters) || typeof tidy !== 'boolean') return null;
    if (!(joinLines === null || typeof joinLines === 'string')) return null;
    if (!(zeros === null || (typeof zeros === 'number' && Number.isInteger(zeros) && zeros >= 1 && zeros <= 100))) return null;
    return { kind: 'shape', of: whole, letters: letters as ShapeRule['letters'], tidy, joinLines, zeros };
  },
  inner: ({ of }) => [of],
  with: (rule, change) => ({ ...rule, of: change.rule(rule.of) }),
  make({ of, letters, tidy, joinLines, zeros }, work) {
    const made = work.make(of);
    if (isCannot(made)) return made;
    let { text } = made;
    if (joinLines !== null)
      text = text
        .split(/\r\n|[\r\n]/)
        .map((line) => line.trim())
        .filter(Boolean)
        .join(joinLines);
    if (tidy)
      text = text
        .split(/(\r\n|[\r\n])/)
        .map((line) => (/[\r\n]/.test(line) ? line : line.replace(/[^\S\r\n]+/g, ' ').trim()))
        .join('')
        .trim();
    text = changed[letters](text, work.context.locale);
    if (zeros === null || text === '') return madeText(text);
    if ([...text].length > zeros)
      return cannotWork(
        work,
        of,
        text,
        t`has more than ${zeros} characters, so no zeros can be put in front; correct it, or change how many the rule wants`,
      );
    return madeText(text.padStart(zeros, '0'));
  },
  sentence: ({ of, letters, joinLines, zeros }, inner) => [
    ...inner(of),
    {
      say:
        [letterWords[letters], joinLines === null ? '' : t`in one line`, zeros === null ? '' : t`with zeros up to ${zeros} characters`]
          .filter(Boolean)
          .join(', ') || 'tidied',
    },
  ],
};
