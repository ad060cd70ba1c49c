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

/** Names that columns of addresses have; common practice, no source. */
const words: Record<'street' | 'postalCode' | 'town' | 'region' | 'country', [names: RegExp, kind: ColumnKind | null]> = {
  street: [/^(street|stra(ss|ß)e|address|road|anschrift|adresse|rue)(?![\p{L}])/iu, 'address'],
  postalCode: [/^(post(al)? ?code|postcode|zip|plz|postleitzahl|code postal)(?![\p{L}])/iu, 'postal-code'],
  town: [/^(town|city|place|ort|stadt|wohnort|ville)(?![\p{L}])/iu, null],
  region: [/^(state|region|county|province)(?![\p{L}])/iu, null],
  country: [/^(country|land|pays)(?![\p{L}])/iu, null],
};

/** Guesses from names and kinds of columns where the postal address of a record stands. @param recipient pattern of the recipient's name */
export function guessPaper(recipient: string, columns: readonly Pick<Column, 'name' | 'slug' | 'kind'>[]): PaperPatterns {
  const find = (part: keyof typeof words): string => {
    const [names, kind] = words[part];
    const found = columns.find(({ name }) => names.test(name.trim())) ?? (kind ? columns.find((one) => one.kind === kind) : undefined);
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
