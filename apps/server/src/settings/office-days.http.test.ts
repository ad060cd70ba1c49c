import { startBatch } from '../../../../demo/src/start-batch.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
let office: PostOffice;
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

const dayAfter = (day: string): string => new Date(Date.parse(day) + 86_400_000).toISOString().slice(0, 10);
const over = async (span: string): Promise<{ from: string; to: string; sent: number }[]> =>
  (await mailbag.client.get<{ parts: { from: string; to: string; sent: number }[] }>(`/api/desk/course?span=${span}`)).parts;

test('a day is that of the office: on the Desk, in the ledger, in the date that a message carries, and frozen when the batch begins', async () => {
  const { client } = mailbag;
  // Fourteen hours before UTC, by the IANA time zone database, so that a day ends there when it is 10 in the morning in UTC.
  const zone = (timeZone: string): Promise<unknown> =>
    client.send('PUT', '/api/settings/office', { returnLine: '', country: 'DE', timeZone });
  await expect(zone('Larkmere/Town')).rejects.toThrow('There is no such time zone');
  await zone('Pacific/Kiritimati');
  const { mailing } = await smallMailing(client, [['P-1', 'Ann', 'ann@example.org', 'no']]);
  const { version, plan } = await client.get<{ version: number; plan: { message: object } }>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: { ...plan, message: { ...plan.message, subject: 'On {{ today }}' } },
  });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state, counts }) => state === 'done' && counts.sent === 1);
  const there = new Intl.DateTimeFormat('sv-SE', { timeZone: 'Pacific/Kiritimati' });
  const today = there.format(new Date());
  const [letter] = await office.letters();
  expect(letter!.subject).toBe(`On ${today}`);
  // A copy that changed at 09:59 in UTC changed before midnight there, one at 10:01 after it.
  const [copy] = await copiesOf(client, id);
  const yesterday = new Date(Date.now() - 3 * 86_400_000).toISOString().slice(0, 10);
  const on = async (day: string): Promise<number> =>
    (await client.get<{ rows: unknown[] }>(`/api/copies?from=${day}&to=${day}`)).rows.length;
  const next = new Date(Date.parse(yesterday) + 86_400_000).toISOString().slice(0, 10);
  for (const [time, days] of [
    ['09:59', [1, 0]],
    ['10:01', [0, 1]],
  ] as const) {
    mailbag.change('UPDATE copy SET since = ? WHERE id = ?', [`${yesterday}T${time}:00.000Z`, copy!.id]);
    mailbag.change("UPDATE copy_event SET at = ? WHERE copyId = ? AND event = 'accept'", [`${yesterday}T${time}:00.000Z`, copy!.id]);
    expect([await on(yesterday), await on(next)]).toEqual(days);
    // Days that are over are counted once for each zone.
    await zone('Asia/Kathmandu');
    await over('days');
    await zone('Pacific/Kiritimati');
    const shown = await over('days');
    expect(shown).toHaveLength(21);
    expect([yesterday, next].map((day) => shown.find(({ from }) => from === day)?.sent)).toEqual(days);
    expect(shown.at(-1)!.from).toBe(today);
  }
  // Weeks begin on Monday (ISO 8601); a year ends with the month that is not over. Each counts what its days count.
  const [weeks, year] = [await over('weeks'), await over('year')];
  expect([weeks.length, year.length]).toEqual([16, 12]);
  for (const { from, to } of weeks) expect([from, to].map((day) => new Date(`${day}T12:00:00Z`).getUTCDay())).toEqual([1, 0]);
  expect(year.at(-1)!.from).toBe(`${today.slice(0, 7)}-01`);
  for (const parts of [weeks, year]) {
    expect(parts.filter(({ from, to }) => from <= next && next <= to).map(({ sent }) => sent)).toEqual([1]);
    expect(parts.reduce((sum, { sent }) => sum + sent, 0)).toBe(1);
    expect(parts.slice(1).map(({ from }) => from)).toEqual(parts.slice(0, -1).map(({ to }) => dayAfter(to)));
  }
  await expect(over('decade')).rejects.toThrow();
});

test('a message that is shown again is proved to be the one that went out, or said not to be', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['P-2', 'Bert', 'bert@example.org', 'no']], { folder: 'proved' });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state, counts }) => state === 'done' && counts.sent === 1);
  const [copy] = await copiesOf(client, id);
  const isAsSent = async (): Promise<boolean | null> =>
    (await client.get<{ isAsSent: boolean | null }>(`/api/copies/${copy!.id}/message`)).isAsSent;
  expect(await isAsSent()).toBe(true);
  mailbag.change("UPDATE batch_record SET cells = replace(cells, 'Bert', 'Bart') WHERE batchId = ?", [id]);
  expect(await isAsSent()).toBe(false);
});
