import { ServerClient } from '../../../../demo/src/server-client.js';
import { startBatch } from '../../../../demo/src/start-batch.js';
import { paperForm } from '../../../../e2e/membership-form.js';
import { codesOn } from '../../../../testing/codes-on.js';
import { readByOther } from '../../../../testing/other-reader.js';
import { RunningMailbag, person } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { typedByPdfium } from '../../../../testing/typed-by-pdfium.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

type Rect = [number, number, number, number];
interface Drawn {
  name: string;
  rect: Rect;
  label: string | null;
}
interface Layout {
  version: number;
  isDraft: boolean;
  baseId: number;
  latest: number;
  isOvertaken: boolean;
  layout: { fields: Record<string, Drawn>; order: string[]; stamps: Record<string, object> };
}
interface Changed {
  version: number;
  layout: Layout['layout'];
  clashes: { place: string[] }[];
}

/** A template of a file that has no fields. */
async function flatTemplate(name: string): Promise<number> {
  const { template } = await mailbag.client.upload<{ template: { id: number; fields: number } }>(
    '/api/templates?blanks=draw',
    `${name}.pdf`,
    await named(name),
  );
  expect(template.fields).toBe(0);
  return template.id;
}
/** The paper form, different by its title: the same file would be the same template. */
async function named(name: string): Promise<Uint8Array> {
  const { PDFDocument } = await import('@cantoo/pdf-lib');
  const doc = await PDFDocument.load(await paperForm());
  doc.setTitle(name);
  return doc.save();
}
const layoutOf = (id: number): Promise<Layout> => mailbag.client.get(`/api/templates/${id}/layout`);
const change = (id: number, changes: object[]): Promise<Changed> =>
  mailbag.client.send('POST', `/api/templates/${id}/layout/changes`, { changes });
const drawn = (name: string, rect: Rect, more: object = {}): object => ({ name, kind: 'text', page: 1, rect, label: null, ...more });
const draw = (id: number, key: string, field: object): Promise<Changed> =>
  change(id, [
    { kind: 'set', place: ['fields', key], is: field },
    { kind: 'insert', place: ['order'], value: key, after: null },
  ]);

test('a form without fields: its blanks are taken, it is in use, and copies of it are filled, flattened and open', async () => {
  const { client } = mailbag;
  const template = await flatTemplate('story');
  const { baseId } = await layoutOf(template);
  const aids = await client.get<{ blanks: Drawn[]; pages: { lines: number[][]; isScan: boolean }[] }>(
    `/api/templates/${template}/layout/aids?revision=${baseId}`,
  );
  expect(aids.blanks.map(({ label }) => label)).toEqual(['Name', 'Telephone', 'I pay by debit', 'Signature']);
  expect(aids.pages[0]).toMatchObject({ isScan: false });
  await change(template, [
    ...aids.blanks.map((blank, index) => ({ kind: 'set', place: ['fields', `k${index}`], is: blank })),
    { kind: 'set', place: ['order'], was: [], is: ['k0', 'k2', 'k1', 'k3'] },
    {
      kind: 'set',
      place: ['stamps', 's1'],
      is: { kind: 'line', text: 'Copy {{ number }} of {{ count }}', page: 1, x: 60, y: 40, width: 200, size: 10, align: 'left' },
    },
    {
      kind: 'set',
      place: ['stamps', 's2'],
      is: { kind: 'code', symbology: 'qr', page: 1, x: 480, y: 740, width: 62, height: 62, inPrint: false },
    },
  ]);
  const { version } = await layoutOf(template);
  const used = await client.send<{ id: number; number: number; fields: number }>('POST', `/api/templates/${template}/layout/use`, {
    version,
  });
  expect(used).toMatchObject({ number: 2, fields: 4 });
  expect(await layoutOf(template)).toMatchObject({ isDraft: false, latest: 2, isOvertaken: false, baseId });

  // The fillable PDF for other uses: another reader finds the fields in tab order with their words, and another library fills one.
  const fillable = await client.bytes(`/api/templates/${template}/pdf`);
  const [page] = await readByOther(fillable);
  expect(page!.fields).toEqual(['name', 'i_pay_by_debit', 'telephone', 'signature']);
  expect(page!.tooltips).toEqual(['Name', 'I pay by debit', 'Telephone', 'Signature']);
  expect((await typedByPdfium(fillable, aids.blanks[0]!.rect, 'Ayumi Brandt')).map(({ text }) => text)).toEqual(['Ayumi Brandt']);

  for (const finish of ['flattened', 'open']) {
    const { mailing } = await smallMailing(client, [['A-1', 'Ada Quist', '', 'yes'], ['A-2', 'Bea', '', 'no']], { mailed: false, folder: `Story ${finish}`, finish }); // prettier-ignore
    const { version: saved, plan } = await client.get<{ version: number; plan: Record<string, object> }>(`/api/mailings/${mailing}`);
    const maps = { [template]: { name: { kind: 'column', column: 'Name' }, i_pay_by_debit: { kind: 'text', text: 'Yes' } } };
    await client.send('PUT', `/api/mailings/${mailing}`, { version: saved, plan: { ...plan, packet: [template], maps } });
    const { id } = await startBatch<Batch>(client, mailing);
    await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
    const copies = (await copiesOf(client, id)).sort((a, b) => a.id - b.id);
    for (const [index, copy] of copies.entries()) {
      const bytes = await client.bytes(`/api/copies/${copy.id}/pdf`);
      const [read] = await readByOther(bytes);
      expect(read!.text).toContain(`Copy ${index + 1} of 2`);
      expect((await codesOn(bytes)).map(({ text }) => text)).toEqual([copy.code]);
      expect(read!.fields).toEqual(finish === 'open' ? ['name', 'i_pay_by_debit', 'telephone', 'signature'] : []);
      if (finish === 'flattened') expect(read!.text).toContain(index === 0 ? 'Ada Quist' : 'Bea');
    }
  }
});

test('two people draw on one template: both keep what they did, the same thing changed twice is told, and what was not seen is not taken into use', async () => {
  const { client } = mailbag;
  const template = await flatTemplate('two people');
  const first = await draw(template, 'a', drawn('plot', [60, 500, 160, 516]));
  await draw(template, 'b', drawn('tenant', [60, 460, 160, 476]));
  const moved = (left: number): object[] => [
    { kind: 'set', place: ['fields', 'a', 'rect'], was: [60, 500, 160, 516], is: [left, 500, left + 100, 516] },
  ];
  expect((await change(template, moved(80))).clashes).toEqual([]);
  const late = await change(template, moved(90));
  expect(late.clashes.map(({ place }) => place)).toEqual([['fields', 'a', 'rect']]);
  expect(late.layout.fields['a']!.rect).toEqual([80, 500, 180, 516]);
  expect(Object.keys(late.layout.fields)).toEqual(['a', 'b']);

  const use = (version: number) => client.send<{ number: number }>('POST', `/api/templates/${template}/layout/use`, { version });
  await expect(use(first.version)).rejects.toThrow('layout-changed-elsewhere');
  expect(Object.keys((await layoutOf(template)).layout.fields)).toEqual(['a', 'b']);
  expect(await use(late.version)).toMatchObject({ number: 2 });
  // What was drawn is changed later: again a new revision, and the one before is as it was.
  const again = await change(template, [{ kind: 'set', place: ['fields', 'a', 'name'], was: 'plot', is: 'parcel' }]);
  expect(await use(again.version)).toMatchObject({ number: 3 });
  const names = async (number: number): Promise<string[]> => {
    const revision = (await client.get<{ id: number; number: number }[]>(`/api/templates/${template}/revisions`)).find(
      (one) => one.number === number,
    )!;
    const { fieldList } = await client.get<{ fieldList: { name: string }[] }>(`/api/templates/${template}?revision=${revision.id}`);
    return fieldList.map(({ name }) => name).sort();
  };
  expect([await names(1), await names(2), await names(3)]).toEqual([[], ['plot', 'tenant'], ['parcel', 'tenant']]);
});

test('what is drawn can be discarded; a new edition that comes in meanwhile is said; what cannot become a field is refused and kept as it was drawn', async () => {
  const { client } = mailbag;
  const template = await flatTemplate('refusals');
  await draw(template, 'a', drawn('plot', [60, 500, 160, 516]));
  await expect(draw(template, 'x', drawn('', [0, 0, 9, 9]))).rejects.toThrow('layout-no-name');
  const off = await draw(template, 'b', drawn('far', [900, 900, 950, 950]));
  const use = (version: number) => client.send<{ number: number }>('POST', `/api/templates/${template}/layout/use`, { version });
  await expect(use(off.version)).rejects.toThrow('layout-off-page');
  const twice = await change(template, [
    { kind: 'set', place: ['fields', 'b'], was: off.layout.fields['b'], is: drawn('plot', [60, 300, 90, 320]) },
  ]);
  await expect(use(twice.version)).rejects.toThrow('layout-name-taken');
  expect(Object.keys((await layoutOf(template)).layout.fields)).toEqual(['a', 'b']);

  const { revision } = await client.upload<{ revision: { number: number } }>(
    `/api/templates/${template}/revisions`,
    'permit.pdf',
    (await import('../../../../demo/src/forms/shed-permit.js')).shedPermit(),
  );
  expect(revision.number).toBe(2);
  expect(await layoutOf(template)).toMatchObject({ isDraft: true, isOvertaken: true, latest: 2 });
  const left = await client.send<Layout>('DELETE', `/api/templates/${template}/layout`);
  expect(left).toMatchObject({ isDraft: false, isOvertaken: false, layout: { fields: {}, order: [], stamps: {} } });
  await expect(use(left.version)).rejects.toThrow('layout-empty');
  // A template goes with what is drawn on it.
  await draw(template, 'c', drawn('more', [60, 200, 90, 220]));
  await client.send('DELETE', `/api/templates/${template}`);
  await expect(layoutOf(template)).rejects.toThrow('in-wastebasket');
});

test('who only looks draws nothing', async () => {
  const template = await flatTemplate('looking');
  const { address } = await mailbag.client.send<{ address: string }>('POST', '/api/people/invitations', {
    name: 'Ona',
    email: 'ona@larkmere.example',
    role: 'viewer',
    seesValues: true,
    seesPasswords: false,
  });
  const viewer = new ServerClient(mailbag.address);
  await viewer.send('POST', '/api/people/invitation', { token: new URL(address).searchParams.get('token'), password: person.password });
  expect(await viewer.get<Layout>(`/api/templates/${template}/layout`)).toMatchObject({ version: 0 });
  await expect(viewer.send('POST', `/api/templates/${template}/layout/changes`, { changes: [] })).rejects.toThrow('403');
});

test('a form whose blanks are all taken at once keeps the form as it came as its first revision; one without any leaves nothing behind', async () => {
  const { client } = mailbag;
  const { template } = await client.upload<{ template: { id: number; fields: number; revision: number } }>(
    '/api/templates?blanks=take',
    'sound.pdf',
    await named('sound'),
  );
  expect(template).toMatchObject({ fields: 4, revision: 2 });
  expect(Object.values((await layoutOf(template.id)).layout.fields).map(({ label }) => label)).toEqual([
    'Name',
    'Telephone',
    'I pay by debit',
    'Signature',
  ]);
  const { PDFDocument } = await import('@cantoo/pdf-lib');
  const empty = await PDFDocument.create();
  empty.addPage();
  const before = await client.get<unknown[]>('/api/templates');
  await expect(client.upload('/api/templates?blanks=take', 'empty.pdf', await empty.save())).rejects.toThrow('pdf-no-blanks');
  expect(await client.get<unknown[]>('/api/templates')).toEqual(before);
});
