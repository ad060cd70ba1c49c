import { readFiles, readTable } from '../tables/read-table.js';
import type { SourceRecord } from '../tables/record.js';
import { readFdf, writeFdf } from './fdf.js';
import { readXfdf, writeXfdf } from './xfdf.js';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const texts = (record: ReadonlyMap<string, { text: string }>): object =>
  Object.fromEntries([...record].map(([name, { text }]) => [name, text]));
async function read(name: string, text: string) {
  const records: SourceRecord[] = [];
  const result = await readTable({ name, bytes: bytes(text), zip: null }, {}, (block) => records.push(...block));
  return {
    ...result,
    values: records.map(({ cells }) => cells.map(({ value }) => value)),
    names: result.columns.map((column) => column.name),
  };
}
const awkward = new Map<string, string | string[]>([
  ['tenant.name', 'Zoë <Quist> & "Söhne"\nOberweg 3 (links) \\ rechts'],
  ['tenant.kids', ['Ann', 'Bô']],
  ['plot', 'A-01'],
  ['شجرة', '𠮷野'],
]);
const asText = Object.fromEntries([...awkward].map(([name, value]) => [name, Array.isArray(value) ? value.join(', ') : value]));

// ISO 19444-1, 6.2: fields nest by their partial names and hold values.
test('XFDF: nested fields, several values, rich text beside plain', async () => {
  const record = await readXfdf(
    bytes(`<?xml version="1.0"?><xfdf xmlns="http://ns.adobe.com/xfdf/"><f href="x.pdf"/><fields><field name="a"><field name="b"><value>1</value></field>
      <field name="c"><value>x</value><value-richtext><body><p>x</p></body></value-richtext></field></field><field name="list"><value>p</value><value>q</value></field></fields></xfdf>`),
    'x.xfdf',
  );
  expect(texts(record)).toEqual({ 'a.b': '1', 'a.c': 'x', list: 'p, q' });
});
test('what is written as XFDF or FDF comes back as it was', async () => {
  expect(texts(await readXfdf(writeXfdf(awkward), 'x'))).toEqual(asText);
  expect(texts(readFdf(writeFdf(awkward, 'form.pdf'), 'x'))).toEqual(asText);
});
// ISO 32000-2, 12.7.8 and 7.3.4: literal strings with escapes, names as on-values, indirect fields, PDFDocEncoding.
test('FDF: kids, indirect objects, escapes, names', () => {
  const file = Uint8Array.from(
    [
      ...`%FDF-1.2\n1 0 obj\n<< /FDF << /Fields [ 2 0 R << /T (tick) /V /Yes#20please >> ] >> >>\nendobj\n2 0 obj<</T(a)/Kids[<</T(b)/V(O\\(x\\)\\101\\\nend)>><</T<FEFF0063>/V<FEFF20AC>>>]>>endobj\ntrailer<</Root 1 0 R>>`,
    ].map((char) => char.charCodeAt(0)),
  );
  expect(texts(readFdf(file, 'x.fdf'))).toEqual({ 'a.b': 'O(x)Aend', 'a.c': '€', tick: 'Yes please' });
});
test('XML of any make: repeated elements are records', async () => {
  const { names, values } = await read(
    'x.xml',
    '<export date="2027-01-01"><people><person id="7"><name>Petra</name><born>1961-03-14</born></person><person id="8"><name>Jun</name><mail>j@example.org</mail></person></people></export>',
  );
  expect(names).toEqual(['id', 'name', 'born', 'mail']);
  expect(values).toEqual([
    [7, 'Petra', '1961-03-14', null],
    [8, 'Jun', null, 'j@example.org'],
  ]);
});
test('JSON: lists wherever they lie, nested names, long numbers without a digit lost, hostile names', async () => {
  const { names, values } = await read(
    'x.json',
    '{"total":2,"rows":[{"id":1,"who":{"name":"Petra"},"ids":["a","b"],"iban":12345678901234567890},{"id":2,"__proto__":"x","who":{"name":"Jun"}}]}',
  );
  expect(names).toEqual(['id', 'who.name', 'ids', 'iban', '__proto__']);
  expect(values).toEqual([
    [1, 'Petra', 'a, b', '12345678901234567890', null],
    [2, 'Jun', null, null, 'x'],
  ]);
});
test('several files are one source, each with its name; what cannot be read is skipped and told', async () => {
  const records: SourceRecord[] = [];
  const file = (name: string, content: Uint8Array) => () => Promise.resolve({ name, bytes: content, zip: null });
  const { columns, notes } = await readFiles(
    [
      file('1.xfdf', writeXfdf(new Map([['plot', 'A-01']]))),
      file(
        '2.fdf',
        writeFdf(
          new Map([
            ['plot', 'A-02'],
            ['name', 'Jun'],
          ]),
        ),
      ),
      file('3.xfdf', bytes('<xfdf><fields>')),
    ],
    {},
    (block) => records.push(...block),
  );
  expect(columns.map(({ name }) => name)).toEqual(['File', 'plot', 'name']);
  expect(records.map(({ cells }) => cells.map(({ text }) => text))).toEqual([
    ['1.xfdf', 'A-01', ''],
    ['2.fdf', 'A-02', 'Jun'],
  ]);
  expect(notes).toContainEqual({ code: 'files-skipped', count: 1, names: ['3.xfdf'] });
});
test.each([
  [
    'x.xfdf',
    '<!DOCTYPE a [<!ENTITY a "aaaaaaaaaa">]><xfdf><fields><field name="a"><value>&a;</value></field></fields></xfdf>',
    'sheet-damaged',
  ],
  ['x.xfdf', '<xfdf><fields/></xfdf>', 'formdata-no-fields'],
  ['x.json', '[{"a": }]', 'sheet-damaged'],
  ['x.xml', `${'<a>'.repeat(5000)}`, 'sheet-damaged'],
])('%s with %p is refused as %s', async (name, text, code) => {
  await expect(read(name, text)).rejects.toMatchObject({ code });
});
