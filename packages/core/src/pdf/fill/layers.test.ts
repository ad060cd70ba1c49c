import { formOf } from '../../../../../testing/raw-form.js';
import type { Picture } from '../../../../../testing/picture.js';
import { difference, pictureOf } from '../../../../../testing/picture.js';
import { readByOther } from '../../../../../testing/other-reader.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import type { Finish } from '../finish.js';
import type { CompiledTemplate } from '../plan/compile.js';
import { compileTemplate } from '../plan/compile.js';
import type { FieldValues } from '../value.js';
import { fillCopy } from './fill.js';
import { copyLayers } from './layers.js';

const art = '0.8 1 0.8 rg 0 0 300 60 re f';
const boxed = '/MK<</BC[0 0 1]/BG[1 1 0.8]>>';
const form = formOf(
  [
    `/FT/Tx/T(name)/Rect[10 100 210 120]${boxed}`,
    `/FT/Tx/T(city)/Rect[10 70 210 90]${boxed}`,
    `/FT/Tx/T(code)/Ff 16777216/MaxLen 5/Rect[10 20 110 40]`,
    `/FT/Tx/T(sum)/Rect[120 20 210 40]`,
    `/FT/Tx/T(over)/Rect[180 30 240 45]`,
  ],
  { page: '/Contents 10 0 R/Rotate 90', more: [`<</Length ${art.length}>>\nstream\n${art}\nendstream`] },
);
const values: FieldValues = { name: 'Anneke Łąkowska', city: 'Larkmere', code: '12345', sum: '7', over: 'x' };
const compiled = async (finish: Finish = 'flattened'): Promise<CompiledTemplate> =>
  compileTemplate(form, {
    fonts: await testFonts(),
    faces: testFaces(),
    characters: Object.values(values) as string[],
    given: Object.keys(values),
    finish,
  });

/** One picture over another one, as ink on paper: what is white shows what lies beneath. */
const over = (layer: Picture, rest: Picture): Picture => ({
  ...rest,
  data: rest.data.map((under, at) => Math.round((under * layer.data[at]!) / 255)),
});

test.each([['name'], ['city'], ['code'], ['name', 'code']])('the layer of %s over the rest looks as the copy does', async (...fields) => {
  const template = await compiled();
  const layers = copyLayers(template, values, new Set(fields))!;
  const [rest, layer] = [await pictureOf(layers.rest().bytes), await pictureOf(layers.layer.bytes)];
  const whole = await pictureOf(fillCopy(template, values).bytes);
  expect(difference(over(layer, rest), whole)).toBe(0);
  // Neither does by itself.
  expect(difference(rest, whole)).toBeGreaterThan(0);
  expect(difference(layer, whole)).toBeGreaterThan(0);
});

test('another reader finds in the layer what those fields show and nothing else, and in the rest all the others', async () => {
  const layers = copyLayers(await compiled(), values, new Set(['city']))!;
  const textOf = async (bytes: Uint8Array): Promise<string> => (await readByOther(bytes)).map(({ text }) => text).join(' ');
  expect(await textOf(layers.layer.bytes)).toBe('Larkmere');
  expect(await textOf(layers.rest().bytes)).toContain('Anneke');
  expect(await textOf(layers.rest().bytes)).not.toContain('Larkmere');
});

test('the rest stays the same while those fields change, and is another one when anything else does', async () => {
  const template = await compiled();
  const key = (given: FieldValues, ...fields: string[]): string => copyLayers(template, given, new Set(fields))!.key;
  expect(key({ ...values, name: 'Bo' }, 'name')).toBe(key(values, 'name'));
  expect(key({ ...values, city: 'Bo' }, 'name')).not.toBe(key(values, 'name'));
  expect(key(values, 'city')).not.toBe(key(values, 'name'));
});

test('a copy that keeps its form, a field that is not drawn and boxes that lie over each other do not come apart', async () => {
  expect(copyLayers(await compiled('open'), values, new Set(['name']))).toBeNull();
  const template = await compiled();
  expect(copyLayers(template, values, new Set(['nobody']))).toBeNull();
  expect(copyLayers(template, values, new Set(['sum']))).toBeNull();
  // Together they do: nothing else lies over them.
  expect(copyLayers(template, values, new Set(['sum', 'over']))).not.toBeNull();
});

test('what does not fit in one of those fields is told with the layer', async () => {
  const long = {
    ...values,
    city: 'A name of a place that is far too long for any box of this width, whatever the size of its type may be',
  };
  expect(copyLayers(await compiled(), long, new Set(['city']))!.layer.notes).toMatchObject([{ field: 'city', fit: 'overflows' }]);
});
