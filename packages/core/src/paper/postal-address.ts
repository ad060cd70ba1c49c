import { formatAddress } from 'localized-address-format';

/** Where a recipient lives. Texts as the records hold them. */
export interface PostalAddress {
  name: string;
  street: string;
  postalCode: string;
  town: string;
  region: string;
  /** Two letters (ISO 3166-1); empty: the office's own country. */
  country: string;
}

/** Lines that a window envelope shows (DIN 5008, form B: the address zone has six). */
export const MOST_LINES = 6;

const names = new Intl.DisplayNames(['en'], { type: 'region' });
const tidy = (text: string): string => text.replace(/\s+/g, ' ').trim();
/** The letters that a country has today: some have had others (`SU`, `DD`), which the Unicode CLDR knows. */
const today = (code: string): string => Intl.getCanonicalLocales(`und-${code}`)[0]!.slice(-2);
/** Names of countries as people write them, to their letters. */
const letters = new Map<string, string>();
for (let first = 65; first <= 90; first++) {
  for (let second = 65; second <= 90; second++) {
    const code = String.fromCharCode(first, second);
    const name = names.of(code);
    if (name && name !== code && today(code) === code) letters.set(name.toLowerCase(), code);
  }
}

/** Letters of a country from its letters or its English name; null: it is neither. */
export function countryLetters(text: string): string | null {
  const given = tidy(text);
  if (given === '') return null;
  const upper = given.toUpperCase();
  if (/^[A-Z]{2}$/.test(upper)) return names.of(upper) === upper ? null : upper === 'UK' ? 'GB' : today(upper);
  return letters.get(given.toLowerCase()) ?? null;
}

/**
 * The lines of an address in the order of its country, its own country left out, another one in capitals at the end
 * (Universal Postal Union, S42; the orders come from the open data of the format library).
 * @param home two letters of the country that it is posted in
 * @returns null: there is no street or no town, so that nothing can be posted
 */
export function addressLines(given: PostalAddress, home: string): string[] | null {
  const [street, town] = [given.street.split(/\r?\n/).map(tidy).filter(Boolean), tidy(given.town)];
  if (street.length === 0 || town === '') return null;
  const country = countryLetters(given.country) ?? home;
  const lines = formatAddress({
    postalCountry: country,
    name: tidy(given.name),
    addressLines: street.slice(0, 3),
    locality: town,
    administrativeArea: tidy(given.region),
    postalCode: tidy(given.postalCode),
  })
    .map(tidy)
    .filter(Boolean);
  // Where towns are no part of addresses, one that is given is written all the same: it harms nobody, and a wrong country would lose it.
  if (!lines.some((line) => line.includes(town))) {
    const last = lines.findLastIndex((line) => street.some((one) => line.includes(one)));
    lines.splice(last < 0 ? lines.length : last + 1, 0, town);
  }
  const abroad = country === home ? [] : [(names.of(country) ?? country).toUpperCase()];
  // Too many lines: those of the street are joined, the name and the end stay.
  const all = [...lines, ...abroad];
  return all.length <= MOST_LINES
    ? all
    : [all[0]!, all.slice(1, all.length - MOST_LINES + 2).join(', '), ...all.slice(all.length - MOST_LINES + 2)];
}

/** Postal order: own country first, then by country, postal code and street. */
export function comparePostal(a: PostalAddress, b: PostalAddress, home: string): number {
  const country = (one: PostalAddress): string => countryLetters(one.country) ?? home;
  const [first, second] = [country(a), country(b)];
  if (first !== second) return first === home ? -1 : second === home ? 1 : first.localeCompare(second, 'en');
  const collator = { numeric: true } as const;
  return (
    tidy(a.postalCode).localeCompare(tidy(b.postalCode), 'en', collator) ||
    tidy(a.town).localeCompare(tidy(b.town), 'en', collator) ||
    tidy(a.street).localeCompare(tidy(b.street), 'en', collator) ||
    tidy(a.name).localeCompare(tidy(b.name), 'en', collator)
  );
}
