import { Plural } from '@mailbag/core/words';
import { IntlMessageFormat } from 'intl-messageformat';
import type { Formatter } from './message-catalogue';

/** Says messages with plurals, by the rules of a language (ICU's MessageFormat, Unicode CLDR). @param locale BCP 47 (RFC 5646) */
export function pluralFormat(locale: string): Formatter {
  const made = new Map<string, IntlMessageFormat>();
  return (message, text, values) => {
    let format = made.get(message);
    if (!format) made.set(message, (format = new IntlMessageFormat(text, locale, undefined, { ignoreTag: true })));
    const named = Object.fromEntries(values.map((value, at) => [at, value instanceof Plural ? value.value : value]));
    return format.formatToParts<unknown>(named).map(({ value }) => value);
  };
}
