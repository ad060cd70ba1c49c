import { encode as encodePng } from 'fast-png';
import { startBatch } from '../../../../demo/src/start-batch.js';
import { formOf } from '../../../../testing/raw-form.js';
import { codesOn } from '../../../../testing/codes-on.js';
import { inkIn, pictureOf } from '../../../../testing/picture.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

/** A form with a box for a name and one for a signature. */
const slip = formOf(['/FT/Tx/T(name)/Rect[40 150 240 170]/DA(/Helv 10 Tf 0 g)', '/FT/Sig/T(office)/Rect[40 40 160 80]']);
const black = encodePng({ width: 20, height: 20, channels: 3, depth: 8, data: new Uint8Array(1200) });

test('copies carry their code as a symbol and the picture of the office, in the file and in the combined one', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['A-1', 'Ada', '', 'yes'], ['A-2', 'Bea', '', 'no']], { mailed: false }); // prettier-ignore
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'slip.pdf', slip);
  const file = await client.upload<{ fileId: string; size: number }>('/api/mailings/pictures', 'office.png', black);
  expect(Buffer.from(await client.bytes(`/api/mailings/pictures/${file.fileId}`))).toEqual(Buffer.from(black));
  const { version, plan } = await client.get<{ version: number; plan: Record<string, object> }>(`/api/mailings/${mailing}`);
  const stamp = { symbology: 'datamatrix', pages: 'all', corner: 'top-right', fromSide: 6, fromEnd: 6, width: 20, inPrint: true };
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      ...plan,
      packet: [template.id],
      maps: { [template.id]: { name: { kind: 'column', column: 'Name' } } },
      output: { ...plan['output'], combined: 'batch', stamp, pictures: [{ template: template.id, field: 'office', file }] },
    },
  });
  const { id } = await startBatch<Batch>(client, mailing);
  const batch = await client.until<Batch & { combined: string[] }>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const combined = await client.bytes(`/api/batches/${id}/combined/${encodeURIComponent(batch.combined[0]!)}`);
  const copies = (await copiesOf(client, id)).sort((a, b) => a.id - b.id);
  expect(copies).toHaveLength(2);
  for (const [page, copy] of copies.entries()) {
    const bytes = await client.bytes(`/api/copies/${copy.id}/pdf`);
    expect((await codesOn(bytes)).map(({ text }) => text)).toEqual([copy.code]);
    // A square of 40 points in the middle of its box.
    expect(inkIn(await pictureOf(bytes), [80, 40, 120, 80])).toBeGreaterThan(80 * 80 * 0.9);
    expect((await codesOn(combined, page)).map(({ text }) => text)).toEqual([copy.code]);
  }
});

test('what is no picture is refused when it is chosen, and a stamp that is none when it is saved', async () => {
  const { client } = mailbag;
  await expect(client.upload('/api/mailings/pictures', 'office.png', new TextEncoder().encode('no picture'))).rejects.toThrow(
    'image-unreadable',
  );
  const { mailing } = await smallMailing(client, [['B-1', 'Ada', '', 'yes']], { mailed: false });
  const { version, plan } = await client.get<{ version: number; plan: Record<string, object> }>(`/api/mailings/${mailing}`);
  const stamp = { symbology: 'runes', pages: 'all', corner: 'top-right', fromSide: 6, fromEnd: 6, width: 20, inPrint: true };
  const save = client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, output: { ...plan['output'], stamp } } });
  await expect(save).rejects.toThrow('request-wrong');
});
