import { startBatch } from '../../../../demo/src/start-batch.js';
import { shedPermit } from '../../../../demo/src/forms/shed-permit.js';
import { readByOther } from '../../../../testing/other-reader.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch, CopyRow } from '../../../../testing/small-mailing.js';
import { copiesOf } from '../../../../testing/small-mailing.js';

/** A record that gets several copies of a template: one for so many items of a repeated group, here the rows of the sheet with the same plot. */
const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

const lines = [
  'Plot,Mail,Child,Shed',
  'A-1,bay@example.org,Ada,yes',
  'A-2,moss@example.org,Cy,no',
  'A-1,bay@example.org,Bo,no',
  'A-1,bay@example.org,Di,yes',
  'A-3,reed@example.org,,',
];
interface Detail {
  version: number;
  plan: Record<string, unknown>;
}
const items = [1, 2, 3].map((number) => [`Child ${number}`, `Shed ${number}`]);

async function mailingOf(perCopy: number, map: object): Promise<{ mailing: number; template: number; columns: string[] }> {
  const { client } = mailbag;
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'permit.pdf', shedPermit());
  const { fileId } = await client.upload<{ fileId: string }>(
    '/api/sources/files',
    'children.csv',
    new TextEncoder().encode(lines.join('\r\n')),
  );
  const reading = { headingRow: 1, onePer: 'Plot' };
  const { id: sourceId } = await client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: 'children.csv', reading });
  const source = await client.until<{ state: string; columns: { name: string }[] }>(
    `/api/sources/${sourceId}`,
    ({ state }) => state === 'ready',
  );
  const { id: mailing, version } = await client.send<{ id: number; version: number }>('POST', '/api/mailings', { name: 'Children' });
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      name: 'Children',
      packet: [template.id],
      sourceId,
      keyColumn: 'Plot',
      leftOut: [],
      maps: { [template.id]: { 'permit.plot': { kind: 'column', column: 'Plot' }, ...map } },
      counts: { [template.id]: { items, perCopy } },
      output: { folder: `Children ${perCopy}`, file: '{{ plot }} {{ child_1 }}.pdf' },
      message: { mailed: false, addressColumn: 'Mail', recipient: '{{ child_1 }}', subject: '', body: '' },
    },
  });
  return { mailing, template: template.id, columns: source.columns.map(({ name }) => name) };
}
const name = { 'permit.name': { kind: 'column', column: 'Child 1' } };

/** The words of each copy, by the name of its file. */
async function wordsOf(copies: readonly CopyRow[]): Promise<Record<string, string>> {
  const read = async ({ id, file }: CopyRow): Promise<[string, string]> => {
    const pages = await readByOther(await mailbag.client.bytes(`/api/copies/${id}/pdf`));
    return [file.split('/').at(-1)!, pages.map(({ text }) => text).join(' ')];
  };
  return Object.fromEntries(await Promise.all(copies.map(read)));
}

test('each child has a copy with its own name in the fields, in the file name and as the recipient', async () => {
  const { mailing, columns } = await mailingOf(1, name);
  expect(columns).toEqual(['Plot', 'Mail', 'Child 1', 'Shed 1', 'Child 2', 'Shed 2', 'Child 3', 'Shed 3']);
  // The record of plot A-3 has no child, and so no copy.
  const checks = await mailbag.client.until<{ current: boolean; groups: { code: string; records: number }[] }>(
    `/api/mailings/${mailing}/checks`,
    ({ current }) => current,
  );
  expect(checks.groups).toContainEqual(expect.objectContaining({ code: 'no-template', records: 1 }));
  const shown = await mailbag.client.send<{ records: number; copies: number }>('POST', `/api/mailings/${mailing}/start`, { who: 'new' });
  expect(shown).toMatchObject({ records: 2, copies: 4 });
  const { id } = await startBatch(mailbag.client, mailing);
  const done = await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done' || state === 'paused');
  expect(done).toMatchObject({ copies: 4, error: null });
  const copies = await copiesOf(mailbag.client, id);
  expect(copies.map(({ recipient }) => recipient).sort()).toEqual(['Ada', 'Bo', 'Cy', 'Di']);
  const words = await wordsOf(copies);
  expect(Object.keys(words).sort()).toEqual(['A-1 Ada.pdf', 'A-1 Bo.pdf', 'A-1 Di.pdf', 'A-2 Cy.pdf']);
  for (const [file, text] of Object.entries(words)) expect([file, text]).toEqual([file, expect.stringContaining(file.slice(4, -4))]);
  // Each is another child's.
  expect(words['A-1 Bo.pdf']).not.toMatch(/Ada|Di/);
});

test('two children go into one copy, and the third into another; a value that is wrong in the third is told where it stands', async () => {
  const { mailing } = await mailingOf(2, {
    'permit.name': { kind: 'column', column: 'Child 1' },
    'permit.site': { kind: 'column', column: 'Child 2' },
    'permit.shed': { kind: 'translate', column: 'Shed 1', table: [{ from: 'no', to: 'Off' }] },
  });
  const { items: found } = await mailbag.client.until<{ items: { finding: { column: string; value: string } }[] }>(
    `/api/mailings/${mailing}/findings?code=untranslated&from=0&count=50`,
    ({ items }) => items.length > 0,
  );
  // Of plot A-1 the first copy begins with Ada, the second with Di.
  expect(found.map(({ finding: { column, value } }) => [column, value]).sort()).toEqual([
    ['Shed 1', 'yes'],
    ['Shed 3', 'yes'],
  ]);
});

test('a count without columns is refused, and nothing is changed', async () => {
  const { mailing } = await mailingOf(3, name);
  const { version, plan } = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
  await expect(
    mailbag.client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, counts: { 1: { items: [], perCopy: 1 } } } }),
  ).rejects.toThrow('count-unknown');
  expect((await mailbag.client.get<Detail>(`/api/mailings/${mailing}`)).version).toBe(version);
});
