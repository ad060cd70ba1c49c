import type { PageReading, Phrase } from './page-reading.js';
import { fieldWords } from './field-words.js';
import type { Place } from './printed-label.js';
import { PageLabels } from './printed-label.js';

/** Readings as pages give them, put together by hand: words by their left edge and baseline, lines by their height. */
const phrase = (text: string, left: number, base: number, more: Partial<Phrase> = {}): Phrase => ({
  text,
  left,
  right: left + text.length * 4.5,
  base,
  size: 9,
  isBold: false,
  ...more,
});
const reading = (phrases: Phrase[], more: Partial<PageReading> = {}): PageReading => ({
  direction: 0,
  phrases: [...phrases].sort((a, b) => b.base - a.base),
  level: [],
  upright: [],
  strokes: [],
  shapes: [],
  pictures: [],
  places: [],
  bodySize: 9,
  isRightToLeft: false,
  ...more,
});
const box = (left: number, bottom: number, right: number, top: number): Place => ({ box: [left, bottom, right, top], isTick: false });
const tick = (left: number, bottom: number): Place => ({ box: [left, bottom, left + 10, bottom + 10], isTick: true });
const told = (page: PageReading, places: Place[]): (string | null)[] => {
  const labels = new PageLabels(page, places);
  return places.map((place) => labels.of(place)?.text ?? null);
};

test('from right to left the words stand right of their box, and a tick stands right of its words', () => {
  const page = reading([phrase('שם פרטי', 205, 104), phrase('רחוב', 205, 74), phrase('מים', 160, 44)], { isRightToLeft: true });
  expect(told(page, [box(100, 100, 200, 114), box(100, 70, 200, 84), tick(185, 42)])).toEqual(['שם פרטי', 'רחוב', 'מים']);
});

test('two languages on a line are one label', () => {
  expect(told(reading([phrase('Straße / Rue / Via:', 10, 104)]), [box(100, 100, 200, 114)])).toEqual(['Straße / Rue / Via']);
});

test('nearer words win, whichever side they stand on', () => {
  expect(told(reading([phrase('Far away', 10, 104), phrase('Near', 100, 117)]), [box(100, 100, 200, 114)])).toEqual(['Near']);
  expect(told(reading([phrase('Near', 78, 104), phrase('Far above', 100, 138)]), [box(100, 100, 200, 114)])).toEqual(['Near']);
});

test('words beyond another box belong to that one', () => {
  const page = reading([phrase('First', 10, 104), phrase('Second', 110, 104)]);
  expect(told(page, [box(40, 100, 100, 114), box(145, 100, 200, 114)])).toEqual(['First', 'Second']);
  expect(told(reading([phrase('Only', 10, 104)]), [box(40, 100, 100, 114), box(145, 100, 200, 114)])).toEqual(['Only', null]);
});

test('words above another box are not those of the box below it', () => {
  expect(told(reading([phrase('Upper', 40, 138)]), [box(40, 120, 100, 134), box(140, 100, 200, 114)])).toEqual(['Upper', null]);
});

test('a high box has its words beside its first line', () => {
  const page = reading([phrase('Remarks', 50, 150), phrase('Footer', 50, 102)]);
  expect(told(page, [box(100, 100, 250, 160)])).toEqual(['Remarks']);
});

test('a heading in large type is no label, a number alone is none', () => {
  expect(
    told(
      reading([
        phrase('Application', 100, 117, { size: 16 }),
        ...['a', 'b', 'c', 'd', 'e', 'f'].map((text, at) => phrase(`${text} word`, 10, 20 - at)),
      ]),
      [box(100, 100, 200, 114)],
    ),
  ).toEqual([null]);
  expect(told(reading([phrase('7', 90, 104), phrase('Wages', 50, 104)]), [box(100, 100, 200, 114)])).toEqual(['Wages']);
});

test('sections by larger, bolder or capital type that stands alone', () => {
  const page = reading([
    phrase('The plot', 10, 180, { size: 12 }),
    phrase('Area', 50, 154),
    phrase('THE TENANT', 10, 130),
    phrase('Name', 50, 104),
    phrase('Terms', 10, 80, { isBold: true }),
    phrase('Until', 50, 54),
  ]);
  const places = [box(100, 150, 200, 164), box(100, 100, 200, 114), box(100, 50, 200, 64)];
  const labels = new PageLabels(page, places);
  expect([labels.sectionOf(places[0]!), labels.sectionOf(places[1]!)]).toEqual(['The plot', 'The plot']);
  const flat = new PageLabels(reading(page.phrases.filter(({ size }) => size === 9)), places);
  expect(places.map((place) => flat.sectionOf(place))).toEqual([null, 'THE TENANT', 'Terms']);
});

test('what is only far away gives way to a name that speaks, and that to a tooltip', () => {
  const far = { text: 'Far', relation: 'left' as const, cost: 100 };
  expect(fieldWords('phone_home', null, far)).toEqual({ label: 'Phone home', labelFrom: 'name' });
  expect(fieldWords('Text1', null, far)).toEqual({ label: 'Far', labelFrom: 'print' });
  expect(fieldWords('phone_home', 'Telephone at home', far)).toEqual({ label: 'Telephone at home', labelFrom: 'tooltip' });
  expect(fieldWords('Text1', '', null)).toEqual({ label: null, labelFrom: null });
});
