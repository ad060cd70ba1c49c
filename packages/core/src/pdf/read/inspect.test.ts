import { PDFDocument } from '@cantoo/pdf-lib';
import { MailbagError } from '../../errors/catalogue.js';
import { formOf, pdfOf, stream } from '../../../../../testing/raw-form.js';
import { inspectTemplate } from './inspect.js';

const text = (name: string, more = ''): string => `/FT/Tx/T(${name})/Rect[10 10 110 30]${more}`;
const code = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'no error',
    (error: unknown) => (error instanceof MailbagError ? error.code : String(error)),
  );

describe('inspectTemplate', () => {
  test('gives name, kind, flags, limits and tooltip of a text field, so that a person can recognise it', async () => {
    const { fields, pages } = await inspectTemplate(formOf([text('iban', `/TU(Account number)/MaxLen 22/Ff ${2 | (1 << 24)}`)]));
    expect(fields[0]).toMatchObject({
      name: 'iban',
      kind: 'text',
      tooltip: 'Account number',
      maxLength: 22,
      flags: ['required', 'comb'],
      page: 1,
    });
    expect(fields[0]!.widgets[0]).toMatchObject({ page: 1, rect: [10, 10, 110, 30], rotation: 0, hidden: false });
    expect(pages[0]).toEqual({ width: 300, height: 200, rotation: 0, left: 0, bottom: 0 });
  });

  test('resolves what kids inherit, and builds the full name over empty partial names (ISO 32000-2, 12.7.4.2)', async () => {
    const pdf = formOf(['/T(no)/Rect[0 0 50 20]/Parent 7 0 R', '/T(name)/Rect[0 30 50 50]/Parent 7 0 R'], {
      topFields: '8 0 R',
      more: ['<</Kids[5 0 R 6 0 R]/Parent 8 0 R/FT/Tx/MaxLen 9>>', '<</T(tenancy)/Kids[7 0 R]/Ff 2>>'],
    });
    const { fields } = await inspectTemplate(pdf);
    expect(fields.map(({ name, maxLength, flags }) => ({ name, maxLength, flags }))).toEqual([
      { name: 'tenancy.no', maxLength: 9, flags: ['required'] },
      { name: 'tenancy.name', maxLength: 9, flags: ['required'] },
    ]);
  });

  test('finds on-values with spaces, escapes and "0", and options by export and display value', async () => {
    const look = stream('/Type/XObject/Subtype/Form/BBox[0 0 10 10]', '');
    const { fields } = await inspectTemplate(
      formOf(
        [
          '/FT/Btn/T(a)/Rect[0 0 10 10]/AP<</N<</Choice#201 8 0 R/Off 8 0 R>>>>',
          '/FT/Btn/T(b)/Rect[0 20 10 30]/AP<</N<</0 8 0 R>>>>/AS/Off',
          '/FT/Ch/Ff 131072/T(c)/Rect[0 40 90 60]/Opt[[(01)(First)](other)]',
        ],
        { more: [look] },
      ),
    );
    expect(fields.map(({ kind, onValues, options }) => ({ kind, onValues, options }))).toEqual([
      { kind: 'checkbox', onValues: ['Choice 1'], options: [] },
      { kind: 'checkbox', onValues: ['0'], options: [] },
      {
        kind: 'combo',
        onValues: [],
        options: [
          { value: '01', label: 'First' },
          { value: 'other', label: 'other' },
        ],
      },
    ]);
  });

  test('takes in widgets that stand outside the list of fields, and says so', async () => {
    const { fields, notes } = await inspectTemplate(formOf([text('stray')], { topFields: '' }));
    expect(fields.map(({ name }) => name)).toEqual(['stray']);
    expect(notes).toContainEqual({ code: 'stray-widgets', fields: ['stray'] });
  });

  test('ends on a tree that leads into itself', async () => {
    const { fields } = await inspectTemplate(formOf([text('a', '/Kids[5 0 R]')]));
    expect(fields.length).toBeLessThanOrEqual(1);
  });

  test('says that scripts, XFA and signatures are there', async () => {
    const { notes } = await inspectTemplate(
      formOf(
        [
          text('a', '/AA<</K<</S/JavaScript/JS(app.alert\\(1\\))>>>>'),
          '/FT/Sig/T(s)/Rect[0 50 60 80]/V<</Type/Sig/Filter/Adobe.PPKLite/Contents<00>>>',
        ],
        { form: '/XFA(x)', more: ['<</S/JavaScript/JS(x)>>'] },
      ),
    );
    expect(notes.map((note) => note.code).sort()).toEqual(['scripts', 'signed', 'xfa-dropped']);
  });

  test('refuses what cannot be filled with a sentence that says why', async () => {
    const noFields = pdfOf([
      '<</Type/Catalog/Pages 2 0 R>>',
      '<</Type/Pages/Count 1/Kids[3 0 R]>>',
      '<</Type/Page/Parent 2 0 R/MediaBox[0 0 9 9]>>',
    ]);
    const xfaOnly = pdfOf([
      '<</Type/Catalog/Pages 2 0 R/AcroForm<</Fields[]/XFA(x)>>>>',
      '<</Type/Pages/Count 1/Kids[3 0 R]>>',
      '<</Type/Page/Parent 2 0 R/MediaBox[0 0 9 9]>>',
    ]);
    const bytes = (content: string): Uint8Array => Uint8Array.from(content, (char) => char.charCodeAt(0));
    expect(await code(inspectTemplate(bytes('Dear Sir')))).toBe('pdf-not-a-pdf');
    expect(await code(inspectTemplate(bytes('%PDF-1.7\nrubbish')))).toBe('pdf-damaged');
    expect(await code(inspectTemplate(noFields))).toBe('pdf-no-fields');
    expect(await code(inspectTemplate(xfaOnly))).toBe('pdf-xfa-only');
    await expect(inspectTemplate(bytes('Dear Sir'), 'letter.pdf')).rejects.toThrow('letter.pdf is not a PDF');
  });

  test('refuses a file that opens only with a password, and takes one that its author only protected', async () => {
    const protect = async (options: { userPassword?: string; ownerPassword: string }): Promise<Uint8Array> => {
      const doc = await PDFDocument.load(formOf([text('a')]));
      doc.encrypt({ ...options, permissions: { fillingForms: true } });
      return doc.save();
    };
    expect(await code(inspectTemplate(await protect({ userPassword: 'secret', ownerPassword: 'owner' })))).toBe('pdf-password');
    const { fields, notes } = await inspectTemplate(await protect({ ownerPassword: 'owner' }));
    expect(fields.map(({ name }) => name)).toEqual(['a']);
    expect(notes.map((note) => note.code)).toContain('encrypted');
  });

  test('mends a file that was cut off before its cross-reference', async () => {
    const whole = formOf([text('a')]);
    const cut = whole.subarray(0, Buffer.from(whole).indexOf('xref\n'));
    const { fields, notes } = await inspectTemplate(cut);
    expect(fields.map(({ name }) => name)).toEqual(['a']);
    expect(notes.map((note) => note.code)).toContain('mended');
  });
});
