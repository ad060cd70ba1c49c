import { gallery, enrolment } from '../testing/told-forms/gallery.js';
import { formOf, stream } from '../../../../testing/raw-form.js';
import type { EditionChanges, ToldForm } from '../testing/told-forms/told-form.js';
import { compareEditions } from './compare-editions.js';
import type { Comparison, FieldChange } from './comparison.js';
import { DOUBTFUL } from './comparison.js';
import { readEdition } from './edition.js';
import { printChanges } from './print-changes.js';

async function compare(form: ToldForm, changes: EditionChanges): Promise<Comparison> {
  return compareEditions(await readEdition(await form.fillable()), await readEdition(await form.fillable(changes)));
}
/** Pairs that are none, or that are missing, of an edition whose fields keep their order. */
function wrongPairs(form: ToldForm, { pairs }: Comparison, changes: EditionChanges): string[] {
  const { rename = (name) => name, change = (blank) => blank } = changes;
  const told = new Map(
    form.blanks.flatMap((blank, index) => (change(blank, index) ? [[blank.name, rename(blank.name, index)] as const] : [])),
  );
  const found = new Map(pairs.map((pair) => [pair.old, pair.new]));
  return form.blanks.flatMap(({ name, label }) =>
    told.get(name) === found.get(name) ? [] : [`${form.name}: ${name} (${label}) is ${found.get(name)}, not ${told.get(name)}`],
  );
}
const changesOf = ({ pairs }: Comparison): Set<FieldChange> => new Set(pairs.flatMap((pair) => pair.changes));
/** A page with a box at the top and one at a height, each with its words on it, and lines of print in between. */
function formWith(height: number): Uint8Array {
  const text = (words: string, x: number, y: number): string => `BT /F1 8 Tf ${x} ${y} Td (${words}) Tj ET\n`;
  const content =
    text('Name', 20, 182) +
    text('First line of print', 20, 150) +
    text('Second line of print', 20, 140) +
    text('Third line', 20, 130) +
    text('Remarks', 20, height);
  return formOf(['/FT/Tx/T(name)/Rect[20 160 200 178]', `/FT/Tx/T(remarks)/Rect[20 ${height - 60} 200 ${height - 4}]`], {
    page: '/Contents 7 0 R/Resources<</Font<</F1 4 0 R>>>>',
    more: [stream('', content)],
  });
}
const COVER = [
  'Instructions',
  'Please read these notes before you fill in the form.',
  'Use black ink and capital letters.',
  'Keep a copy for yourself.',
];

test.each<[string, EditionChanges, FieldChange[]]>([
  ['the same form again', {}, []],
  ['all fields renamed', { rename: (_name, index) => `Fld_${1000 + index}` }, ['renamed']],
  ['everything a little further down and to the right', { shift: [9, -24] }, []],
  [
    'a page of notes before it, renamed and shifted',
    { firstPage: COVER, shift: [4, -12], rename: (_name, index) => `p2.f${index}` },
    ['page', 'renamed'],
  ],
  // The names of a form in another order: each is kept for another meaning.
  ['names handed on from field to field', { rename: () => '' }, ['renamed']],
])('%s: every field is found again', async (what, changes, expected) => {
  const wrong: string[] = [];
  for (const form of gallery()) {
    const names = form.blanks.map(({ name }) => name);
    const own = what.startsWith('names handed')
      ? { rename: (_name: string, index: number) => names[(index + 1) % names.length]! }
      : changes;
    const found = await compare(form, own);
    wrong.push(...wrongPairs(form, found, own));
    expect([...changesOf(found)].sort()).toEqual(expected);
  }
  expect(wrong).toEqual([]);
});

test('a field that is gone and one that is new are told, and nothing else', async () => {
  const form = enrolment();
  const gone = form.blanks.findIndex(({ label }) => label === 'Place of birth');
  const found = await compare(form, { change: (blank, index) => (index === gone ? null : blank), rename: (_name, index) => `x${index}` });
  expect(found.gone).toEqual([form.blanks[gone]!.name]);
  expect(found.added).toEqual([]);
  const back = compareEditions(
    await readEdition(await form.fillable({ change: (blank, index) => (index === gone ? null : blank) })),
    await readEdition(await form.fillable()),
  );
  expect(back).toMatchObject({ gone: [], added: [form.blanks[gone]!.name] });
});

test('a box that keeps name and place under other words is gone and new, not the same', async () => {
  const form = enrolment();
  const { name } = form.blanks.find(({ label }) => label === 'Place of birth')!;
  const found = await compare(form, { reword: { 'Place of birth': 'Mother tongue' } });
  expect(found).toMatchObject({ gone: [name], added: [name] });
});

test('words that say the same otherwise keep their field', async () => {
  const form = enrolment();
  const { name } = form.blanks.find(({ label }) => label === 'Surname')!;
  const found = await compare(form, { reword: { Surname: 'Family name', 'First name': 'Given name' }, rename: (own) => `new.${own}` });
  expect(found.pairs.find(({ old }) => old === name)).toMatchObject({ new: `new.${name}`, changes: ['renamed'] });
  expect([found.gone, found.added]).toEqual([[], []]);
});

test('kind, limit and place of a field are told where they changed', async () => {
  const form = enrolment();
  const at = (label: string): number => form.blanks.findIndex((blank) => blank.label === label);
  const [limited, moved] = [at('Year group'), at('Remarks')];
  const found = await compare(form, {
    change: (blank, index) =>
      index === limited ? { ...blank, limit: 3 } : index === moved ? { ...blank, rect: [400, 100, 560, 150] } : blank,
  });
  const of = (index: number): FieldChange[] => found.pairs.find(({ old }) => old === form.blanks[index]!.name)!.changes;
  expect([of(limited), of(moved)]).toEqual([['limit'], ['moved']]);
});

test('a box that went down the page with the words at it has not moved, though all above it stayed', async () => {
  const before = formWith(120);
  const after = formWith(90);
  const found = compareEditions(await readEdition(before), await readEdition(after));
  expect(found.pairs.map(({ old, changes }) => [old, changes])).toEqual([
    ['name', []],
    ['remarks', []],
  ]);
});

test('another form altogether has next to nothing in common', async () => {
  const [one, , other] = gallery();
  const found = compareEditions(await readEdition(await one!.fillable()), await readEdition(await other!.fillable()));
  expect(found.likeness).toBeLessThan(0.25);
});

test('what cannot be told from its neighbours is doubtful', async () => {
  const form = enrolment();
  const sure = (await compare(form, { rename: (_name, index) => `x${index}` })).pairs;
  const name = form.blanks.find(({ label }) => label === 'Middle name')!.name;
  expect(sure.find(({ old }) => old === name)!.sure).toBeGreaterThan(DOUBTFUL);
});

test('what the form says now and did not say before', async () => {
  const form = enrolment();
  const [before, after] = [
    await readEdition(await form.fillable()),
    await readEdition(await form.fillable({ reword: { 'Year group': 'Class' }, shift: [0, -30] })),
  ];
  expect(printChanges(before.pages, after.pages)).toEqual({ gone: [{ page: 1, text: 'Year group' }], added: [{ page: 1, text: 'Class' }] });
});
