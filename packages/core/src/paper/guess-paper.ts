import { headingWords } from '../tables/heading-words.js';
import type { Column, ColumnKind } from '../tables/record.js';

/** Where a postal address stands, as patterns; and who asks for paper. */
export interface PaperPatterns {
  name: string;
  street: string;
  postalCode: string;
  town: string;
  region: string;
  country: string;
  wantsColumn: string | null;
  wantsValues: string[];
}

/** Words with which headings of addresses begin, as they are compared, and the kind of such a column. */
const words: Record<'street' | 'postalCode' | 'town' | 'region' | 'country', [begins: readonly string[], kind: ColumnKind | null]> = {
  street: [['street', 'road'], 'address'],
  postalCode: [['postcode'], 'postal-code'],
  town: [['city'], null],
  region: [['state', 'region', 'county', 'province'], null],
  country: [['country'], null],
};

/** Guesses from names and kinds of columns where the postal address of a record stands. @param recipient pattern of the recipient's name */
export function guessPaper(recipient: string, columns: readonly Pick<Column, 'name' | 'slug' | 'kind'>[]): PaperPatterns {
  const called = columns.map((column) => [column, headingWords(column.name)] as const);
  const find = (part: keyof typeof words): string => {
    const [begins, kind] = words[part];
    const found =
      called.find(([, [first = '', ...others]]) => begins.includes(first) && !others.includes('birth'))?.[0] ??
      (kind ? columns.find((one) => one.kind === kind) : undefined);
    return found ? `{{ ${found.slug} }}` : '';
  };
  return {
    name: recipient,
    street: find('street'),
    postalCode: find('postalCode'),
    town: find('town'),
    region: find('region'),
    country: find('country'),
    wantsColumn: null,
    wantsValues: [],
  };
}
