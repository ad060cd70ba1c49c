import type { Catalogue } from '@mailbag/core/words';
import { Plural } from '@mailbag/core/words';
import { IntlMessageFormat } from 'intl-messageformat';

/** Messages in a language by their names, in the syntax of ICU's MessageFormat. */
export type Messages = Readonly<Record<string, string>>;

/** @param locale BCP 47 (RFC 5646) */
export function messageCatalogue(locale: string, messages: Messages): Catalogue {
  const made = new Map<string, IntlMessageFormat>();
  return {
    locale,
    say(message, values) {
      const text = messages[message];
      if (text === undefined) return null;
      if (values.length === 0) return [text];
      let format = made.get(message);
      if (!format) made.set(message, (format = new IntlMessageFormat(text, locale, undefined, { ignoreTag: true })));
      const named = Object.fromEntries(values.map((value, at) => [at, value instanceof Plural ? value.value : value]));
      return format.formatToParts<unknown>(named).map(({ value }) => value);
    },
  };
}
