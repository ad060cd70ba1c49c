import { readByOther } from '../../../../testing/other-reader.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { SmallIntake } from '../../../../testing/small-intake.js';
import { smallIntake, stranger } from '../../../../testing/small-intake.js';

/** What the office does with single answers: finds them, looks at their copies, has one mended, deletes one. */
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '1000' });
let intake: SmallIntake;
let edition: number;
let idOf: (words: string) => string;
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  ({ intake, edition, idOf } = await smallIntake(mailbag.client));
  for (const [index, name] of ['Fine Quist', 'Ole Brandt', 'Ada Wren'].entries()) await send(`0123456789abcdef${index}`, name);
  await made(3);
});
afterAll(() => mailbag.close());

interface Line {
  id: number;
  number: string;
  copies: number;
  mendedBy: string | null;
  values: Record<string, string>;
}

const send = (key: string, name: string): Promise<Response> =>
  stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/submissions`, {
    edition,
    key,
    language: 'en',
    answers: {
      [idOf('Plot number')]: 'B-17',
      [idOf('Name of the tenant')]: name,
      [idOf('E-mail address')]: 'somebody@example.org',
    },
  });
const lines = async (query = ''): Promise<Line[]> =>
  (await mailbag.client.get<{ lines: Line[] }>(`/api/intakes/${intake.id}/submissions?from=0&count=50${query}`)).lines;
const named = async (name: string): Promise<Line> => (await lines(`&text=${encodeURIComponent(name)}`))[0]!;
/** Waits until so many answers have copies. */
const made = (count: number): Promise<unknown> =>
  mailbag.client.until<{ lines: Line[] }>(
    `/api/intakes/${intake.id}/submissions?from=0&count=50`,
    (told) => told.lines.filter(({ copies }) => copies > 0).length === count,
  );
const records = async (): Promise<string[]> => {
  const { columns } = await mailbag.client.get<{ columns: { name: string }[] }>(`/api/sources/${intake.sourceId}`);
  const at = columns.findIndex(({ name }) => name === 'Name of the tenant');
  const { records: rows } = await mailbag.client.get<{ records: { cells: { text: string }[] }[] }>(
    `/api/sources/${intake.sourceId}/records?from=0&count=50`,
  );
  return rows.map(({ cells }) => cells[at]!.text);
};

test.each([
  ['a part of an answer, in any case', '&text=QUIST', ['Fine Quist']],
  ['nothing that stands anywhere', '&text=Nobody', []],
  ['a sign that means something to the database', "&text=%25'", []],
  ['those that have no copies', '&only=without-copies', []],
  ['those that correct records', '&only=corrects', []],
  ['a kind that there is not', '&only=everything', ['Ada Wren', 'Ole Brandt', 'Fine Quist']],
])('answers are found by %s', async (_, query, names) => {
  expect((await lines(query)).map(({ values }) => values['Name of the tenant'])).toEqual(names);
});

test('the copies of an answer stand beside it', async () => {
  const { id } = await named('Brandt');
  const copies = await mailbag.client.get<{ id: number; template: string; pages: number }[]>(
    `/api/intakes/${intake.id}/submissions/${id}/copies`,
  );
  expect(copies).toEqual([{ id: expect.any(Number) as number, template: 'permit', pages: 1 }]);
  const [page] = await readByOther(await mailbag.client.bytes(`/api/copies/${copies[0]!.id}/pdf`));
  expect(page!.text).toContain('Ole Brandt');
});

test('an answer that is asked back is mended by its visitor, and comes in the place of the earlier one', async () => {
  const { id } = await named('Quist');
  const { link, days } = await mailbag.client.send<{ link: string; days: number }>(
    'POST',
    `/api/intakes/${intake.id}/submissions/${id}/ask-back`,
  );
  expect(days).toBe(14);
  const stored = (await (
    await stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/visits/saved`, { token: link.split('#')[1] })
  ).json()) as { key: string; answers: Record<string, string> };
  expect(stored.answers[idOf('Name of the tenant')]).toBe('Fine Quist');
  await send(stored.key, 'Fine Quist-Lund');
  await made(4);
  const later = await named('Quist-Lund');
  expect((await lines()).find((one) => one.id === id)?.mendedBy).toBe(later.number);
  expect((await records()).sort()).toEqual(['Ada Wren', 'Fine Quist-Lund', 'Ole Brandt']);
});

test('a key of the visitor’s own making comes in nobody’s place', async () => {
  const { id } = await named('Brandt');
  await send(`mend-${id}-abcdefghijkl-${'A'.repeat(22)}`, 'Mallory Fenn');
  await made(5);
  expect((await lines()).find((one) => one.id === id)?.mendedBy).toBeNull();
  expect(await records()).toContain('Ole Brandt');
});

test('an answer is deleted for good, with its record; its copies stay', async () => {
  const { id, number } = await named('Wren');
  await mailbag.client.send('DELETE', `/api/intakes/${intake.id}/submissions/${id}`);
  expect(await lines('&text=Wren')).toEqual([]);
  expect(await records()).not.toContain('Ada Wren');
  const { rows } = await mailbag.client.get<{ rows: object[] }>(`/api/copies?text=${encodeURIComponent(number)}&count=10`);
  expect(rows).toHaveLength(1);
  await expect(mailbag.client.send('DELETE', `/api/intakes/${intake.id}/submissions/${id}`)).rejects.toThrow('not-found');
});

test('an answer came in when the clocks of the office said so', async () => {
  const zone = (timeZone: string): Promise<unknown> =>
    mailbag.client.send('PUT', '/api/settings/office', { returnLine: '', country: 'DE', timeZone });
  await zone('Pacific/Kiritimati');
  await send('0123456789abcdefz', 'Late Caller');
  const { receivedAt } = (await named('Late Caller')) as Line & { receivedAt: string };
  const there = new Intl.DateTimeFormat('sv-SE', { timeZone: 'Pacific/Kiritimati', dateStyle: 'short', timeStyle: 'short' });
  const { columns } = await mailbag.client.get<{ columns: { name: string }[] }>(`/api/sources/${intake.sourceId}`);
  const cellAt = (row: { cells: { text: string }[] }, name: string): string =>
    row.cells[columns.findIndex((one) => one.name === name)]!.text;
  const { records: rows } = await mailbag.client.until<{ records: { cells: { text: string }[] }[] }>(
    `/api/sources/${intake.sourceId}/records?from=0&count=50`,
    (told) => told.records.some((row) => cellAt(row, 'Name of the tenant') === 'Late Caller'),
  );
  const row = rows.find((one) => cellAt(one, 'Name of the tenant') === 'Late Caller')!;
  expect(cellAt(row, 'Received')).toBe(there.format(new Date(receivedAt)));
  await zone('UTC');
});
