import { testFaces, testFonts } from '../../testing/platform.js';
import { formOf } from '../../../../../testing/raw-form.js';
import type { CompileOptions } from '../plan/compile.js';
import { compileTemplate } from '../plan/compile.js';
import { fillCopy } from '../fill/fill.js';
import { CopyReader } from './read-back.js';
import type { FieldValues } from '../value.js';

let options: CompileOptions;
beforeAll(async () => {
  options = { fonts: await testFonts(), faces: testFaces() };
});
const text = (name: string, rect: string, more = ''): string => `/FT/Tx/T(${name})/Rect[${rect}]${more}`;
const form = formOf([
  text('name', '10 150 190 170'),
  text('note', '10 60 190 140', '/Ff 4096'),
  text('code', '10 30 190 50', '/Ff 16777216/MaxLen 12'),
  '/FT/Btn/T(tick)/Rect[10 5 20 15]/AP<</N<</Yes null>>>>/AS/Off',
]);
const full: FieldValues = {
  name: 'Zoë O’Derry (née “Brand”)',
  note: 'Two lines\nof it, with a word that is so long that it has to be broken: Rindfleischetikettierung. Πόλη, Łódź, שלום, مرحبا, नमस्ते',
  code: 'AB12 (x) \\9',
  tick: true,
};

describe.each(['flattened', 'locked', 'open'] as const)('%s copies are read back', (finish) => {
  const made = async (values: FieldValues) => {
    const compiled = await compileTemplate(form, { ...options, characters: JSON.stringify(full), finish });
    const copy = fillCopy(compiled, values);
    return { compiled, copy, reader: await CopyReader.of(compiled, copy.bytes) };
  };
  test('and hold what was meant, in every script', async () => {
    const { copy, reader } = await made(full);
    expect(await reader.compare(copy.bytes, full, copy.notes)).toBeNull();
  });
  test('another record’s value is noticed, and its field is named', async () => {
    const { copy, reader } = await made(full);
    const difference = await reader.compare(copy.bytes, { ...full, name: 'Quentin Yax' }, copy.notes);
    expect(difference).toMatchObject({ field: 'name', what: expect.stringContaining('Quentin Yax') });
  });
  test('a file that is cut off or whose offsets are wrong is noticed', async () => {
    const { copy, reader, compiled } = await made(full);
    expect(await reader.compare(copy.bytes.subarray(0, copy.bytes.length - 30), full)).toMatchObject({ field: '' });
    const moved = new Uint8Array([...copy.bytes.subarray(0, compiled.base.length), 10, ...copy.bytes.subarray(compiled.base.length)]);
    expect(await reader.compare(moved, full)).toMatchObject({ field: '' });
  });
});

test.each(['flattened', 'locked', 'open'] as const)('a tick that is missing or too much in a %s copy is noticed', async (finish) => {
  const compiled = await compileTemplate(form, { ...options, finish, given: ['tick'] });
  const copy = fillCopy(compiled, { tick: true });
  const reader = await CopyReader.of(compiled, copy.bytes);
  expect(await reader.compare(copy.bytes, { tick: true })).toBeNull();
  expect(await reader.compare(copy.bytes, { tick: false })).toMatchObject({ field: 'tick' });
  const empty = fillCopy(compiled, { tick: false });
  expect(await reader.compare(empty.bytes, { tick: false })).toBeNull();
  expect(await reader.compare(empty.bytes, { tick: true })).toMatchObject({ field: 'tick' });
});

test.each(['locked', 'open'] as const)(
  'other choices than were meant in a %s copy are noticed, in menus and in lists of several',
  async (finish) => {
    const choices = formOf([
      '/FT/Ch/Ff 131072/T(menu)/Rect[10 150 190 170]/Opt[[(a)(Alder)][(b)(Birch)]]',
      '/FT/Ch/Ff 2097152/T(list)/Rect[10 60 190 140]/Opt[(one)(two)<feff0141006f0064017a>]',
    ]);
    const compiled = await compileTemplate(choices, { ...options, characters: ['Łodź'], finish });
    const meant = { menu: 'Birch', list: ['one', 'Łodź'] };
    const copy = fillCopy(compiled, meant);
    const reader = await CopyReader.of(compiled, copy.bytes);
    expect(await reader.compare(copy.bytes, meant, copy.notes)).toBeNull();
    expect(await reader.compare(copy.bytes, { ...meant, menu: 'a' })).toMatchObject({
      field: 'menu',
      what: expect.stringContaining('“b”'),
    });
    expect(await reader.compare(copy.bytes, { ...meant, list: ['one'] })).toMatchObject({ field: 'list' });
    expect(await reader.compare(copy.bytes, { ...meant, menu: '' })).toMatchObject({ field: 'menu' });
  },
);

test('a list box is compared: its entries and which of them are marked; a lone bracket in a line from right to left is no difference', async () => {
  const pdf = formOf([
    '/FT/Ch/Ff 2097152/T(pets)/Rect[10 10 110 82]/DA(/Helv 12 Tf 0 g)/Opt[(Cat)(Dog)(Owl)]',
    '/FT/Tx/T(note)/Rect[10 100 290 120]/DA(/Helv 12 Tf 0 g)',
  ]);
  const values = { pets: ['Dog', 'Owl'], note: 'שלום :)' };
  const compiled = await compileTemplate(pdf, {
    fonts: await testFonts(),
    faces: testFaces(),
    characters: ['שלום', ':)'],
    given: ['pets', 'note'],
  });
  const { bytes } = fillCopy(compiled, values);
  const reader = await CopyReader.of(compiled, bytes.slice());
  expect(await reader.compare(bytes, values)).toBeNull();
  expect(await reader.compare(bytes, { ...values, pets: ['Dog'] })).toEqual({
    field: 'pets',
    what: '2 entries of lists are marked in place of 1',
  });
  const spoiled = Uint8Array.from(Buffer.from(Buffer.from(bytes).toString('latin1').replace('(Owl) Tj', '(Own) Tj'), 'latin1'));
  expect(await reader.compare(spoiled, values)).toMatchObject({ field: 'pets' });
});
