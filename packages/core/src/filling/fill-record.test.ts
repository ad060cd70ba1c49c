import { readByOther } from '../../../../testing/other-reader.js';
import { rowReader } from '../map/row.js';
import { CombinedFile } from '../pdf/fill/combine.js';
import { inspectTemplate } from '../pdf/read/inspect.js';
import { someContext } from '../testing/context.js';
import { testFaces, testFonts } from '../testing/platform.js';
import { formOf } from '../../../../testing/raw-form.js';
import { RecordFiller } from './fill-record.js';

const pdf = formOf([
  '/FT/Tx/T(plot)/Rect[10 60 210 80]/DA(/Helv 10 Tf 0 g)',
  '/FT/Tx/T(name)/V(kept)/Rect[10 20 60 40]/DA(/Helv 10 Tf 0 g)',
]);
const row = rowReader([{ name: 'Plot' }, { name: 'Name' }])({
  row: 2,
  cells: ['B-17', 'Wilhelmina Featherstonehaugh'].map((text) => ({ text, value: text })),
});
const filler = async (map: RecordFiller['template']['map']): Promise<RecordFiller> => {
  const { fields } = await inspectTemplate(pdf, 'form.pdf');
  return RecordFiller.of(pdf, { fields, map }, { fonts: await testFonts(), faces: testFaces(), characters: [] });
};
const textsOf = async (bytes: Uint8Array): Promise<string[][]> =>
  (await readByOther(bytes)).map(({ pieces }) => pieces.map(({ text }) => text).filter((text) => text.trim() !== ''));

test('whoever fills a record gets the same: the copy, what is said of it, and its pages in a combined file', async () => {
  const one = await filler({ plot: { kind: 'column', column: 'Plot' }, name: { kind: 'column', column: 'Name' } });
  const { copy, values, problems } = one.fill(row, someContext);
  expect(values).toEqual({ plot: 'B-17', name: 'Wilhelmina Featherstonehaugh' });
  expect(problems).toEqual([]);
  expect(one.values(row, someContext)).toEqual({ values, problems });
  expect(copy.notes).toMatchObject([{ field: 'name', fit: expect.stringMatching(/tight|overflows/) }]);
  expect(one.measure(values)).toEqual(copy.notes);
  expect(one.fillValues(values, someContext).bytes).toEqual(copy.bytes);

  const parts: Uint8Array[] = [];
  const combined = new CombinedFile((bytes) => void parts.push(bytes.slice()), {});
  expect(one.addTo(combined, row, 'B-17', someContext)).toEqual(copy.notes);
  combined.end();
  expect(await textsOf(Uint8Array.from(Buffer.concat(parts)))).toEqual(await textsOf(copy.bytes));
});

test('a rule that says how its box takes the value holds for the copy, for what is said of it, and in a combined file', async () => {
  const cut = await filler({ name: { kind: 'fitted', of: { kind: 'column', column: 'Name' }, tooLong: 'cut', smallest: 10 } });
  const { copy } = cut.fill(row, someContext);
  const [seen] = (await textsOf(copy.bytes))[0]!;
  expect('Wilhelmina Featherstonehaugh'.startsWith(seen!) && seen!.length < 20).toBe(true);
  expect(cut.measure({ name: 'Wilhelmina Featherstonehaugh' })).toEqual(copy.notes);
  const parts: Uint8Array[] = [];
  const combined = new CombinedFile((bytes) => void parts.push(bytes.slice()), {});
  cut.addTo(combined, row, 'B-17', someContext);
  combined.end();
  expect(await textsOf(Uint8Array.from(Buffer.concat(parts)))).toEqual([[seen]]);
});

test('other rules of the same fields need nothing to be made ready again, and give what they would have given', async () => {
  const one = await filler({ plot: { kind: 'column', column: 'Plot' } });
  const other = one.withMap({ plot: { kind: 'text', text: 'A-1' } });
  expect(other.compiled).toBe(one.compiled);
  const fresh = await filler({ plot: { kind: 'text', text: 'A-1' } });
  expect(other.fill(row, someContext).copy.bytes).toEqual(fresh.fill(row, someContext).copy.bytes);
  // What no rule fills keeps what the form says.
  expect(await textsOf(other.fill(row, someContext).copy.bytes)).toEqual([expect.arrayContaining(['A-1', 'kept'])]);
});
