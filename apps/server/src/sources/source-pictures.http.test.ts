import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { encode as encodePng } from 'fast-png';
import { zipSync } from 'fflate';
import { startBatch } from '../../../../demo/src/start-batch.js';
import { formOf } from '../../../../testing/raw-form.js';
import { inkIn, pictureOf } from '../../../../testing/picture.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';

/** Pictures that come with the records, each in the box of the copy whose record names it. */
const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

const slip = formOf(['/FT/Tx/T(name)/Rect[40 150 240 170]/DA(/Helv 10 Tf 0 g)', '/FT/Sig/T(photo)/Rect[40 40 160 80]']);
/** A picture of the shape of the box, black as far as is said. */
const picture = (blackShare: number): Uint8Array => {
  const data = new Uint8Array(120 * 40 * 3).fill(255);
  for (let y = 0; y < 40; y++) for (let x = 0; x < 120 * blackShare; x++) data.fill(0, (y * 120 + x) * 3, (y * 120 + x) * 3 + 3);
  return encodePng({ width: 120, height: 40, channels: 3, depth: 8, data });
};
const text = (words: string): Uint8Array => new TextEncoder().encode(words);

interface Detail {
  version: number;
  plan: Record<string, object> & { sourceId: number };
}
async function pictured(rows: [string, string, string, string][], output: object = {}): Promise<{ mailing: number; source: number }> {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows, { mailed: false, folder: `P ${rows[0]![0]}` });
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'slip.pdf', slip);
  const { version, plan } = await client.get<Detail>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      ...plan,
      packet: [template.id],
      maps: { [template.id]: { name: { kind: 'column', column: 'Name' } } },
      output: { ...plan['output'], pictures: [{ template: template.id, field: 'photo', column: 'Shed' }], ...output },
    },
  });
  return { mailing, source: plan.sourceId };
}
const add = (source: number, name: string, bytes: Uint8Array): Promise<object> =>
  mailbag.client.upload(`/api/sources/${source}/pictures`, name, bytes);

/** How much of its box is black in each copy of a batch, in hundredths, by recipient. */
async function shares(mailing: number): Promise<Record<string, number>> {
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  const done = await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done' || state === 'paused');
  expect(done).toMatchObject({ state: 'done', error: null });
  const found = (await copiesOf(mailbag.client, id)).map(async (copy): Promise<[string, number]> => {
    const ink = inkIn(await pictureOf(await mailbag.client.bytes(`/api/copies/${copy.id}/pdf`)), [40, 40, 160, 80]);
    return [copy.recipient, Math.round((ink / (240 * 80)) * 10) / 10];
  });
  return Object.fromEntries(await Promise.all(found));
}
const stopped = (mailing: number, code: string, count: number): Promise<{ items: { finding: { value: string; severity: string } }[] }> =>
  mailbag.client.until(`/api/mailings/${mailing}/findings?code=${code}&from=0&count=10`, ({ items }) => items.length === count);

test('each copy has the picture that its record names, out of a folder or a zip; who names none has none', async () => {
  const { mailing, source } = await pictured([['A-1', 'Ada', '', 'ada.png'], ['A-2', 'Bo', '', 'photos/BO'], ['A-3', 'Cy', '', '']]); // prettier-ignore
  const zip = zipSync({
    'photos/ada.png': picture(0.3),
    'photos/bo.PNG': picture(0.7),
    'photos/notes.txt': text('no picture'),
    'photos/broken.jpg': text('no picture either'),
    '__MACOSX/photos/._ada.png': text('nothing'),
  });
  expect(await add(source, 'photos.zip', zip)).toEqual({
    pictures: 2,
    taken: 2,
    refused: ['photos/notes.txt: only PNG and JPEG are taken', 'photos/broken.jpg: it is not a PNG or JPEG that can be read'],
    refusedCount: 2,
  });
  expect(await mailbag.client.get(`/api/sources/${source}`)).toMatchObject({ pictures: 2 });
  const names = (from: number): Promise<object> => mailbag.client.get(`/api/sources/${source}/picture-names?from=${from}&count=1`);
  expect([await names(0), await names(1), await names(2)]).toEqual(
    [['ada.png'], ['bo.png'], []].map((found) => ({ total: 2, names: found })),
  );
  expect(await shares(mailing)).toEqual({ Ada: 0.3, Bo: 0.7, Cy: 0 });
  expect(Buffer.from(await mailbag.client.bytes(`/api/sources/${source}/pictures?name=Ada`))).toEqual(Buffer.from(picture(0.3)));
});

test('a record whose picture is not there is a stop, until it is', async () => {
  const { mailing, source } = await pictured([['B-1', 'Ada', '', 'ada.png'], ['B-2', 'Bo', '', 'bo.png']]); // prettier-ignore
  await stopped(mailing, 'picture-missing', 2);
  await add(source, 'ada.png', picture(0.3));
  await mailbag.client.get(`/api/mailings/${mailing}/checks`);
  expect((await stopped(mailing, 'picture-missing', 1)).items).toMatchObject([{ finding: { value: 'bo.png', severity: 'stop' } }]);
  expect(await mailbag.client.send('POST', `/api/mailings/${mailing}/start`, { who: 'new' })).toMatchObject({ records: 1 });
  await add(source, 'bo.png', picture(0.5));
  await mailbag.client.until<{ current: boolean; groups: object[] }>(
    `/api/mailings/${mailing}/checks`,
    ({ current, groups }) => current && !JSON.stringify(groups).includes('picture-missing'),
  );
  expect(await shares(mailing)).toEqual({ Ada: 0.3, Bo: 0.5 });
});

test('copies that a password opens have theirs too, and a batch keeps the pictures that it began with', async () => {
  const { mailing, source } = await pictured([['C-1', 'Ada', '', 'ada.png']], { openPassword: 'open sesame' });
  await add(source, 'ada.png', picture(0.3));
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await add(source, 'ada.png', picture(0.9));
  const batch = await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'paused' || state === 'done');
  expect(batch).toMatchObject({ state: 'done', error: null });
  const [copy] = await copiesOf(mailbag.client, id);
  const drawn = await pictureOf(await mailbag.client.bytes(`/api/copies/${copy!.id}/pdf`), 0, 2, 'open sesame');
  expect(inkIn(drawn, [40, 40, 160, 80]) / (240 * 80)).toBeCloseTo(0.3, 1);
  await mailbag.client.send('DELETE', `/api/sources/${source}/pictures`);
  await mailbag.client.get(`/api/mailings/${mailing}/checks`);
  await stopped(mailing, 'picture-missing', 1);
});

test('pictures go with their records, but for those that another source has too', async () => {
  const places = (): string[] => readdirSync(join(mailbag.data, 'attachments'));
  const source = async (plot: string): Promise<number> => {
    const { mailing, source: id } = await pictured([[plot, 'Ada', '', 'ada.png']]);
    await mailbag.client.send('DELETE', `/api/mailings/${mailing}`);
    return id;
  };
  const [own, other] = [await source('E-1'), await source('E-2')];
  await add(own, 'both.zip', zipSync({ 'ada.png': picture(0.11), 'bo.png': picture(0.12) }));
  await add(other, 'ada.png', picture(0.11));
  const digest = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
  expect(places()).toEqual(expect.arrayContaining([digest(picture(0.11)), digest(picture(0.12))]));
  await mailbag.client.send('DELETE', `/api/sources/${own}`);
  // What can be put back keeps its pictures.
  expect(places()).toContain(digest(picture(0.12)));
  await mailbag.client.send('DELETE', `/api/wastebasket/source/${own}`);
  expect(places()).toContain(digest(picture(0.11)));
  expect(places()).not.toContain(digest(picture(0.12)));
  expect(Buffer.from(await mailbag.client.bytes(`/api/sources/${other}/pictures?name=ada`))).toEqual(Buffer.from(picture(0.11)));
});

test('what holds no picture is refused with a sentence, and nothing changes', async () => {
  const { source } = await pictured([['D-1', 'Ada', '', '']]);
  await expect(add(source, 'sheet.png', text('no picture'))).rejects.toThrow('pictures-none');
  await expect(add(source, 'empty.zip', zipSync({}))).rejects.toThrow('pictures-none');
  await expect(mailbag.client.bytes(`/api/sources/${source}/pictures?name=ada`)).rejects.toThrow('404');
  expect(await mailbag.client.get(`/api/sources/${source}`)).toMatchObject({ pictures: 0 });
});
