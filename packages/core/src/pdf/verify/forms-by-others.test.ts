import { difference, pictureOf } from '../../../../../testing/picture.js';
import { formsByOthers } from '../../../../../testing/forms-by-others.js';
import { readByOther } from '../../../../../testing/other-reader.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import type { CompileOptions } from '../plan/compile.js';
import type { Finish } from '../finish.js';
import { compileTemplate } from '../plan/compile.js';
import type { Field } from '../field.js';
import { isFillable, isReadOnly } from '../field.js';
import { fillCopy } from '../fill/fill.js';
import { inspectTemplate } from '../read/inspect.js';
import { readValues } from '../read/read.js';
import type { FieldValue, FieldValues } from '../value.js';

let options: CompileOptions;
beforeAll(async () => {
  options = { fonts: await testFonts(), faces: testFaces() };
});

/** A value of its own for every field that takes one. */
function valueFor(field: Field, index: number): FieldValue {
  if (field.kind === 'text') return `Vx${index}`;
  if (field.kind === 'checkbox' || field.kind === 'radio') return field.onValues.at(-1)!;
  const options = field.options.map(({ value }) => value);
  return field.kind === 'list' ? options.slice(1) : (options[1] ?? '');
}
const valuesFor = (fields: readonly Field[]): FieldValues =>
  Object.fromEntries(fields.filter(isFillable).map((field, index) => [field.name, valueFor(field, index)]));

describe.each(Object.keys(formsByOthers))('a form written by %s', (producer) => {
  let pdf: Uint8Array;
  let fields: Field[];
  let values: FieldValues;
  const make = async (finish: Finish): Promise<Uint8Array> => fillCopy(await compileTemplate(pdf, { ...options, finish }), values).bytes;
  beforeAll(async () => {
    pdf = await formsByOthers[producer]!();
    ({ fields } = await inspectTemplate(pdf));
    values = valuesFor(fields);
  });

  test('shows every field with a name and a kind', () => {
    expect(fields.length).toBeGreaterThanOrEqual(5);
    expect(fields.map(({ name }) => name)).toEqual(expect.arrayContaining(['debit', 'voice']));
  });

  test('flattened: another reader finds every text inside the box of its field, and no field is left', async () => {
    const pages = await readByOther(await make('flattened'));
    for (const field of fields.filter(({ kind }) => kind === 'text')) {
      const { page, rect } = field.widgets[0]!;
      const inside = pages[page - 1]!.pieces.filter(({ x, y }) => x >= rect[0] && x <= rect[2] && y >= rect[1] - 1 && y <= rect[3]);
      expect(
        inside
          .map(({ text }) => text)
          .join('')
          .replace(/\s/g, ''),
      ).toBe(values[field.name]);
    }
    expect(pages.flatMap((page) => page.fields)).toEqual([]);
  });

  test.each(['locked', 'open'] as const)('%s: every value comes back, and the fields are there', async (finish) => {
    const bytes = await make(finish);
    const back = await readValues(bytes);
    for (const [name, value] of Object.entries(values)) expect([name, back[name] || '']).toEqual([name, value]);
    const after = (await inspectTemplate(bytes)).fields;
    expect(after.map(({ name }) => name).sort()).toEqual(fields.map(({ name }) => name).sort());
    expect(after.every(isReadOnly)).toBe(finish === 'locked');
  });

  test('looks the same to PDFium whether its fields are drawn in or kept', async () => {
    // Viewers tint the fields of open forms, so the locked copy is compared.
    const [flat, kept] = await Promise.all((await Promise.all([make('flattened'), make('locked')])).map((bytes) => pictureOf(bytes)));
    expect(difference(flat!, kept!)).toBeLessThan(0.002);
  });
});
