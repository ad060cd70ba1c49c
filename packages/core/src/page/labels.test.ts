import { inspectTemplate } from '../pdf/read/inspect.js';
import { templateNoteSentence } from '../pdf/field.js';
import { formOf, stream } from '../../../../testing/raw-form.js';

/** Pages as offices print them, with what a person would call each of their boxes (common practice, no source). */
const text = (words: string, x: number, y: number, size = 8, matrix = '1 0 0 1'): string =>
  `BT /F1 ${size} Tf ${matrix} ${x} ${y} Tm (${words.replace(/[()\\]/g, '\\$&')}) Tj ET\n`;
const line = (x1: number, y1: number, x2: number, y2: number): string => `${x1} ${y1} m ${x2} ${y2} l S\n`;
const frame = (left: number, bottom: number, right: number, top: number): string =>
  `${left} ${bottom} ${right - left} ${top - bottom} re S\n`;

type Rect = readonly [number, number, number, number];
const box = (name: string, rect: Rect, more = ''): string => `/FT/Tx/T(${name})/Rect[${rect.join(' ')}]${more}`;
const tick = (name: string, rect: Rect, more = ''): string => `/FT/Btn/T(${name})/Rect[${rect.join(' ')}]/MK<<>>${more}`;

interface Told {
  label: string | null;
  labelFrom: string | null;
  section: string | null;
  options: string[];
}
/** The fields of a page with this content, by name. */
async function told(
  fields: readonly string[],
  content: string,
  page = '',
  more: { topFields?: string; objects?: readonly string[] } = {},
): Promise<Record<string, Told>> {
  const number = 5 + fields.length;
  const pdf = formOf(fields, {
    page: `/Contents ${number} 0 R/Resources<</Font<</F1 4 0 R/F2 ${number + 1} 0 R>>>>${page}`,
    more: [stream('', content), '<</Type/Font/Subtype/Type1/BaseFont/Helvetica-Bold/Encoding/WinAnsiEncoding>>', ...(more.objects ?? [])],
    ...(more.topFields ? { topFields: more.topFields } : {}),
  });
  const described = await inspectTemplate(pdf);
  return Object.fromEntries(
    described.fields.map(({ name, label, labelFrom = null, section = null, options }) => [
      name,
      { label, labelFrom, section, options: options.map((option) => option.label) },
    ]),
  );
}
const labels = (found: Record<string, Told>): Record<string, string | null> =>
  Object.fromEntries(Object.entries(found).map(([name, { label }]) => [name, label]));

test('words to the left, with colons, leaders, numbering and footnote marks left out', async () => {
  const fields = [
    box('a', [100, 160, 250, 174]),
    box('b', [100, 130, 250, 144]),
    box('c', [100, 100, 250, 114]),
    box('d', [100, 70, 250, 84]),
  ];
  const content =
    text('Name:', 60, 164) + text('1. Street ........', 30, 134) + text('12a Wages*', 40, 104) + text('(b)', 20, 74) + text('Town', 40, 74);
  expect(labels(await told(fields, content))).toEqual({ a: 'Name', b: 'Street', c: 'Wages', d: 'Town' });
});

test('words above, each over its own box of a row', async () => {
  const fields = [box('a', [20, 140, 120, 154]), box('b', [130, 140, 280, 154]), box('c', [20, 100, 280, 114])];
  const content = text('First name', 20, 157) + text('Surname', 130, 157) + text('Street and number', 20, 117);
  expect(labels(await told(fields, content))).toEqual({ a: 'First name', b: 'Surname', c: 'Street and number' });
});

test('captions below their lines, in rows that stand close together', async () => {
  const fields = [
    box('a', [100, 160, 190, 174]), box('b', [200, 160, 290, 174]),
    box('c', [100, 136, 190, 150]), box('d', [200, 136, 290, 150]),
    box('e', [100, 112, 190, 126]),
  ]; // prettier-ignore
  const captions =
    text('surname', 100, 152.5, 7) +
    text('first name', 200, 152.5, 7) +
    text('number', 100, 128.5, 7) +
    text('street', 200, 128.5, 7) +
    text('postal code', 100, 104.5, 7);
  const lines = [159.5, 135.5, 111.5].map((y) => line(100, y, 190, y)).join('') + [159.5, 135.5].map((y) => line(200, y, 290, y)).join('');
  expect(labels(await told(fields, captions + lines + text('Member', 40, 163)))).toEqual({
    a: 'surname',
    b: 'first name',
    c: 'number',
    d: 'street',
    e: 'postal code',
  });
});

test('a line for a signature has its words below it', async () => {
  const fields = [box('place', [20, 60, 120, 76]), box('sign', [150, 60, 280, 76])];
  const content =
    line(20, 59, 120, 59) + line(150, 59, 280, 59) + text('Place and date', 20, 50, 7) + text('Signature of the tenant', 150, 50, 7);
  expect(labels(await told(fields, content))).toEqual({ place: 'Place and date', sign: 'Signature of the tenant' });
});

test('words inside the box, in its upper corner', async () => {
  const fields = [box('a', [20, 120, 150, 150]), box('b', [150, 120, 280, 150])];
  const content = frame(20, 120, 150, 150) + frame(150, 120, 280, 150) + text('Account number', 23, 142, 6) + text('Bank', 153, 142, 6);
  expect(labels(await told(fields, content))).toEqual({ a: 'Account number', b: 'Bank' });
});

test('a tick box is called by what stands right of it, up to the next one', async () => {
  const fields = [tick('a', [20, 150, 30, 160]), tick('b', [120, 150, 130, 160]), tick('c', [20, 130, 30, 140])];
  const content = text('Water', 34, 152) + text('A shed', 134, 152) + text('I have read the rules', 34, 132);
  expect(labels(await told(fields, content))).toEqual({ a: 'Water', b: 'A shed', c: 'I have read the rules' });
});

test('ticks whose words stand before them are told by the first and the last of their row', async () => {
  const fields = [tick('a', [60, 150, 70, 160]), tick('b', [140, 150, 150, 160]), tick('c', [220, 150, 230, 160])];
  const content = text('child', 36, 152) + text('adult', 112, 152) + text('senior', 190, 152);
  expect(labels(await told(fields, content))).toEqual({ a: 'child', b: 'adult', c: 'senior' });
});

test('a table: its rows and its columns', async () => {
  const names = ['Rent', 'Water', 'Fees'];
  const years = ['2026', 'Year 2027'];
  const fields = names.flatMap((row, r) =>
    years.map((_, c) => box(`${row}${c}`, [100 + c * 90, 130 - r * 20, 180 + c * 90, 144 - r * 20])),
  );
  const content =
    names.map((row, r) => text(row, 30, 134 - r * 20)).join('') + text('Amount', 100, 150) + text('Arrears', 190, 150) +
    [148, 128, 108, 88].map((y) => line(25, y, 275, y)).join(''); // prettier-ignore
  expect(labels(await told(fields, content))).toEqual({
    Rent0: 'Rent, Amount',
    Rent1: 'Rent, Arrears',
    Water0: 'Water, Amount',
    Water1: 'Water, Arrears',
    Fees0: 'Fees, Amount',
    Fees1: 'Fees, Arrears',
  });
});

test('a label of two lines is joined, and never half of a sentence', async () => {
  const fields = [box('a', [180, 140, 280, 154]), box('b', [180, 100, 280, 114])];
  const content = text('Days of work in the town', 30, 149) + text('and its surroundings', 30, 140) + text('Days abroad', 30, 104);
  expect(labels(await told(fields, content))).toEqual({ a: 'Days of work in the town and its surroundings', b: 'Days abroad' });
});

test('a second line without words goes on with the first', async () => {
  const fields = [box('a', [100, 140, 280, 154]), box('b', [100, 122, 280, 136]), box('c', [100, 90, 280, 104])];
  expect(labels(await told(fields, text('Remarks', 40, 144) + text('Date', 40, 94)))).toEqual({ a: 'Remarks', b: 'Remarks', c: 'Date' });
});

test('print that is turned is no label of boxes that are not, and the other way round', async () => {
  const fields = [box('a', [100, 100, 200, 114]), box('b', [250, 60, 264, 160], '/MK<</R 90>>')];
  const content =
    text('N', 90, 104, 8, '0 1 -1 0') +
    text('Plot', 60, 104) +
    text('Turned', 244, 60, 8, '0 1 -1 0') +
    text('Allotments of Larkmere', 20, 180);
  expect(labels(await told(fields, content))).toEqual({ a: 'Plot', b: 'Turned' });
});

test('a page that is shown turned is read as it is shown', async () => {
  // Rotate 90: up on the screen is to the left in the page's own space, so text that is read runs upwards in it.
  const fields = [box('a', [100, 80, 114, 180], '/MK<</R 90>>'), box('b', [130, 80, 144, 180], '/MK<</R 90>>')];
  const content = text('Name', 111, 40, 8, '0 1 -1 0') + text('Street', 141, 40, 8, '0 1 -1 0');
  expect(labels(await told(fields, content, '/Rotate 90'))).toEqual({ a: 'Name', b: 'Street' });
});

test('radio buttons: the group by the words before it, each option by its own', async () => {
  const on = (value: string): string => `/AP<</N<</${value} 8 0 R/Off 8 0 R>>>>/AS/Off`;
  const kid = (at: number): string => `/Parent 12 0 R/Rect[${100 + at * 60} 150 ${110 + at * 60} 160]${on(String(at))}`;
  const fields = [kid(0), kid(1), kid(2)];
  const content = text('Rhythm', 40, 152) + text('yearly', 114, 152) + text('monthly', 174, 152) + text('never', 234, 152);
  const found = await told(fields, content, '', {
    topFields: '12 0 R',
    objects: [
      stream('/Type/XObject/Subtype/Form/BBox[0 0 10 10]', ''),
      '<<>>',
      `<</FT/Btn/T(rhythm)/Ff ${1 << 15}/Kids[5 0 R 6 0 R 7 0 R]>>`,
    ]
      .slice(0, 0)
      .concat(['<<>>', '<<>>', `<</FT/Btn/T(rhythm)/Ff ${1 << 15}/Kids[5 0 R 6 0 R 7 0 R]>>`]),
  });
  expect(found.rhythm).toMatchObject({ label: 'Rhythm', options: ['yearly', 'monthly', 'never'] });
});

test('headings are sections, not labels', async () => {
  const fields = [box('a', [100, 150, 250, 164]), box('b', [100, 80, 250, 94])];
  const content =
    text('Application', 20, 185, 16) + text('Your garden', 20, 170, 11) + text('Plot', 40, 154) + text('Your account', 20, 104, 11) + text('IBAN', 40, 84) +
    text('Some more words that make up most of the page in small type', 20, 20) + text('and more', 20, 10) + text('still more of them', 100, 10); // prettier-ignore
  const found = await told(fields, content);
  expect([found.a, found.b]).toMatchObject([
    { label: 'Plot', section: 'Your garden' },
    { label: 'IBAN', section: 'Your account' },
  ]);
});

test('a title above a column of fields is the name of none that has one of its own; where names tell nothing, it stands for the column', async () => {
  const column = (names: string[]): string[] => names.map((name, at) => box(name, [40, 150 - at * 20, 180, 164 - at * 20]));
  const title = text('Application', 30, 172, 10);
  const labels = async (names: string[]): Promise<unknown[]> => Object.values(await told(column(names), title)).map(({ label }) => label);
  expect(await labels(['applicant.name', 'applicant.e-mail', 'applicant.\u00e5ge'])).toEqual(['Name', 'E-mail', '\u00c5ge']);
  expect(await labels(['f1_1', 'f1_2', 'f1_3'])).toEqual(['Application', 'Application', 'Application']);
  expect(await labels(['child1', 'child2', 'child3'])).toEqual(['Application', 'Application', 'Application']);
});

test('a line whose number hangs out to the left goes on in the next one', async () => {
  const found = await told([box('a', [200, 130, 280, 144])], text('1. wages for', 20, 140, 8) + text('overtime', 29, 130, 8));
  expect(found.a).toMatchObject({ label: 'wages for overtime' });
});

test('words before the corner of a group name it, and a sentence there does not', async () => {
  const radios = (words: string): Promise<Record<string, { label?: string | null }>> => {
    const kids = [0, 1].map((at) => `/Rect[100 ${140 - at * 16} 110 ${150 - at * 16}]/AP<</N<</${at} null/Off null>>>>`);
    return told([`/FT/Btn/T(pays)/Ff ${1 << 15}${kids[0]}`], text(words, 30, 152, 8) + text('monthly', 116, 141, 8));
  };
  expect((await radios('How often')).pays).toMatchObject({ label: 'How often' });
  expect((await radios('This is a note.')).pays?.label).not.toBe('This is a note');
});

test('words in a font that does not say which letters it draws are said to be unread, with the fields that are there', async () => {
  const form = (font: string): Uint8Array =>
    formOf([box('tenant_name', [100, 150, 250, 164]), box('f1', [100, 120, 250, 134])], {
      page: '/Contents 7 0 R/Resources<</Font<</F1 8 0 R>>>>',
      more: [stream('', 'BT /F1 9 Tf 1 0 0 1 20 154 Tm <000100020003> Tj ET BT /F1 9 Tf 1 0 0 1 20 124 Tm <00010003> Tj ET'), font],
    });
  const composite =
    '/Type/Font/Subtype/Type0/BaseFont/X/Encoding/Identity-H/DescendantFonts[<</Type/Font/Subtype/CIDFontType2/BaseFont/X/DW 500>>]';
  const { notes, fields } = await inspectTemplate(form(`<<${composite}>>`));
  expect(notes).toEqual([{ code: 'print-unread', fields: ['tenant_name', 'f1'] }]);
  expect(templateNoteSentence(notes[0]!)).toMatch(/do not say which letters they draw/);
  expect(fields.map(({ label }) => label)).toEqual(['Tenant name', null]);
  // Two of five words that are not known, such as signs of a font of its own, are no reason to say so.
  const mostly =
    text('Tenant', 20, 154) + text('Plot', 20, 124) + text('Site', 20, 94) + 'BT /F1 9 Tf 1 0 0 1 20 64 Tm <0001> Tj <0002> Tj ET';
  expect(
    (
      await inspectTemplate(
        formOf([box('a', [100, 150, 250, 164])], {
          page: '/Contents 6 0 R/Resources<</Font<</F1 4 0 R>>>>',
          more: [stream('', mostly)],
        }),
      )
    ).notes,
  ).toEqual([]);
});

describe('print, tooltip or name', () => {
  const one = async (name: string, tooltip: string | null, printed: string | null): Promise<[string | null, string | null]> => {
    const found = await told(
      [box(name, [100, 100, 200, 114], tooltip === null ? '' : `/TU(${tooltip})`)],
      printed === null ? '' : text(printed, 20, 104),
    );
    const { label, labelFrom } = Object.values(found)[0]!;
    return [label, labelFrom];
  };
  test.each<[string, string | null, string | null, string | null, string | null]>([
    ['f1_04', 'Surname as in your passport', 'Surname', 'Surname as in your passport', 'tooltip'],
    ['f1_04', 'Surname', 'Surname of tenant', 'Surname of tenant', 'print'],
    ['Text1', 'Text1', 'Street', 'Street', 'print'],
    ['Text1', 'undefined', 'Street', 'Street', 'print'],
    ['phone_home', 'phone_home', 'Telephone', 'Telephone', 'print'],
    ['f1_04', 'Enter your town.', null, 'Enter your town.', 'tooltip'],
    ['phoneHome', null, null, 'Phone Home', 'name'],
    ['postal_code', null, null, 'Postal code', 'name'],
    ['Text1', null, null, null, null],
    ['f1_04', null, null, null, null],
    ['undefined_2', null, null, null, null],
  ])('a field %s with the tooltip %j beside %j is called %j, by the %s', async (name, tooltip, printed, label, from) =>
    expect(await one(name, tooltip, printed)).toEqual([label, from]),
  );
});

test('a page that says nothing leaves nothing to say', async () => {
  const found = await told([box('Text1', [10, 10, 100, 30])], '');
  expect(found.Text1).toEqual({ label: null, labelFrom: null, section: null, options: [] });
});

test('a box by itself is called by the words before it, though others stand below it', async () => {
  const content = text('National number', 20, 144) + text('Year 2026', 100, 128);
  expect(labels(await told([box('a', [90, 140, 250, 156])], content))).toEqual({ a: 'National number' });
});

test('a box that goes on from the one above it is not called by what comes next', async () => {
  const fields = [box('a', [90, 150, 280, 164]), box('b', [90, 132, 280, 146])];
  const content = text('Other exemptions', 20, 154) + text('Total', 92, 116);
  expect(labels(await told(fields, content))).toEqual({ a: 'Other exemptions', b: 'Other exemptions' });
});

test('pieces of one answer are called as it is', async () => {
  const fields = [
    box('a', [110, 150, 134, 164], '/MaxLen 3'),
    box('b', [142, 150, 158, 164], '/MaxLen 2'),
    box('c', [166, 150, 196, 164], '/MaxLen 4'),
  ];
  const content = text('Registration number', 20, 154) + text('-', 136, 154) + text('-', 160, 154);
  expect(labels(await told(fields, content))).toEqual({ a: 'Registration number', b: 'Registration number', c: 'Registration number' });
});
