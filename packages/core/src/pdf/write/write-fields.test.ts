import { PDFArray, PDFDict, PDFDocument, PDFName, PDFNumber, degrees } from '@cantoo/pdf-lib';
import { readBlanks } from '../../blanks/read-blanks.js';
import { isMailbagError } from '../../errors/catalogue.js';
import { application, enrolment } from '../../testing/told-forms/gallery.js';
import { formOf } from '../../../../../testing/raw-form.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { readByOther } from '../../../../../testing/other-reader.js';
import { compileTemplate } from '../plan/compile.js';
import { fillCopy } from '../fill/fill.js';
import { inspectTemplate } from '../read/inspect.js';
import { readValues } from '../read/read.js';
import type { DrawnField } from './drawn-field.js';
import { drawnField } from './drawn-field.js';
import { readLayout } from './read-layout.js';
import { writeFields } from './write-fields.js';

const at = (name: string, rect: DrawnField['rect'], more: Partial<DrawnField> = {}): DrawnField =>
  drawnField({ name, kind: 'text', page: 1, rect, ...more });
async function empty(pages = 1, rotation = 0): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  for (let page = 0; page < pages; page++) doc.addPage([300, 200]).setRotation(degrees(rotation));
  return doc.save();
}
const fault = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'none',
    (error: unknown) => (isMailbagError(error) ? error.code : String(error)),
  );

interface OtherWidget {
  fieldName: string;
  fieldType: string;
  alternativeText: string;
  id: string;
  maxLen?: number;
  comb?: boolean;
  required?: boolean;
  multiLine?: boolean;
  options?: { exportValue: string; displayValue: string }[];
}
/** What pdf.js, which shares nothing with the writer, finds of a page's widgets, in their order. */
async function widgetsByOther(bytes: Uint8Array): Promise<OtherWidget[]> {
  const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const doc = await pdfjs.getDocument({ data: bytes.slice(), verbosity: 0 }).promise;
  try {
    return (await (await doc.getPage(1)).getAnnotations()) as OtherWidget[];
  } finally {
    await doc.destroy();
  }
}

test('drawn fields are found by another reader with their kinds, tooltips, limits and options, in the order in which they were drawn', async () => {
  const fields = [
    at('b', [10, 10, 90, 30], { tooltip: 'Größe of it', required: true, limit: 12 }),
    at('a.one', [10, 40, 90, 60], { kind: 'multiline', label: 'Remarks' }),
    at('a.two', [10, 70, 90, 90], { kind: 'comb', cells: 5 }),
    at('menu', [100, 10, 190, 30], { kind: 'menu', options: [{ value: 'y', label: 'Yearly' }, { value: 'm', label: 'Monthly' }] }), // prettier-ignore
    at('sign', [100, 40, 190, 60], { kind: 'signature' }),
    at('tick', [100, 70, 110, 80], { kind: 'checkbox', value: 'agreed' }),
  ];
  const bytes = await writeFields(await empty(), fields);
  const found = await widgetsByOther(bytes);
  expect(found.map(({ fieldName, fieldType, alternativeText }) => [fieldName, fieldType, alternativeText])).toEqual([
    ['b', 'Tx', 'Größe of it'],
    ['a.one', 'Tx', 'Remarks'],
    ['a.two', 'Tx', ''],
    ['menu', 'Ch', ''],
    ['sign', 'Sig', ''],
    ['tick', 'Btn', ''],
  ]);
  expect(found[0]).toMatchObject({ required: true, maxLen: 12 });
  expect(found[1]).toMatchObject({ multiLine: true });
  expect(found[2]).toMatchObject({ comb: true, maxLen: 5 });
  expect(found[3]!.options).toEqual([{ exportValue: 'y', displayValue: 'Yearly' }, { exportValue: 'm', displayValue: 'Monthly' }]); // prettier-ignore
});

test('a radio group is one field with a button for each value', async () => {
  const button = (value: string, left: number): DrawnField =>
    at('pay', [left, 10, left + 10, 20], { kind: 'radio', value, label: 'How to pay' });
  const bytes = await writeFields(await empty(), [button('bank', 10), button('cash', 40), button('cheque', 70)]);
  const { fields } = await inspectTemplate(bytes);
  expect(fields).toMatchObject([{ name: 'pay', kind: 'radio', tooltip: 'How to pay', onValues: ['bank', 'cash', 'cheque'] }]);
  expect(await widgetsByOther(bytes)).toHaveLength(3);
});

test('blanks of a flat form become fields that are filled, flattened and open, and that another library fills as well', async () => {
  const flat = await application().flat();
  const { blanks } = await readBlanks(flat);
  const bytes = await writeFields(
    flat,
    blanks.map((blank, index) => drawnField({ ...blank, name: `field ${index}` })),
  );
  const { fields } = await inspectTemplate(bytes);
  const name = (label: string): string => fields.find((field) => field.label === label)!.name;
  const values = { [name('Familienname')]: 'Ostrander', [name('IBAN')]: 'XX00123456789', [name('ja')]: true };
  const given = Object.keys(values);
  for (const finish of ['flattened', 'open'] as const) {
    const compiled = await compileTemplate(bytes, {
      fonts: await testFonts(),
      faces: testFaces(),
      given,
      finish,
      characters: Object.values(values).map(String),
    });
    const copy = fillCopy(compiled, values).bytes;
    if (finish === 'open') {
      expect(await readValues(copy)).toMatchObject({
        [name('Familienname')]: 'Ostrander',
        [name('IBAN')]: 'XX00123456789',
        [name('ja')]: 'Yes',
      });
      continue;
    }
    const [page] = await readByOther(copy);
    expect(page!.fields).toEqual([]);
    expect(page!.text.replace(/\s/g, '')).toMatch(/Ostrander/);
    expect(page!.text.replace(/\s/g, '')).toContain('XX00123456789');
  }
  // The library that is used for fields by many, by its own code for appearances.
  const doc = await PDFDocument.load(bytes);
  doc.getForm().getTextField(name('Vorname')).setText('Ada');
  doc.getForm().getCheckBox(name('nein')).check();
  expect(await readValues(await doc.save())).toMatchObject({ [name('Vorname')]: 'Ada', [name('nein')]: 'Yes' });
});

test.each([90, 180, 270])('on a page that is turned by %d degrees, values stand upright', async (rotation) => {
  const bytes = await writeFields(await empty(1, rotation), [at('name', [20, 20, 60, 180], { border: true })]);
  const { fields } = await inspectTemplate(bytes);
  expect(fields[0]!.widgets[0]!.rotation).toBe(rotation);
});

test('fields that are there stay as they are, and new ones go after them', async () => {
  const form = await enrolment().fillable();
  const before = (await inspectTemplate(form)).fields;
  const after = (await inspectTemplate(await writeFields(form, [at('E-mail for news', [330, 60, 560, 76])]))).fields;
  expect(after.slice(0, -1)).toEqual(before);
  expect(after.at(-1)).toMatchObject({ name: 'E-mail for news', kind: 'text' });
});

test('in a tagged form each new field has its element, found from the widget and from the tree', async () => {
  const tagged = formOf(['/FT/Tx/T(name)/Rect[10 60 110 80]/StructParent 0'], {
    catalog: '/MarkInfo<</Marked true>>/StructTreeRoot 6 0 R',
    more: [
      '<</Type/StructTreeRoot/K 7 0 R/ParentTree<</Nums[0 8 0 R]>>/ParentTreeNextKey 1>>',
      '<</Type/StructElem/S/Document/P 6 0 R/K[8 0 R]>>',
      '<</Type/StructElem/S/Form/P 7 0 R/K<</Type/OBJR/Obj 5 0 R/Pg 3 0 R>>>>',
    ],
  });
  const doc = await PDFDocument.load(await writeFields(tagged, [at('town', [10, 20, 110, 40]), at('street', [120, 20, 220, 40])]));
  const name = (text: string): PDFName => PDFName.of(text);
  const root = doc.catalog.lookup(name('StructTreeRoot'), PDFDict);
  const numbers = root.lookup(name('ParentTree'), PDFDict).lookup(name('Nums'), PDFArray);
  const elements = root.lookup(name('K'), PDFDict).lookup(name('K'), PDFArray);
  expect(elements.size()).toBe(3);
  expect(root.lookup(name('ParentTreeNextKey'), PDFNumber).asNumber()).toBe(3);
  for (const key of [1, 2]) {
    // ISO 32000-2, 14.7.5.4: StructParent of the widget is its key in the parent tree, whose value is the element.
    const element = numbers.lookup(key * 2 + 1, PDFDict);
    expect(elements.lookup(key)).toBe(element);
    const widget = element.lookup(name('K'), PDFArray).lookup(0, PDFDict).lookup(name('Obj'), PDFDict);
    expect(widget.lookup(name('StructParent'), PDFNumber).asNumber()).toBe(key);
  }
  expect(doc.getPage(0).node.lookup(name('Tabs'))).toBe(name('S'));
});

test.each<[string, Partial<DrawnField>[], string]>([
  ['no size', [{ rect: [10, 10, 11, 30] }], 'layout-no-size'],
  ['outside the page', [{ rect: [400, 10, 450, 30] }], 'layout-off-page'],
  ['on a page that is not there', [{ page: 3 }], 'layout-no-page'],
  ['a name that stands already', [{}, {}], 'layout-name-taken'],
  ['a name below one that is a field', [{ name: 'a' }, { name: 'a.b' }], 'layout-name-taken'],
  ['a name of full stops', [{ name: 'a..b' }], 'layout-name'],
  ['a comb without cells', [{ kind: 'comb' }], 'layout-no-cells'],
])('a drawn field with %s is refused', async (_what, given, code) => {
  expect(
    await fault(
      writeFields(
        await empty(),
        given.map((one) => ({ ...at('f', [10, 10, 60, 30]), ...one })),
      ),
    ),
  ).toBe(code);
});

test.each<[string, unknown, string]>([
  ['no list', { fields: [] }, 'layout-not-a-list'],
  ['no name', [{ kind: 'text', rect: [1, 1, 9, 9] }], 'layout-no-name'],
  ['a kind that is none', [{ name: 'a', kind: 'slider', rect: [1, 1, 9, 9] }], 'layout-kind'],
  ['no box', [{ name: 'a', kind: 'text' }], 'layout-no-size'],
])('a list of fields with %s is refused', (_what, given, code) => {
  expect(() => readLayout(given)).toThrow(expect.objectContaining({ code }));
});
test('a list as blanks are printed, with options as they are said', () => {
  const [field] = readLayout([
    { name: 'pay', kind: 'menu', page: 2, rect: [90, 30, 10, 10], options: [{ say: 'Yearly', value: 'y' }, 'monthly'], align: 'center' },
  ]);
  expect(field).toMatchObject({
    page: 2,
    rect: [10, 10, 90, 30],
    align: 'centre',
    options: [
      { value: 'y', label: 'Yearly' },
      { value: 'monthly', label: 'monthly' },
    ],
  });
});
