import { t } from '../words/words.js';

/** A run of characters of an answer. */
export interface ShapePart {
  /** `exactly`: the text itself. `either`: letters and digits. */
  what: 'letters' | 'digits' | 'either' | 'exactly';
  /** Of `exactly`. Otherwise empty. */
  text: string;
  /** How many there are at least and at most; of `exactly` both 1. */
  minimum: number;
  maximum: number;
}

/** What an answer looks like. */
export interface AnswerShape {
  /** An answer of that shape, which visitors are shown when theirs is of another. */
  example: string;
  parts: ShapePart[];
}

/** Characters of one run, and runs of a shape. */
export const shapeLimits = { run: 100, parts: 40 } as const;

const isLetter = (character: string): boolean => /^[\p{L}\p{M}]$/u.test(character);
const isDigit = (character: string): boolean => /^\p{Nd}$/u.test(character);
const kindOf = (character: string): ShapePart['what'] => (isLetter(character) ? 'letters' : isDigit(character) ? 'digits' : 'exactly');

/** The shape that an example shows: its letters and digits stand for any others, and what is neither stands for itself. */
export function shapeOf(example: string): AnswerShape {
  const text = example.trim();
  const parts: ShapePart[] = [];
  for (const character of text) {
    const what = kindOf(character);
    const last = parts.at(-1);
    if (last?.what !== what) parts.push({ what, text: what === 'exactly' ? character : '', minimum: 1, maximum: 1 });
    else if (what === 'exactly') last.text += character;
    else last.minimum = ++last.maximum;
  }
  return { example: text, parts };
}

const isOf = (what: ShapePart['what'], character: string): boolean =>
  what === 'either' ? isLetter(character) || isDigit(character) : kindOf(character) === what;

/** Places up to which a text can be read by one more run. @param ends whether it can be read up to each place so far, without that run */
function endsAfter({ what, text, minimum, maximum: limit }: ShapePart, characters: readonly string[], ends: readonly boolean[]): boolean[] {
  if (what === 'exactly') {
    const wanted = [...text.toLowerCase()];
    return ends.map(
      (_, end) =>
        (ends[end - wanted.length] ?? false) &&
        wanted.every((one, index) => characters[end - wanted.length + index]!.toLowerCase() === one),
    );
  }
  // How many of the places before each one are ends, so that a stretch of them is asked about in one step.
  const before = [0];
  for (const end of ends) before.push(before.at(-1)! + Number(end));
  let length = 0;
  return ends.map((_, end) => {
    length = end > 0 && isOf(what, characters[end - 1]!) ? length + 1 : 0;
    const [from, to] = [end - Math.min(limit, length), end - minimum];
    return to >= from && before[to + 1]! > before[from]!;
  });
}

/** Whether a text has a shape. However its runs lie, each place of the text is looked at once a run. */
export function hasShape({ parts }: AnswerShape, text: string): boolean {
  const characters = [...text.trim()];
  if (characters.length > shapeLimits.run * shapeLimits.parts) return false;
  let ends = [true, ...characters.map(() => false)];
  for (const part of parts) ends = endsAfter(part, characters, ends);
  return ends.at(-1)!;
}

/** Whether an example still is one after its runs were changed; otherwise visitors would be shown what is refused. */
export const isExample = (shape: AnswerShape): boolean => hasShape(shape, shape.example);

const noun = { letters: 'letter', digits: 'digit', either: t`letter or digit` } as const;
function partWords({ what, text, minimum, maximum }: ShapePart): string {
  if (what === 'exactly') return text.trim() === '' ? (text.length === 1 ? t`a space` : 'spaces') : `“${text}”`;
  const many = what === 'either' ? t`letters or digits` : what;
  return minimum === maximum ? `${maximum} ${maximum === 1 ? noun[what] : many}` : t`${minimum} to ${maximum} ${many}`;
}

/** A shape in words: “1 letter, “-”, 1 to 3 digits”. */
export const shapeSentence = ({ parts }: AnswerShape): string => parts.map(partWords).join(', ');
