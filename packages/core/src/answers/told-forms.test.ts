import { pieceWords } from './answer.js';
import type { Blank } from '../blanks/blank.js';
import { readBlanks } from '../blanks/read-blanks.js';
import { inspectTemplate } from '../pdf/read/inspect.js';
import { gallery } from '../testing/told-forms/gallery.js';
import type { ToldBlank, ToldForm } from '../testing/told-forms/told-form.js';

const bare = (words: string | null): string =>
  (words ?? '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
const share = (part: number, all: number): number => Math.round((part / all) * 1000) / 1000;

/** How much two boxes have in common of both together. */
function agreement(one: readonly number[], other: readonly number[]): number {
  const [width, height] = [0, 1].map((at) => Math.max(0, Math.min(one[at + 2]!, other[at + 2]!) - Math.max(one[at]!, other[at]!)));
  const area = (box: readonly number[]): number => (box[2]! - box[0]!) * (box[3]! - box[1]!);
  return (width! * height!) / (area(one) + area(other) - width! * height!);
}

/** Fields whose label is another one than a person says. Those that only go on with an answer are called as it is. */
async function wrongLabels(form: ToldForm): Promise<string[]> {
  const { fields } = await inspectTemplate(await form.fillable());
  return form.blanks.flatMap(({ name, label, answer }) => {
    const found = fields.find((field) => field.name === name)!.label;
    const whole = label ?? form.blanks.find((one) => answer !== undefined && one.answer === answer)?.label ?? null;
    const isRight = whole === null ? found === null : bare(found).includes(bare(whole));
    return isRight ? [] : [`${form.name}: ${whole} is called ${found}`];
  });
}

async function wrongAnswers(form: ToldForm): Promise<string[]> {
  const { answers = [] } = await inspectTemplate(await form.fillable());
  const told = new Map<string, string[]>();
  for (const { name, answer = name, piece } of form.blanks)
    told.set(answer, [...(told.get(answer) ?? []), `${name} ${piece ?? ''}`.trim()]);
  const key = (parts: readonly string[]): string => [...parts].sort().join('; ');
  const found = new Set(
    answers.map(({ parts }) => key(parts.map(({ field, piece }) => `${field} ${piece ? pieceWords(piece) : ''}`.trim()))),
  );
  // A first line by itself has no piece.
  const alone = (parts: readonly string[]): string[] =>
    parts.length === 1 ? parts.map((part) => part.replace(/ line 1$/, '')) : [...parts];
  return [...told].flatMap(([answer, parts]) => (found.has(key(alone(parts))) ? [] : [`${form.name}: ${answer} = ${key(parts)}`]));
}

interface BlankFigures {
  missed: string[];
  strange: string[];
  wrongKinds: string[];
  wrongLabels: string[];
  told: number;
  found: number;
}
async function blankFigures(form: ToldForm): Promise<BlankFigures> {
  const { blanks } = await readBlanks(await form.flat());
  // Boxes without a frame of their own between printed strokes cannot be seen on paper.
  const told = form.blanks
    .map((one, at): ToldBlank => {
      const next = form.blanks[at + 1];
      return next?.isSameText ? { ...one, kind: 'multiline', rect: [one.rect[0], next.rect[1], one.rect[2], one.rect[3]] } : one;
    })
    .filter(({ answer, isSameText }) => answer !== 'registration' && !isSameText);
  const taken = new Map<ToldBlank, Blank>();
  for (const one of told) {
    const best = blanks
      .filter((blank) => blank.page === one.page && ![...taken.values()].includes(blank))
      .map((blank) => ({ blank, agreement: agreement(blank.rect, one.rect) }))
      .sort((a, b) => b.agreement - a.agreement)[0];
    if (best && best.agreement > 0.4) taken.set(one, best.blank);
  }
  const say = (one: ToldBlank, blank?: Blank): string =>
    `${form.name} p${one.page} ${one.rect.join(',')} ${one.kind} ${one.label}${blank ? ` / ${blank.kind} ${blank.cells ?? ''} ${blank.label} ${blank.group ?? ''}` : ''}`;
  const pairs = [...taken];
  return {
    told: told.length,
    found: blanks.length,
    missed: told.filter((one) => !taken.has(one)).map((one) => say(one)),
    strange: blanks
      .filter((blank) => ![...taken.values()].includes(blank))
      .filter(
        ({ rect, page }) => !form.blanks.some((one) => one.answer === 'registration' && page === one.page && agreement(rect, one.rect) > 0),
      )
      .map(({ page, rect, kind, label }) => `${form.name} p${page} ${rect.join(',')} ${kind} ${label}`),
    wrongKinds: pairs
      .filter(([one, blank]) => one.kind !== blank.kind || (one.cells ?? null) !== blank.cells)
      .map(([one, blank]) => say(one, blank)),
    wrongLabels: pairs
      .filter(
        ([one, blank]) =>
          (one.label !== null && !bare(blank.label).includes(bare(one.label))) || (one.group && bare(blank.group) !== bare(one.group)),
      )
      .map(([one, blank]) => say(one, blank)),
  };
}

test('labels of forms as offices print them are what a person would say', async () => {
  const wrong = (await Promise.all(gallery().map(wrongLabels))).flat();
  expect(wrong).toEqual([]);
});

test('boxes that a person would take for one answer are one, with their pieces', async () => {
  const wrong = (await Promise.all(gallery().map(wrongAnswers))).flat();
  expect(wrong).toEqual([]);
});

test('blanks of the same forms without fields: found, of the right kind, and called by their words; nothing else is taken for one', async () => {
  const all = await Promise.all(gallery().map(blankFigures));
  const told = all.reduce((sum, one) => sum + one.told, 0);
  const pick = (what: 'missed' | 'strange' | 'wrongKinds' | 'wrongLabels'): string[] => all.flatMap((one) => one[what]);
  expect({ missed: pick('missed'), strange: pick('strange'), wrongKinds: pick('wrongKinds'), wrongLabels: pick('wrongLabels') }).toEqual({
    missed: [],
    strange: [],
    wrongKinds: [],
    wrongLabels: [],
  });
  expect(share(told - pick('missed').length, told)).toBeGreaterThan(0.85);
});
