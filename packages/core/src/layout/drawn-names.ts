import { t } from '../words/words.js';

/** A name that nothing has yet: as wished, or with the next number behind it. */
export function freeName(wish: string, taken: ReadonlySet<string>): string {
  if (!taken.has(wish)) return wish;
  const digits = /\d{1,9}$/.exec(wish)?.[0];
  const stem = digits === undefined ? wish : wish.slice(0, -digits.length).replace(/_$/, '');
  for (let next = digits === undefined ? 2 : Number(digits) + 1; ; next++) {
    const name = `${stem}_${next}`;
    if (!taken.has(name)) return name;
  }
}

/** Why something cannot be the name of a field, as a sentence; null: it can. `taken`: names of all others. */
export function nameFault(name: string, taken: ReadonlySet<string>): string | null {
  if (name.trim() === '') return t`A field needs a name.`;
  if (name.split('.').some((part) => part.trim() === '')) return t`Between two full stops there has to be a word.`;
  if (taken.has(name)) return t`Another field has this name.`;
  const clash = [...taken].find((other) => other.startsWith(`${name}.`) || name.startsWith(`${other}.`));
  return clash === undefined ? null : t`With a field named “${clash}”, this name is taken as the beginning of another.`;
}
