import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

const RECORDS = 450;
let office: PostOffice;
const mailbag = new RunningMailbag();
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

const count = (batch: Batch, ...states: string[]): number => states.reduce((sum, state) => sum + (batch.counts[state] ?? 0), 0);
const files = (folder: string): string[] =>
  existsSync(folder)
    ? readdirSync(folder, { recursive: true, withFileTypes: true })
        .filter((one) => one.isFile())
        .map((one) => join(one.parentPath, one.name))
    : [];

test('a server killed at any point loses no copy, makes none twice, and mails nobody twice', async () => {
  const rows = Array.from({ length: RECORDS }, (_, index): [string, string, string, string] => [
    `K-${index + 1}`,
    `Tenant ${index + 1}`,
    `${index % 50 === 7 ? 'later' : 't'}.${index + 1}@example.org`,
    'yes',
  ]);
  const { mailing } = await smallMailing(mailbag.client, rows, { folder: 'killed' });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  const path = `/api/batches/${id}`;
  const made = (batch: Batch): number => count(batch, 'made', 'queued', 'sending', 'sent', 'retrying', 'unconfirmed');
  const sent = (batch: Batch): number => count(batch, 'sent');
  // While the copies are planned, while they are made, and four times while they are mailed.
  const points: ((batch: Batch) => boolean)[] = [
    (batch) => batch.copies > 0,
    (batch) => made(batch) > 0,
    (batch) => made(batch) >= RECORDS / 2,
    (batch) => sent(batch) > 10,
    (batch) => sent(batch) > 90,
    (batch) => sent(batch) > 180,
    (batch) => sent(batch) > 280,
  ];
  for (const reached of points) {
    await mailbag.client.until<Batch>(path, reached);
    await mailbag.kill();
    await mailbag.startAgain();
  }
  const done = await mailbag.client.until<Batch>(path, ({ state }) => state === 'done');

  const copies = await copiesOf(mailbag.client, id);
  expect(copies).toHaveLength(RECORDS);
  expect(new Set(copies.map(({ code }) => code)).size).toBe(RECORDS);
  expect(new Set(copies.map(({ file }) => file)).size).toBe(RECORDS);
  expect(count(done, 'sent', 'unconfirmed')).toBe(RECORDS);

  // Every copy is there once and whole, and nothing else is.
  expect(files(join(mailbag.data, 'archive', 'killed'))).toHaveLength(RECORDS);
  expect(files(join(mailbag.data, 'spool')).filter((file) => file.endsWith('.part'))).toEqual([]);
  for (const { id: copy, file } of copies.filter((_, index) => index % 23 === 0)) {
    const { sha256 } = await mailbag.client.get<{ sha256: string }>(`/api/copies/${copy}`);
    expect(
      createHash('sha256')
        .update(readFileSync(join(mailbag.data, 'archive', file)))
        .digest('hex'),
    ).toBe(sha256);
  }

  // No message twice, nobody else's address, and whatever arrived is sent or told as unconfirmed.
  const received = await office.letters();
  expect(new Set(received.map(({ messageId }) => messageId)).size).toBe(received.length);
  const byAddress = new Map(copies.map((copy) => [copy.address, copy]));
  for (const { to, attachments } of received) expect(byAddress.get(to)!.file.endsWith(`/${attachments[0]!.name}`)).toBe(true);
  const arrived = new Set(received.map(({ to }) => to));
  expect(arrived.size).toBe(received.length);
  for (const { address, state } of copies) if (state === 'sent') expect(arrived.has(address)).toBe(true);
  const unconfirmed = copies.filter(({ state }) => state === 'unconfirmed');
  // At most as many per kill as connections were open.
  expect(unconfirmed.length).toBeLessThanOrEqual(points.length * 5);
});
