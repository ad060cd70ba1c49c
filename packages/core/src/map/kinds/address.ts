import { t } from '../../words/words.js';
import { addressLines, countryLetters } from '../../paper/postal-address.js';
import type { PostalAddress } from '../../paper/postal-address.js';
import type { FillRule } from '../registry.js';
import { isCannot, madeText } from '../rule.js';
import type { RuleKind } from '../rule.js';

export const addressParts = ['name', 'street', 'postalCode', 'town', 'region', 'country'] as const;
export type AddressPart = (typeof addressParts)[number];

/** The recipient's address block, in the order of its country. */
export interface AddressRule {
  kind: 'address';
  /** Rules by the part of the address that they give; what is left out is empty. */
  of: Partial<Record<AddressPart, FillRule>>;
  /** Two letters (ISO 3166-1) of the office's country, which is left out. */
  home: string;
  /** What stands between the lines; null: each has a line of its own. */
  joined: string | null;
}

export const address: RuleKind<AddressRule> = {
  kind: 'address',
  order: 34,
  title: t`an address block`,
  help: t`Puts name, street, postal code and town together as the country of the recipient writes them.`,
  parts: {
    of: `rules by the part that they give: ${addressParts.map((part) => `"${part}"`).join(', ')}`,
    home: 'two letters of your own country (ISO 3166-1), which is left out',
    joined: 'what stands between the lines, such as ", "; null: lines of their own',
  },
  examples: [
    {
      rule: {
        kind: 'address',
        of: {
          name: { kind: 'column', column: 'Name' },
          street: { kind: 'column', column: 'Street' },
          postalCode: { kind: 'column', column: 'Postcode' },
          town: { kind: 'column', column: 'Town' },
        },
        home: 'DE',
        joined: ', ',
      },
      from: { Name: 'Ada Quist', Street: 'Reed Lane 1', Postcode: '01067', Town: 'Larkmere' },
      gives: 'Ada Quist, Reed Lane 1, 01067 Larkmere',
    },
  ],
  suits: (field) => field.kind === 'text',
  begin: (field, column) => ({
    kind: 'address',
    of: column ? { name: { kind: 'column', column: column.name } } : {},
    home: 'DE',
    joined: field.flags.includes('multiline') ? null : ', ',
  }),
  parse({ of, home, joined = null }, read) {
    if (typeof of !== 'object' || of === null || typeof home !== 'string' || !/^[A-Z]{2}$/.test(home)) return null;
    if (!(joined === null || typeof joined === 'string')) return null;
    const own: AddressRule['of'] = {};
    for (const [part, rule] of Object.entries(of)) {
      const known = addressParts.find((one) => one === part);
      const inner = known ? read(rule) : null;
      if (!known || !inner) return null;
      own[known] = inner;
    }
    return { kind: 'address', of: own, home, joined };
  },
  inner: ({ of }) => Object.values(of),
  with: (rule, change) => ({
    ...rule,
    of: Object.fromEntries(Object.entries(rule.of).map(([part, one]) => [part, change.rule(one)])),
  }),
  make({ of, home, joined }, work) {
    const given: PostalAddress = { name: '', street: '', postalCode: '', town: '', region: '', country: '' };
    for (const part of addressParts) {
      const rule = of[part];
      if (!rule) continue;
      const made = work.make(rule);
      if (isCannot(made)) return made;
      given[part] = made.text.trim();
    }
    const texts = addressParts.map((part) => given[part]);
    if (texts.every((text) => text === '')) return madeText('');
    if (given.country !== '' && countryLetters(given.country) === null)
      return {
        cannot: t`“${given.country}” is not a known country; write its English name or its two-letter code.`,
        column: work.columns(of.country!),
        text: given.country,
      };
    const lines = addressLines(given, home);
    if (lines) return madeText(lines.join(joined ?? '\n'));
    const missing = given.street === '' ? 'street' : 'town';
    return { cannot: t`The address has no ${missing}; fill it in.`, column: of[missing] ? work.columns(of[missing]) : '', text: '' };
  },
  sentence: ({ of }, inner) => [{ say: t`address of` }, ...addressParts.flatMap((part) => (of[part] ? inner(of[part]) : []))],
};
