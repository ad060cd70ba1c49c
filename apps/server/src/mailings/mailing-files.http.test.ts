import { buffer } from 'node:stream/consumers';
import type { Readable } from 'node:stream';
import type { MailingDetail, TemplateSummary } from '@mailbag/contract';
import yazl from 'yazl';
import { unzip } from '../../../../packages/core/src/testing/unzip.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

const [here, there] = [new RunningMailbag(), new RunningMailbag()];
let zip: Uint8Array;
let mailing: number;
beforeAll(async () => {
  await Promise.all([here, there].map(async (mailbag) => (await mailbag.start()).setUp()));
  ({ mailing } = await smallMailing(here.client, [['P-1', 'Ada Quist', 'ada@example.org', 'yes']]));
  const { version, plan } = await here.client.get<MailingDetail>(`/api/mailings/${mailing}`);
  const picture = await here.client.upload<{ fileId: string }>(
    '/api/mailings/extra-files',
    'map.txt',
    new TextEncoder().encode('Left at the gate'),
  );
  await here.client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      ...plan,
      leftOut: [2],
      conditions: { [plan.packet[0]!]: { of: { kind: 'column', column: 'Shed' }, test: 'not-empty' } },
      output: { ...plan.output, openPassword: 'secret {{ plot }}' },
      message: { ...plan.message, extraFiles: [{ ...picture, name: 'map.txt', size: 16 }] },
    },
  });
  zip = new Uint8Array(await here.client.bytes(`/api/mailings/${mailing}/file.zip`));
});
afterAll(() => Promise.all([here.close(), there.close()]));

const inZip = async (name: string): Promise<string> => {
  const chunks: Buffer[] = [];
  for await (const chunk of unzip(zip).read(name)) chunks.push(Buffer.from(chunk));
  return Buffer.concat(chunks).toString('utf8');
};
const bringIn = (bytes: Uint8Array, mailbag = there): Promise<MailingDetail> =>
  mailbag.client.upload<MailingDetail>('/api/mailings/file', 'Permits.zip', bytes);
/** A zip of some files. */
const zipped = (files: Record<string, string>): Promise<Buffer> => {
  const made = new yazl.ZipFile();
  for (const [name, text] of Object.entries(files)) made.addBuffer(Buffer.from(text), name);
  made.end();
  return buffer(made.outputStream as unknown as Readable);
};

test('the zip is JSON and PDFs that anybody can read, and holds no record and no password', async () => {
  expect(
    unzip(zip)
      .parts.map(({ name }) => name)
      .sort(),
  ).toEqual(['files/1', 'mailing.json', 'templates/1.pdf']);
  expect((await inZip('templates/1.pdf')).slice(0, 5)).toBe('%PDF-');
  const text = await inZip('mailing.json');
  expect(JSON.parse(text)).toMatchObject({
    format: 'mailbag-mailing',
    plan: { name: 'Permits', message: { subject: 'Plot {{ plot }}' } },
    columns: ['Plot', 'Name', 'Mail', 'Shed'],
    maps: { 0: { 'permit.plot': { kind: 'column', column: 'Plot' } } },
  });
  expect(text).not.toMatch(/secret|Ada|example\.org|sealed:/);
});

test('brought in elsewhere it is the same mailing, with its template and its files', async () => {
  const made = await bringIn(zip);
  const { plan: before, templates: had } = await here.client.get<MailingDetail>(`/api/mailings/${mailing}`);
  const [template] = made.plan.packet;
  expect(made.templates[0]!.fieldList).toEqual(had[0]!.fieldList);
  expect(made.plan).toMatchObject({
    name: 'Permits',
    sourceId: null,
    leftOut: [],
    maps: { [template!]: before.maps[before.packet[0]!] },
    conditions: { [template!]: { test: 'not-empty' } },
    message: { subject: 'Plot {{ plot }}', extraFiles: [{ name: 'map.txt' }] },
  });
  expect(made.plan.output.openPassword).toBeUndefined();
  const fill = await there.client.bytes(`/api/templates/${template}/pdf`);
  expect(fill.byteLength).toBe(
    (await inZip('templates/1.pdf')).length > 0 ? unzip(zip).parts.find(({ name }) => name === 'templates/1.pdf')!.size : 0,
  );
});

test('where its template is already, that one is taken', async () => {
  const count = async (): Promise<number> => (await here.client.get<TemplateSummary[]>('/api/templates')).length;
  const before = await count();
  const made = await bringIn(zip, here);
  expect(await count()).toBe(before);
  expect(made.plan.packet).toEqual((await here.client.get<MailingDetail>(`/api/mailings/${mailing}`)).plan.packet);
});

test.each<[string, () => Promise<Uint8Array> | Uint8Array, RegExp]>([
  ['no zip', () => new TextEncoder().encode('hello'), /it is not a zip/],
  ['a zip of something else', () => zipped({ 'a.txt': 'a' }), /it holds no mailing\.json/],
  ['a description that is no JSON', () => zipped({ 'mailing.json': '{' }), /not JSON/],
  ['JSON of something else', () => zipped({ 'mailing.json': '{"a":1}' }), /not that of a mailing/],
  ['one of a later version', () => zipped({ 'mailing.json': '{"format":"mailbag-mailing","version":2}' }), /later version/],
  ['a template that is not in it', () => zipped({ 'mailing.json': JSON.stringify({ format: 'mailbag-mailing', version: 1, plan: {}, templates: [{ fileName: 'a.pdf', file: '../../a.pdf', drawn: null }] }) }), /does not hold “\.\.\/\.\.\/a\.pdf”/],
  ['half a plan', () => zipped({ 'mailing.json': JSON.stringify({ format: 'mailbag-mailing', version: 1, plan: { name: 5 }, templates: [] }) }), /does not tell a whole mailing/],
])('%s is refused with a sentence, and nothing is begun', async (_, bytes, why) => {
  const before = await there.client.get<unknown[]>('/api/mailings');
  await expect(bringIn(new Uint8Array(await bytes()))).rejects.toThrow(why);
  expect(await there.client.get<unknown[]>('/api/mailings')).toHaveLength(before.length);
}); // prettier-ignore
