import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

type RuleSet = [base: string, text: string][];

/**
 * Numbers in words by the rules of the Unicode CLDR, read as its specification says (UTS 35, part 3, “Rule-Based Number Formatting”): as much of it as the
 * rules for whole numbers from 0 up use.
 * @param set the name of a set of rules, such as `%spellout-cardinal`
 */
export function cldrWords(language: string, set: string): (number: number) => string {
  const folder = dirname(createRequire(join(process.cwd(), 'package.json')).resolve('cldr-rbnf/package.json'));
  const file = JSON.parse(readFileSync(join(folder, 'rbnf', `${language}.json`), 'utf8')) as {
    rbnf: { rbnf: { SpelloutRules: Record<string, RuleSet> } };
  };
  const sets = file.rbnf.rbnf.SpelloutRules;
  const words = (number: number, name: string): string => {
    const rules = sets[name]!.flatMap(([given, text]) => {
      const [base = '', radix = '10'] = given.split('/');
      return /^\d+$/.test(base) ? [{ base: Number(base), radix: Number(radix), text: text.replace(/;$/, '').replace(/^'/, '') }] : [];
    });
    const at = rules.findLastIndex(({ base }) => base <= number);
    const { base, radix, text } = rules[at]!;
    // The highest power of the radix that is no more than the base value.
    let divisor = 1;
    while (divisor * radix <= base) divisor *= radix;
    const [times, rest] = [Math.floor(number / divisor), number % divisor];
    const named = (found: string): string => (found === '' ? name : found);
    return text
      .replace(/\[([^[\]]*)\]/g, (_, optional: string) => (rest === 0 ? '' : optional))
      .replace(/→([^→]*)→/g, (_, other: string) => (rest === 0 && other !== '' && base >= 100 ? '' : words(rest, named(other))))
      .replace(/←([^←]*)←/g, (_, other: string) => words(times, named(other)))
      .replace(/=(%[^=]*)=/g, (_, other: string) => words(number, other));
  };
  // Soft hyphens say where a word may be broken.
  return (number) => words(number, set).replaceAll('\u00ad', '');
}
