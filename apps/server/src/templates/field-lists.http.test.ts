import { shedPermit } from '../../../../demo/src/forms/shed-permit.js';
import { readByOther } from '../../../../testing/other-reader.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

interface RecordsPage {
  records: { cells: { text: string }[] }[];
}
/** The field list as it is brought back with a value filled in. */
async function filledIn(format: string, bytes: Uint8Array): Promise<Uint8Array> {
  const text = Buffer.from(bytes).toString('utf8');
  if (format === 'csv') return Buffer.from(`${text}B-17${','.repeat(text.split(',').length - 1)}\r\n`);
  if (format === 'xlsx') {
    const { default: ExcelJS } = await import('exceljs');
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(bytes as unknown as Parameters<typeof book.xlsx.load>[0]);
    book.getWorksheet('Records')!.getCell('A2').value = 'B-17';
    return new Uint8Array(await book.xlsx.writeBuffer());
  }
  const hex = (words: string): string =>
    `<FEFF${[...words].map((char) => char.charCodeAt(0).toString(16).padStart(4, '0').toUpperCase()).join('')}>`;
  if (format === 'fdf') return Buffer.from(text.replace(`${hex('permit.plot')}/V <FEFF>`, `${hex('permit.plot')}/V ${hex('B-17')}`));
  if (format === 'json') return Buffer.from(text.replace('"permit.plot": ""', '"permit.plot": "B-17"'));
  if (format === 'xml') return Buffer.from(text.replace('<field name="permit.plot">', '$&B-17'));
  return Buffer.from(text.replace('<field name="plot"><value>', '$&B-17'));
}
test.each(['csv', 'xlsx', 'xfdf', 'fdf', 'xml', 'json'])('the field list as %s is filled in and comes back as a record', async (format) => {
  const { client } = mailbag;
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'permit.pdf', shedPermit());
  const bytes = await client.bytes(`/api/templates/${template.id}/fields/${format}`);
  const filled = await filledIn(format, bytes);
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', `permit fields.${format}`, filled);
  const { id } = await client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: `list.${format}`, reading: {} });
  const source = await client.until<{ state: string; count: number; columns: { name: string }[] }>(
    `/api/sources/${id}`,
    ({ state }) => state !== 'reading',
  );
  expect(source).toMatchObject({ state: 'ready', count: 1 });
  const place = source.columns.findIndex(({ name }) => name === 'permit.plot');
  expect(source.columns.length).toBeGreaterThan(5);
  const { records } = await client.get<RecordsPage>(`/api/sources/${id}/records?from=0&count=1`);
  expect(records[0]!.cells[place]!.text).toBe('B-17');
});

test('the marked form is a PDF with a page more than the form; a format that is none is refused', async () => {
  const { client } = mailbag;
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'permit.pdf', shedPermit());
  const pages = await readByOther(await client.bytes(`/api/templates/${template.id}/fields/pdf`));
  expect(pages).toHaveLength(2);
  expect(pages[1]!.text).toContain('permit.plot');
  await expect(client.bytes(`/api/templates/${template.id}/fields/docx`)).rejects.toThrow('not-found');
});
