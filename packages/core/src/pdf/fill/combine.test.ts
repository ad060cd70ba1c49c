import { formOf } from '../../../../../testing/raw-form.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { readByOther } from '../../../../../testing/other-reader.js';
import { difference, inkIn, pictureOf } from '../../../../../testing/picture.js';
import { CombinedFile } from './combine.js';
import type { CompiledTemplate } from '../plan/compile.js';
import { compileTemplate } from '../plan/compile.js';
import { fillCopy } from './fill.js';

const art = `0.5 g ${Array.from({ length: 4000 }, (_, index) => `${(index * 7919) % 300} ${(index * 104729) % 200} 1 1 re`).join(' ')} f`;
let form: CompiledTemplate;
let other: CompiledTemplate;
beforeAll(async () => {
  const options = { fonts: await testFonts(), faces: testFaces(), characters: ['Łąkowski Ρήγα'] };
  const withArt = formOf(['/FT/Tx/T(name)/Rect[10 100 210 120]'], {
    page: '/Contents 6 0 R',
    more: [`<</Length ${art.length}>>\nstream\n${art}\nendstream`],
  });
  form = await compileTemplate(withArt, options);
  other = await compileTemplate(formOf(['/FT/Tx/T(title)/Rect[10 100 210 120]']), options);
});

function combine(work: (file: CombinedFile) => void, options = {}): Uint8Array {
  const blocks: Uint8Array[] = [];
  const file = new CombinedFile((bytes) => void blocks.push(bytes.slice()), options);
  work(file);
  file.end();
  return new Uint8Array(Buffer.concat(blocks));
}

test('many copies of several templates stand in one file in order, each with its bookmark, and the art is there once', async () => {
  const names = ['Anneke', 'Łąkowski', 'Ρήγα'];
  const bytes = combine((file) => {
    names.forEach((name) => {
      file.add(form, { values: { name }, bookmark: `Copy for ${name}` });
      file.add(other, { values: { title: `To ${name}` }, bookmark: name });
    });
  });
  const pages = await readByOther(bytes);
  expect(pages.map(({ text }) => text.normalize('NFC'))).toEqual(names.flatMap((name) => [name, `To ${name}`]));
  const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const task = pdfjs.getDocument({ data: bytes.slice(), verbosity: 0 });
  const pdf = await task.promise;
  expect((await pdf.getOutline()).map(({ title }) => title)).toEqual(names.flatMap((name) => [`Copy for ${name}`, name]));
  await task.destroy();
  const single = fillCopy(form, { name: 'Anneke' }).bytes.length;
  const ten = combine((file) =>
    Array.from({ length: 10 }, (_, index) => file.add(form, { values: { name: `No ${index}` }, bookmark: '' })),
  );
  expect(ten.length).toBeLessThan(single * 2);
});

test('duplex: a copy of one page gets a blank back, so that the next one begins on a new sheet', async () => {
  const pages = await readByOther(
    combine((file) => ['a', 'b'].forEach((name) => file.add(form, { values: { name }, bookmark: name })), { duplex: true }),
  );
  expect(pages.map(({ text }) => text)).toEqual(['a', '', 'b', '']);
});

test('a thousand copies keep every name on its own page', async () => {
  const bytes = combine((file) => {
    for (let index = 0; index < 1000; index++) file.add(other, { values: { title: `No ${index}.` }, bookmark: String(index) });
  });
  const pages = await readByOther(bytes);
  expect(pages).toHaveLength(1000);
  pages.forEach(({ text }, index) => expect(text).toBe(`No ${index}.`));
});

async function combineMade(work: (file: CombinedFile) => Promise<unknown>, options = {}): Promise<Uint8Array> {
  const blocks: Uint8Array[] = [];
  const file = new CombinedFile((bytes) => void blocks.push(bytes.slice()), options);
  await work(file);
  file.end();
  return new Uint8Array(Buffer.concat(blocks));
}

test('copies are put together from their bytes as they are from their values, with what they share there once', async () => {
  const names = ['Anneke', 'Łąkowski', 'Ρήγα'];
  const made = await combineMade(async (file) => {
    for (const name of names) await file.addMade(form, fillCopy(form, { name }).bytes, name);
  });
  const filled = combine((file) => names.forEach((name) => file.add(form, { values: { name }, bookmark: name })));
  expect(Buffer.from(made).equals(Buffer.from(filled))).toBe(true);
});

describe.each(['flattened', 'locked', 'open'] as const)('copies with a %s finish whose template is not at hand', (finish) => {
  test('look as they do alone, and what they share stands there once', async () => {
    const template = await compileTemplate(
      formOf(['/FT/Tx/T(name)/Rect[10 100 210 120]', '/FT/Btn/T(yes)/Rect[10 60 22 72]/AP<</N<</On 6 0 R/Off 6 0 R>>>>'], {
        page: '/Contents 6 0 R',
        more: [`<</Length ${art.length}>>\nstream\n${art}\nendstream`],
      }),
      { fonts: await testFonts(), faces: testFaces(), characters: ['Łąkowski Ρήγα'], finish },
    );
    const copies = ['Anneke', 'Łąkowski', 'Ρήγα'].map((name) => fillCopy(template, { name, yes: true }).bytes);
    const bytes = await combineMade(async (file) => {
      for (const copy of copies) await file.addMade(null, copy, 'one');
    });
    for (const [index, copy] of copies.entries()) {
      const [together, alone] = [await pictureOf(bytes, index), await pictureOf(copy)];
      expect(inkIn(together, [10, 100, 210, 120])).toBeGreaterThan(50);
      expect(difference(together, alone)).toBeLessThan(0.0005);
    }
    const ten = await combineMade(async (file) => {
      for (let index = 0; index < 10; index++) await file.addMade(null, fillCopy(template, { name: `No ${index}` }).bytes, '');
    });
    expect(ten.length).toBeLessThan(copies[0]!.length * 4);
  });
});

test('the same copies give the same bytes', () => {
  const make = () => combine((file) => ['a', 'b'].forEach((name) => file.add(form, { values: { name }, bookmark: name })));
  expect(Buffer.from(make()).equals(Buffer.from(make()))).toBe(true);
});

test('copies that keep their fields are refused, for fields of one name would become one', async () => {
  const open = await compileTemplate(formOf(['/FT/Tx/T(name)/Rect[10 100 210 120]']), {
    fonts: await testFonts(),
    faces: [],
    finish: 'open',
  });
  expect(() => combine((file) => void file.add(open, { values: {}, bookmark: '' }))).toThrow('Only flattened copies');
});
