import { shedPermit } from '../../../../demo/src/forms/shed-permit.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

test('a fillable PDF comes in with all its fields, and the same file again is recognised', async () => {
  const first = await mailbag.client.upload<{ template: { id: number; name: string; fields: number }; known: boolean }>(
    '/api/templates',
    'Zulassung für Schuppen.pdf',
    shedPermit(),
  );
  expect(first).toMatchObject({ known: false, template: { name: 'Zulassung für Schuppen', fields: 9 } });
  const again = await mailbag.client.upload<typeof first>('/api/templates', 'copy.pdf', shedPermit());
  expect(again).toMatchObject({ known: true, template: { id: first.template.id } });
});

test.each([
  ['a text file', new TextEncoder().encode('Dear Sir or Madam'), 'is not a PDF'],
  ['a damaged file', new TextEncoder().encode('%PDF-1.4 and then nothing'), 'is damaged'],
  ['an empty file', new Uint8Array(0), 'is not a PDF'],
])('%s is refused in a sentence that names it, and leaves nothing behind', async (_, bytes, sentence) => {
  const before = await mailbag.client.get<unknown[]>('/api/templates');
  await expect(mailbag.client.upload('/api/templates', 'form.pdf', bytes)).rejects.toThrow(`form.pdf ${sentence}`);
  expect(await mailbag.client.get<unknown[]>('/api/templates')).toEqual(before);
});

/** A new edition of the permit: one field has another name. */
async function newEdition(): Promise<Uint8Array> {
  const { PDFDocument, PDFName, PDFString } = await import('@cantoo/pdf-lib');
  const doc = await PDFDocument.load(shedPermit());
  const form = doc.getForm();
  const [first] = form.getFields();
  first!.acroField.dict.set(PDFName.of('T'), PDFString.of('parcel'));
  return doc.save({ updateFieldAppearances: false });
}

interface Revision {
  id: number;
  number: number;
  usedBy: { id: number; name: string }[];
}
test('a new edition is the next revision; a mailing keeps its own until it is taken over, keeps its map then, and can be taken back', async () => {
  const { client } = mailbag;
  const { template } = await client.upload<{ template: { id: number; revisionId: number } }>('/api/templates', 'permit.pdf', shedPermit());
  const { fieldList } = await client.get<{ fieldList: { name: string }[] }>(`/api/templates/${template.id}`);
  const [plot, second] = fieldList.map(({ name }) => name) as [string, string];
  const mailing = await client.send<{ id: number }>('POST', '/api/mailings', { name: 'Permits' });
  const rule = { kind: 'text', text: 'A-1' };
  const detail = await client.get<{ version: number; plan: Record<string, unknown> }>(`/api/mailings/${mailing.id}`);
  await client.send('PUT', `/api/mailings/${mailing.id}`, {
    version: detail.version,
    plan: { ...detail.plan, packet: [template.id], maps: { [template.id]: { [plot]: rule, [second]: rule } } },
  });

  const uploaded = await client.upload<{ revision: Revision; known: boolean }>(
    `/api/templates/${template.id}/revisions`,
    'permit-2028.pdf',
    await newEdition(),
  );
  expect(uploaded).toMatchObject({ known: false, revision: { number: 2, usedBy: [] } });
  const again = await client.upload<{ known: boolean }>(`/api/templates/${template.id}/revisions`, 'again.pdf', shedPermit());
  expect(again.known).toBe(true);
  const revisions = await client.get<Revision[]>(`/api/templates/${template.id}/revisions`);
  const old = revisions.find(({ number }) => number === 1)!;
  expect(old.usedBy).toEqual([{ id: mailing.id, name: 'Permits' }]);

  const { comparison } = await client.get<{ comparison: { pairs: { old: string; new: string }[]; gone: string[]; added: string[] } }>(
    `/api/templates/${template.id}/revisions/${old.id}/compared-with/${uploaded.revision.id}`,
  );
  expect(comparison).toMatchObject({ gone: [], added: [] });
  const renamed = comparison.pairs.find((pair) => pair.old === plot)!;
  expect(renamed.new).not.toBe(plot);

  // What has no field in the new edition stays behind and is named.
  const pairs = comparison.pairs.filter((pair) => pair.old !== second);
  const answer = await client.send<{ carried: number; lost: string[]; before: object }>('POST', `/api/mailings/${mailing.id}/revision`, {
    templateId: template.id,
    revisionId: uploaded.revision.id,
    pairs: pairs.map((pair) => ({ old: pair.old, new: pair.new })),
  });
  expect(answer).toMatchObject({ carried: 1, lost: [expect.any(String)] });
  interface Now {
    plan: { maps: Record<number, Record<string, unknown>> };
    templates: { revision: number }[];
  }
  const over = await client.get<Now>(`/api/mailings/${mailing.id}`);
  expect([over.plan.maps[template.id], over.templates[0]!.revision]).toEqual([{ [renamed.new]: rule }, 2]);

  await client.send('POST', `/api/mailings/${mailing.id}/revision`, { templateId: template.id, ...answer.before });
  const back = await client.get<Now>(`/api/mailings/${mailing.id}`);
  expect([back.plan.maps[template.id], back.templates[0]!.revision]).toEqual([{ [plot]: rule, [second]: rule }, 1]);
});

test('which fields are one answer is kept with the revision: joined by hand, taken apart, and refused where they cannot be one', async () => {
  const { client } = mailbag;
  const { formOf } = await import('../../../../testing/raw-form.js');
  const text = (name: string, x: number): string => `/FT/Tx/T(${name})/MaxLen 3/Rect[${x} 150 ${x + 40} 170]/DA(/Helv 10 Tf 0 g)`;
  const form = formOf([text('alpha', 40), text('beta', 240), text('gamma', 440)]);
  const { template } = await client.upload<{ template: { id: number; revisionId: number } }>('/api/templates', 'answers.pdf', form);
  interface Told {
    answers: { reason: string; parts: { field: string; piece: object | null }[] }[];
  }
  const told = async (): Promise<string[]> =>
    (await client.get<Told>(`/api/templates/${template.id}`)).answers.map(({ parts }) => parts.map(({ field }) => field).join('+'));
  expect(await told()).toEqual(['alpha', 'beta', 'gamma']);
  const change = (fields: string[], as: string | null): Promise<Told> =>
    client.send('POST', `/api/templates/${template.id}/answers`, { revisionId: template.revisionId, fields, as });
  const joined = await change(['alpha', 'gamma'], 'characters');
  expect(joined.answers[0]!.parts.map(({ piece }) => piece)).toEqual([
    { what: 'characters', from: 1, to: 3 },
    { what: 'characters', from: 4, to: 6 },
  ]);
  expect(await told()).toEqual(['alpha+gamma', 'beta']);
  await expect(change(['alpha', 'beta'], 'one-of')).rejects.toThrow('answers-join');
  await change(['gamma'], null);
  expect(await told()).toEqual(['alpha', 'gamma', 'beta']);
  // Of a revision from before answers were told they are read when they are first asked for.
  mailbag.change('UPDATE template_revision SET answers = NULL');
  expect(await told()).toEqual(['alpha', 'beta', 'gamma']);
});

test('an earlier revision is gone back to as the latest, and those in between stay; a template that is put away says so', async () => {
  const { client } = mailbag;
  const all = await client.get<{ id: number; name: string; revision: number; isArchived: boolean }[]>('/api/templates');
  const permit = all.find(({ revision }) => revision === 2)!;
  const [, first] = await client.get<Revision[]>(`/api/templates/${permit.id}/revisions`);
  const made = await client.send<Revision>('POST', `/api/templates/${permit.id}/revisions/${first!.id}/latest`);
  expect(made).toMatchObject({ number: 3, usedBy: [] });
  const bytes = (revision: number): Promise<Uint8Array> => client.bytes(`/api/templates/${permit.id}/pdf?revision=${revision}`);
  expect(Buffer.from(await bytes(made.id)).equals(Buffer.from(await bytes(first!.id)))).toBe(true);
  expect((await client.get<Revision[]>(`/api/templates/${permit.id}/revisions`)).map(({ number }) => number)).toEqual([3, 2, 1]);
  await expect(client.send('POST', `/api/templates/${permit.id}/revisions/999999/latest`)).rejects.toThrow('not-found');

  const archived = async (): Promise<boolean[]> =>
    (await client.get<typeof all>('/api/templates')).filter(({ id }) => id === permit.id).map(({ isArchived }) => isArchived);
  await client.send('POST', `/api/templates/${permit.id}/archive`, { isArchived: true });
  expect(await archived()).toEqual([true]);
  await client.send('POST', `/api/templates/${permit.id}/archive`, { isArchived: false });
  expect(await archived()).toEqual([false]);
});
