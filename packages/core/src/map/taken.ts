import { t, translated } from '../words/words.js';

/** What is taken. Characters are counted as people see them, from 1; `to: null` is the end. Words are counted from 1, or from -1 at the end. */
export type Taken =
  | { what: 'characters'; from: number; to: number | null }
  | { what: 'word'; number: number }
  | { what: 'all-but-word'; number: 1 | -1 }
  | { what: 'before' | 'after'; mark: string; which: 'first' | 'last' }
  | { what: 'digits' | 'letters' };

const characters = new Intl.Segmenter('und', { granularity: 'grapheme' });

/** The part of a value that is taken; null: it has none. */
export function partOf(text: string, take: Taken): string | null {
  switch (take.what) {
    case 'characters': {
      const all = /^[\x20-\x7e]*$/.test(text) ? [...text] : Array.from(characters.segment(text), ({ segment }) => segment);
      return all.length < take.from ? null : all.slice(take.from - 1, take.to ?? undefined).join('');
    }
    case 'word':
      return text.split(/\s+/).at(take.number > 0 ? take.number - 1 : take.number) ?? null;
    case 'all-but-word': {
      const words = text.split(/\s+/);
      return words.length < 2 ? null : (take.number === 1 ? words.slice(1) : words.slice(0, -1)).join(' ');
    }
    case 'before':
    case 'after': {
      const at = take.which === 'first' ? text.indexOf(take.mark) : text.lastIndexOf(take.mark);
      if (at < 0) return null;
      return (take.what === 'before' ? text.slice(0, at) : text.slice(at + take.mark.length)).trim();
    }
    case 'digits':
      return text.replace(/\P{Nd}+/gu, '') || null;
    case 'letters':
      return text.replace(/[^\p{L}\p{M}]+/gu, '') || null;
  }
}

const ordinal = (number: number): string =>
  number === 1 ? t`first` : number === -1 ? t`last` : number < 0 ? t`${-number}. last` : `${number}.`;
/** What is taken, in words: “characters 3 to 5”. */
export function takenWords(take: Taken): string {
  switch (take.what) {
    case 'characters':
      return take.to === null
        ? t`from character ${take.from} on`
        : take.to === take.from
          ? t`character ${take.from}`
          : t`characters ${take.from} to ${take.to}`;
    case 'word':
      return t`${ordinal(take.number)} word`;
    case 'all-but-word':
      return t`all but the ${ordinal(take.number)} word`;
    case 'before':
    case 'after':
      return t`what stands ${translated(take.what)} the ${translated(take.which)} “${take.mark}”`;
    case 'digits':
    case 'letters':
      return t`${translated(take.what)} only`;
  }
}

const isPlace = (given: unknown): given is number => Number.isInteger(given) && (given as number) >= 1 && (given as number) <= 100_000;

/** Reads what is given as a part to take; null: it is none. */
export function readTaken(given: unknown): Taken | null {
  const { what, from, to, number, mark, which = 'first' } = (given ?? {}) as Record<string, unknown>;
  switch (what) {
    case 'characters':
      return isPlace(from) && (to === null || to === undefined || (isPlace(to) && to >= from)) ? { what, from, to: to ?? null } : null;
    case 'word':
      return Number.isInteger(number) && number !== 0 && Math.abs(number as number) <= 1000 ? { what, number: number as number } : null;
    case 'all-but-word':
      return number === 1 || number === -1 ? { what, number } : null;
    case 'before':
    case 'after':
      return typeof mark === 'string' && mark !== '' && (which === 'first' || which === 'last') ? { what, mark, which } : null;
    case 'digits':
    case 'letters':
      return { what };
    default:
      return null;
  }
}
