import { distance } from 'fastest-levenshtein';

const plain = (text: string): string => text.replace(/\s+/g, ' ').trim().toLowerCase();

/** Values that are likest to a text, the nearest first, at most three: typing errors apart, or of one the beginning of the other. `sure`: the one that must be meant. */
export function nearest(text: string, among: readonly string[]): { near: string[]; sure: string | null } {
  const wanted = plain(text);
  if (wanted === '') return { near: [], sure: null };
  const rated = among
    .map((value) => ({ value, name: plain(value) }))
    .map(({ value, name }) => ({ value, name, errors: distance(name, wanted) }))
    .filter(
      ({ name, errors }) =>
        errors <= Math.max(1, Math.floor(Math.min(name.length, wanted.length) / 3)) ||
        (wanted.length > 2 && name.length > 2 && (name.startsWith(wanted) || wanted.startsWith(name))),
    )
    .sort((a, b) => a.errors - b.errors);
  const [first, second] = rated;
  const isSure = first !== undefined && wanted.length > 3 && first.errors <= 1 && (second === undefined || second.errors > first.errors);
  return { near: rated.slice(0, 3).map(({ value }) => value), sure: isSure ? first.value : null };
}
