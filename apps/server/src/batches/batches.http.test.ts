import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, symlinkSync } from 'node:fs';
import { join } from 'node:path';
import { inspectTemplate } from '@mailbag/core';
import { readByOther } from '../../../../testing/other-reader.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());
const rows = (count: number): [string, string, string, string][] =>
  Array.from({ length: count }, (_, index) => [
    `A-${index + 1}`,
    `Tenant ${index + 1}`,
    `t${index + 1}@example.org`,
    index % 2 ? 'yes' : 'no',
  ]);
const archived = (file: string): string => join(mailbag.data, 'archive', file);

test('copies lie in the archive as named, each with the hash that the ledger and the manifest tell', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(12), { mailed: false, folder: '2027/{{ shed }}' });
  const { id } = await startBatch<Batch>(client, mailing);
  const batch = await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(batch.counts).toEqual({ made: 12 });
  const copies = await copiesOf(client, id);
  expect(copies.map(({ file }) => file).sort()[0]).toBe('2027/no/A-1.pdf');
  const manifest = JSON.parse(readFileSync(archived(`Manifests/Batch ${batch.number} Permits.json`), 'utf8')) as {
    code: string;
    path: string;
    sha256: string;
  }[];
  expect(manifest).toHaveLength(12);
  for (const { path, sha256 } of manifest)
    expect(
      createHash('sha256')
        .update(readFileSync(archived(path)))
        .digest('hex'),
    ).toBe(sha256);
  const [page] = await readByOther(new Uint8Array(readFileSync(archived('2027/yes/A-2.pdf'))));
  expect(page!.text).toContain('Tenant 2');
  expect(page!.fields).toEqual([]);
});

test('a second batch never overwrites the first', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(3), { mailed: false, folder: 'twice' });
  const first = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${first.id}`, ({ state }) => state === 'done');
  const before = readFileSync(archived('twice/A-1.pdf'));
  const second = await startBatch<Batch>(client, mailing, 'everybody');
  await client.until<Batch>(`/api/batches/${second.id}`, ({ state }) => state === 'done');
  expect((await copiesOf(client, second.id)).map(({ file }) => file).sort()).toEqual([
    'twice/A-1 (2).pdf',
    'twice/A-2 (2).pdf',
    'twice/A-3 (2).pdf',
  ]);
  expect(readFileSync(archived('twice/A-1.pdf')).equals(before)).toBe(true);
});

test('a full disk is told in a sentence; after room is made the batch goes on by itself and nothing is missing', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(30), { mailed: false, folder: 'full' });
  const [last] = (await client.get<{ rows: { id: number }[] }>('/api/copies?count=1')).rows;
  mkdirSync(join(mailbag.data, 'spool'), { recursive: true });
  // /dev/full answers every write with ENOSPC; the next copy is written aside there.
  symlinkSync('/dev/full', join(mailbag.data, 'spool', `copy-${last!.id + 5}.part`));
  const { id } = await startBatch<Batch>(client, mailing);
  const waiting = await client.until<Batch>(`/api/batches/${id}`, ({ error }) => error !== null);
  expect(waiting).toMatchObject({ state: 'making', error: { code: 'batch-disk-full' } });
  expect(waiting.error!.message).toMatch(/^The disk is full: .* Make room; it goes on by itself\.$/);
  const done = await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(done).toMatchObject({ counts: { made: 30 }, error: null });
  for (const { file } of await copiesOf(client, id)) expect(existsSync(archived(file))).toBe(true);
});

test('a batch can be paused, resumed and cancelled; what is cancelled is withdrawn, not lost', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(1500), { mailed: false, folder: 'long' });
  const { id } = await startBatch<Batch>(client, mailing);
  const paused = await client.send<Batch>('POST', `/api/batches/${id}/pause`);
  expect(paused.state).toBe('paused');
  await expect(client.send('POST', `/api/batches/${id}/pause`)).rejects.toThrow('batch-not-running');
  await client.send('POST', `/api/batches/${id}/resume`);
  await client.until<Batch>(`/api/batches/${id}`, ({ counts }) => (counts.made ?? 0) > 0);
  await client.send('POST', `/api/batches/${id}/cancel`);
  const cancelled = await client.until<Batch>(`/api/batches/${id}`, ({ counts }) => (counts.planned ?? 0) === 0);
  expect(cancelled.state).toBe('cancelled');
  expect((cancelled.counts.made ?? 0) + (cancelled.counts.withdrawn ?? 0)).toBe(cancelled.copies);
});

test('the zip holds every copy and the manifest', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(5), { mailed: false, folder: 'zip' });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const bytes = Buffer.from(await client.bytes(`/api/batches/${id}/zip`));
  const names = [...bytes.toString('latin1').matchAll(/PK\x01\x02[\s\S]{42}([\x20-\x7e]+?)(?=PK|UT|ux|up)/g)].map((match) => match[1]);
  expect(names.filter((name) => name!.startsWith('zip/A-'))).toHaveLength(5);
  expect(names.some((name) => name!.startsWith('manifest.csv'))).toBe(true);
});

test.each([
  ['locked', true],
  ['open', false],
])('copies of a mailing whose finish is %s keep their fields, and the ledger says so', async (finish, isReadOnly) => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(2), { mailed: false, folder: finish, finish });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const [copy] = await copiesOf(client, id);
  expect(await client.get<{ finish: string }>(`/api/copies/${copy!.id}`)).toMatchObject({ finish });
  const { fields } = await inspectTemplate(new Uint8Array(readFileSync(archived(`${finish}/A-2.pdf`))));
  expect(fields.find(({ name }) => name === 'permit.name')).toMatchObject({ value: 'Tenant 2' });
  expect(fields.every(({ flags }) => flags.includes('readOnly'))).toBe(isReadOnly);
});

/** Changes the plan of a mailing. */
async function change(mailing: number, more: { output?: object; message?: object }): Promise<void> {
  const { version, plan } = await mailbag.client.get<{ version: number; plan: { output: object; message: object } }>(
    `/api/mailings/${mailing}`,
  );
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: { ...plan, output: { ...plan.output, ...more.output }, message: { ...plan.message, ...more.message } },
  });
}

test('a combined file holds every copy with a bookmark, and the manifest the chosen metadata, which every copy is found by', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(7), { mailed: false, folder: 'combined' });
  await change(mailing, { output: { combined: 'batch', duplex: true, metadata: ['Plot', 'Shed'] } });
  const { id } = await startBatch<Batch>(client, mailing);
  const batch = await client.until<Batch & { combined: string[] }>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(batch.combined).toEqual([`Batch ${batch.number} Permits.pdf`]);
  const bytes = await client.bytes(`/api/batches/${id}/combined/${encodeURIComponent(batch.combined[0]!)}`);
  const pages = await readByOther(bytes);
  // One page and a blank back each.
  expect(pages).toHaveLength(14);
  expect(pages.filter((_, index) => index % 2 === 0).map(({ text }) => /A-(\d+)/.exec(text)?.[1])).toEqual([
    '1',
    '2',
    '3',
    '4',
    '5',
    '6',
    '7',
  ]);
  const csv = readFileSync(archived(`Manifests/Batch ${batch.number} Permits.csv`), 'utf8').split('\r\n');
  expect(csv[0]!.endsWith(',Plot,Shed')).toBe(true);
  expect(csv[1]).toMatch(/,A-1,no$/);
  const [one] = JSON.parse(readFileSync(archived(`Manifests/Batch ${batch.number} Permits.json`), 'utf8')) as { metadata: object }[];
  expect(one!.metadata).toEqual({ Plot: 'A-1', Shed: 'no' });
  // A combined file would hold copies without their passwords.
  await change(mailing, { output: { openPassword: '{{ plot }}' } });
  await expect(startBatch(client, mailing)).rejects.toThrow('output-combined-password');
});

test('a copy that is not on disk what was meant stops the batch and is named; resumed, it is made again', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(10), { mailed: false, folder: 'readback' });
  const [last] = (await client.get<{ rows: { id: number }[] }>('/api/copies?count=1')).rows;
  // What is written to the third copy vanishes, as on a disk that lies.
  symlinkSync('/dev/null', join(mailbag.data, 'spool', `copy-${last!.id + 3}.part`));
  const { id } = await startBatch<Batch>(client, mailing);
  const paused = await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'paused');
  const third = (await copiesOf(client, id)).find((copy) => copy.id === last!.id + 3)!;
  expect(paused.error!.code).toBe('copy-differs');
  expect(paused.error!.message).toContain(`Copy ${third.code} (${third.file}) does not hold what was meant`);
  await client.send('POST', `/api/batches/${id}/resume`);
  const done = await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(done.counts).toEqual({ made: 10 });
  expect(readFileSync(archived(third.file)).length).toBeGreaterThan(1000);
});

test('records whose copies cannot have their passwords are stops of the checks, so that no batch breaks off over them', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(3), { mailed: false, folder: 'passwords' });
  await change(mailing, { output: { openPassword: '{{ plot }}', permissionsPassword: 'A-2' } });
  const checked = await client.until<{ pending: boolean; groups: { code: string; severity: string; records: number }[] }>(
    `/api/mailings/${mailing}/checks`,
    ({ groups }) => groups.some(({ code }) => code === 'passwords-same'),
  );
  expect(checked.groups.find(({ code }) => code === 'passwords-same')).toMatchObject({ severity: 'stop', records: 1 });
  const { id } = await startBatch<Batch>(client, mailing);
  const batch = await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done' || state === 'paused');
  expect(batch).toMatchObject({ state: 'done', counts: { made: 2 } });
});
