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
