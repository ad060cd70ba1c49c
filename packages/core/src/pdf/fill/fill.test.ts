import { readByOther } from '../../../../../testing/other-reader.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { formOf, stream } from '../../../../../testing/raw-form.js';
import type { CompileOptions } from '../plan/compile.js';
import { compileTemplate } from '../plan/compile.js';
import { stateFor } from './field-value.js';
import { fillCopy, measureCopy } from './fill.js';
import { inspectTemplate } from '../read/inspect.js';
import type { FieldValues } from '../value.js';

let options: CompileOptions;
beforeAll(async () => {
  options = { fonts: await testFonts(), faces: testFaces() };
});
const fill = async (pdf: Uint8Array, values: FieldValues) =>
  fillCopy(await compileTemplate(pdf, { ...options, characters: JSON.stringify(values) }), values);
const text = (name: string, rect: string, more = ''): string => `/FT/Tx/T(${name})/Rect[${rect}]${more}`;

describe('a flattened copy', () => {
  test('shows each value inside its own box, and has no field left, to a reader that we did not write', async () => {
    const { bytes } = await fill(formOf([text('a', '10 100 110 120'), text('b', '150 40 290 60', '/DA(/Helv 10 Tf 0 g)/Q 2')]), {
      a: 'Anneke',
      b: '182.50 €',
    });
    const [page] = await readByOther(bytes);
    const [a, b] = [page!.pieces.find((one) => one.text === 'Anneke')!, page!.pieces.find((one) => one.text.startsWith('182.50'))!];
    expect(a.x).toBeGreaterThanOrEqual(10);
    expect(a.y).toBeGreaterThan(100);
    expect(a.y).toBeLessThan(120);
    // Quadding 2: the text ends at the right (ISO 32000-2, 12.7.4.3).
    expect(b.x).toBeGreaterThan(230);
    expect(page!.fields).toEqual([]);
    await expect(inspectTemplate(bytes)).rejects.toMatchObject({ code: 'pdf-no-fields' });
  });

  test('has the same bytes for the same inputs', async () => {
    const pdf = formOf([text('a', '10 100 110 120')]);
    const [one, two] = [await fill(pdf, { a: 'Łąkowski' }), await fill(pdf, { a: 'Łąkowski' })];
    expect(Buffer.from(one.bytes).equals(Buffer.from(two.bytes))).toBe(true);
  });

  test('has a cross-reference whose offsets lead to the objects they name (ISO 32000-2, 7.5.4)', async () => {
    const { bytes } = await fill(formOf([text('a', '10 100 110 120')]), { a: 'Ρήγα' });
    const file = Buffer.from(bytes).toString('latin1');
    const start = Number(/startxref\n(\d+)/.exec(file)![1]);
    expect(file.slice(start, start + 4)).toBe('xref');
    const entries = [...file.slice(start).matchAll(/(\d{10}) (\d{5}) n\r\n/g)];
    expect(entries.length).toBeGreaterThan(6);
    entries.forEach((entry, index) => expect(file.slice(Number(entry[1])).startsWith(`${index + 1} 0 obj`)).toBe(true));
  });

  test('draws names of every script that the faces have, and another reader gets their letters back', async () => {
    const names = ['Łąkowski', 'Δάφνη Ρήγα', 'Сергій Гончар', 'Şebnem Yıldırgan', 'יעל ברקאי', 'ليلى الخطيب'];
    const fields = names.map((_, index) => text(`n${index}`, `10 ${10 + index * 30} 290 ${30 + index * 30}`));
    const { bytes, notes } = await fill(formOf(fields), Object.fromEntries(names.map((name, index) => [`n${index}`, name])));
    expect(notes).toEqual([]);
    const [page] = await readByOther(bytes);
    const found = page!.text.normalize('NFKC');
    for (const name of names) for (const word of name.split(' ')) expect(found).toContain(word);
  });

  test('carries only the faces that draw something of it, cut down to what they draw', async () => {
    const compiled = await compileTemplate(formOf([text('a', '10 100 290 120')]), { ...options, characters: ['Łąkowski', 'Zofia'] });
    const { bytes } = fillCopy(compiled, { a: 'Łąkowski Zofia' });
    const faces = [
      ...Buffer.from(bytes)
        .toString('latin1')
        .matchAll(/\/FontName\/[A-Z]{6}\+(\S+?)\//g),
    ].map(([, name]) => name);
    expect(faces).toEqual(['NotoSans-Regular']);
    expect(compiled.faces[0]!.face.covers('f'.codePointAt(0)!)).toBe(false);
    expect((await readByOther(bytes))[0]!.text).toContain('Łąkowski Zofia');
  });

  test('shows the display value of an option in a script that no value of the batch has', async () => {
    const menu = '/FT/Ch/Ff 131072/T(m)/Rect[10 100 290 120]/Opt[[(a)(Alder)][(l)<feff0141006f0064017a>]]/V(a)';
    const { bytes, notes } = await fill(formOf([menu]), { m: 'l' });
    expect(notes).toEqual([]);
    expect((await readByOther(bytes))[0]!.text).toContain('Łodź');
  });

  test('says which characters no face can draw, instead of drawing boxes', async () => {
    const { notes } = await fill(formOf([text('a', '10 100 290 120')]), { a: 'Kim 김' });
    expect(notes).toEqual([{ field: 'a', fit: 'fits', characters: ['김'] }]);
  });

  test('puts each character of a comb into its cell', async () => {
    const { bytes } = await fill(formOf([text('code', '0 100 100 120', `/MaxLen 5/Ff ${1 << 24}/DA(/Helv 10 Tf 0 g)`)]), { code: '04471' });
    const [page] = await readByOther(bytes);
    expect(
      page!.pieces
        .map(({ text: piece }) => piece)
        .join('')
        .replace(/\s/g, ''),
    ).toBe('04471');
    const content = Buffer.from(bytes).toString('latin1');
    // Five cells of 20 points; a digit of Helvetica is 5.56 points wide at 10 points (its AFM file): it starts 7.22 into its cell, and from the
    // end of one digit to the start of the next are 14.44 points, 1444 thousandths of the type size.
    expect(Number(/1 0 0 1 ([\d.]+) [\d.]+ Tm\n\[/.exec(content)![1])).toBeCloseTo(7.22, 2);
    expect([...content.matchAll(/-1444(?=\()/g)]).toHaveLength(4);
  });

  test('wraps several lines and shrinks what is too tall, and says when even small type does not fit', async () => {
    const compiled = await compileTemplate(formOf([text('m', '10 10 110 40', '/Ff 4096/DA(/Helv 12 Tf 0 g)')]), options);
    expect(measureCopy(compiled, { m: 'short' })).toEqual([]);
    expect(measureCopy(compiled, { m: 'a few words that need more than one line here' })).toEqual([
      { field: 'm', fit: 'tight', characters: [] },
    ]);
    const [note] = measureCopy(compiled, { m: Array.from({ length: 90 }, (_, at) => `w${at}`).join(' ') });
    expect(note).toMatchObject({ field: 'm', fit: 'overflows', lost: expect.stringMatching(/^w\d\d .* w89$/) as string });
  });

  test('says what of a line cannot be seen: a reader that we did not write sees the rest inside the box, and no more of it', async () => {
    const pdf = formOf([text('a', '10 100 110 130', '/DA(/Helv 10 Tf 0 g)')]);
    const compiled = await compileTemplate(pdf, options);
    const value = Array.from({ length: 24 }, (_, at) => `word${at}`).join(' ');
    const clipped = { tooLong: 'clip', smallest: 5 } as const;
    const [note] = measureCopy(compiled, { a: value }, { fit: clipped });
    const cut = fillCopy(compiled, { a: value }, { fit: { tooLong: 'cut', smallest: 10 } });
    const [page] = await readByOther(cut.bytes);
    const seen = page!.pieces.map((one) => one.text).join('');
    expect(value.startsWith(seen)).toBe(true);
    // What is clipped goes on to the border, two points beyond where text ends.
    expect(note!.lost!.length).toBeLessThanOrEqual(value.length - seen.length);
    expect(note!.lost!.length).toBeGreaterThan(value.length - seen.length - 3);
    expect(cut.notes[0]!.lost!.trim()).toBe(value.slice(seen.length).trim());
    // Of about 160 characters some 40 go on a line of 100 points in type of 5 points, and four such lines into 30 points.
    expect(measureCopy(compiled, { a: value })[0]!.remedies).toEqual({ smaller: null, wrap: true });
    expect(measureCopy(compiled, { a: 'm'.repeat(28) })[0]!.remedies!.smaller).toBeCloseTo(4.1, 0);
  });

  test('fits the values of single fields in ways of their own', async () => {
    const pdf = formOf([text('a', '10 100 110 130', '/DA(/Helv 10 Tf 0 g)'), text('b', '10 50 110 80', '/DA(/Helv 10 Tf 0 g)')]);
    const compiled = await compileTemplate(pdf, options);
    const value = 'a value that is much too long for one line of its box in any type';
    const { notes, bytes } = fillCopy(compiled, { a: value, b: value }, { fits: { b: { tooLong: 'wrap', smallest: 8 } } });
    expect(notes.map(({ field, fit }) => [field, fit])).toEqual([['a', 'overflows'], ['b', 'tight']]); // prettier-ignore
    const [page] = await readByOther(bytes);
    expect(new Set(page!.pieces.filter(({ y }) => y < 80).map(({ y }) => y)).size).toBeGreaterThan(1);
    expect(new Set(page!.pieces.filter(({ y }) => y > 100).map(({ y }) => y)).size).toBe(1);
  });

  test('ticks by on-value, true, or option, and never for an unknown value', async () => {
    const look = (body: string): string => stream('/Type/XObject/Subtype/Form/BBox[0 0 10 10]', body);
    const pdf = formOf(['/FT/Btn/T(t)/Rect[10 10 20 20]/AP<</N<</Ja 6 0 R/Off 7 0 R>>>>/AS/Off'], {
      more: [look('1 g % ticked'), look('0 g % empty')],
    });
    const compiled = await compileTemplate(pdf, options);
    const drawn = (value: string | boolean): string => Buffer.from(fillCopy(compiled, { t: value }).bytes).toString('latin1');
    const [on] = /MbA0 (\d+) 0 R/.exec(drawn(true))!.slice(1);
    expect(on).toBeDefined();
    expect(drawn('Ja')).toBe(drawn(true));
    expect(drawn('perhaps')).toBe(drawn(false));
    expect(drawn(true)).not.toBe(drawn(false));
    const [field] = compiled.description.fields;
    expect([stateFor(field!, 'Ja'), stateFor(field!, 'Off'), stateFor(field!, 'x')]).toEqual(['Ja', null, null]);
  });

  test('shows the display value of an option for its export value', async () => {
    const { bytes } = await fill(
      formOf(['/FT/Ch/Ff 131072/T(day)/Rect[10 10 200 30]/Opt[[(01)(1st of the month)][(15)(15th of the month)]]']),
      { day: '15' },
    );
    expect((await readByOther(bytes))[0]!.text).toContain('15th of the month');
  });

  test('leaves hidden fields undrawn, and fields without a value as the template shows them', async () => {
    const { bytes } = await fill(formOf([text('hidden', '10 100 110 120', '/F 2'), text('kept', '10 50 200 70', '/V(as it was)')]), {
      hidden: 'secret',
    });
    const [page] = await readByOther(bytes);
    expect(page!.text).toContain('as it was');
    expect(page!.text).not.toContain('secret');
  });

  test('drops scripts and XFA, and keeps links', async () => {
    const link = '<</Type/Annot/Subtype/Link/Rect[0 0 9 9]/A<</S/URI/URI(https://larkmere.example)>>>>';
    const pdf = formOf([text('a', '10 100 110 120', '/AA<</K<</S/JavaScript/JS(boom)>>>>')], {
      form: '/XFA(xfa-packet)',
      catalog: '/OpenAction<</S/JavaScript/JS(boom)>>/Names<</JavaScript<</Names[(x)<</S/JavaScript/JS(boom)>>]>>>>',
      more: [link],
    });
    const withLink = Buffer.from(pdf).toString('latin1').replace('/Annots[5 0 R]', '/Annots[5 0 R 6 0 R]');
    const { bytes } = await fill(
      Uint8Array.from(withLink, (char) => char.charCodeAt(0)),
      { a: 'x' },
    );
    const file = Buffer.from(bytes).toString('latin1');
    // Strings are written in hexadecimal.
    const hex = (word: string): string => Buffer.from(word).toString('hex');
    for (const gone of ['boom', 'xfa-packet']) expect(file).not.toContain(hex(gone));
    expect(file).not.toMatch(/AcroForm|JavaScript/);
    expect(file).toContain(hex('larkmere.example'));
  });

  test.each([
    [90, (x: number, y: number) => x > 130 && x < 170 && y > 20 && y < 30],
    [180, (x: number, y: number) => x > 150 && y > 20 && y < 60],
    [270, (x: number, y: number) => x > 100 && x < 200 && y > 20],
  ])('turns text with the widget by %i degrees and keeps it in its box', async (rotation, isInside) => {
    const { bytes } = await fill(formOf([text('a', '100 20 200 60', `/MK<</R ${rotation}>>/DA(/Helv 8 Tf 0 g)`)]), { a: 'turned' });
    const piece = (await readByOther(bytes))[0]!.pieces.find((one) => one.text.includes('turned'))!;
    expect(piece.x).toBeGreaterThan(100);
    expect(piece.x).toBeLessThan(200);
    expect(isInside(piece.x, piece.y)).toBe(true);
  });

  test('fills all widgets of one field, also through its parent', async () => {
    const pdf = formOf(['/Rect[10 10 110 30]/Parent 7 0 R', '/Rect[10 60 110 80]/Parent 7 0 R'], {
      topFields: '7 0 R',
      more: ['<</FT/Tx/T(name)/Kids[5 0 R 6 0 R]>>'],
    });
    const { bytes } = await fill(pdf, { name: 'Quist' });
    expect((await readByOther(bytes))[0]!.pieces.filter((one) => one.text === 'Quist')).toHaveLength(2);
  });
});
