import type { FoundMessage, FoundValue } from '@mailbag/core/words';
import { Plural } from '@mailbag/core/words';

/** Characters of a text in which a message is looked for. */
const LONGEST = 1200;
/** Letters that a message must have beside its values, so that it is not found by chance. */
const FEWEST_LETTERS = 5;

/** One way in which a message is written. */
interface Form {
  message: string;
  /** What stands before, between and behind its values. */
  texts: readonly string[];
  /** Numbers of its values in their order. */
  places: readonly number[];
  /** Numbers of those that count something. */
  counted: ReadonlySet<number>;
  letters: number;
}

const PLURAL = /\{(\d+), plural, one \{([^{}]*)\} other \{([^{}]*)\}\}/;

/** A message without plurals, once for each way in which they can be said. */
function formsOf(message: string, name = message, counted: readonly number[] = []): Form[] {
  const plural = PLURAL.exec(name);
  if (plural) {
    const [whole, place, one, other] = plural as unknown as [string, string, string, string];
    return [...new Set([one, other])].flatMap((words) =>
      formsOf(message, name.replace(whole, words.replaceAll('#', `{${place}}`)), [...counted, Number(place)]),
    );
  }
  const parts = name.split(/\{(\d+)\}/);
  const texts = parts.filter((_, at) => at % 2 === 0);
  const letters = texts.join('').replaceAll(/[^\p{L}]/gu, '').length;
  if (texts.length < 2 || letters < FEWEST_LETTERS || texts.slice(1, -1).includes('')) return [];
  return [{ message, texts, places: parts.filter((_, at) => at % 2 === 1).map(Number), counted: new Set(counted), letters }];
}

const NUMBER = /^\d[\d,]*$/;

/** The values of a form in a text, each as short as it can be; null: it is another text. */
function valuesIn({ texts, places, counted }: Form, text: string): FoundValue[] | null {
  const last = texts.at(-1)!;
  if (!text.startsWith(texts[0]!) || !text.endsWith(last)) return null;
  const values: FoundValue[] = [];
  let at = texts[0]!.length;
  for (const [index, place] of places.entries()) {
    const next = texts[index + 1]!;
    const end = index === places.length - 1 ? text.length - last.length : text.indexOf(next, at);
    if (end < at || (end === at && index === places.length - 1)) return null;
    const value = text.slice(at, end);
    if (counted.has(place) && !NUMBER.test(value)) return null;
    const isName = texts[index]!.endsWith('“') && next.startsWith('”');
    const found = { value: counted.has(place) ? new Plural(Number(value.replaceAll(',', '')), '', '') : value, isName };
    const earlier = values[place];
    if (earlier && String(earlier.value) !== String(found.value)) return null;
    values[place] = found;
    at = end + next.length;
  }
  return values;
}

/** Finds which of some messages an English text is: of several the one that says most in words of its own. @param names messages as the catalogues call them */
export function messageFinder(names: readonly string[]): (text: string) => FoundMessage | null {
  const forms = names.flatMap((name) => formsOf(name)).sort((one, other) => other.letters - one.letters);
  return (text) => {
    if (text.length > LONGEST) return null;
    for (const form of forms) {
      const values = valuesIn(form, text);
      if (values) return { message: form.message, values };
    }
    return null;
  };
}
