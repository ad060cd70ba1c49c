import { codesOn } from '../../../../testing/codes-on.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import { stranger } from '../../../../testing/small-intake.js';
import type { Batch, CopyRow } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';

/** Personal links: in a message and on the paper, answered by the recipient, and back in the records and the ledger. */
const mailbag = new RunningMailbag({ MAILBAG_VISITOR_LIMITS: '1000' });
let office: PostOffice;
let mailing: number;
let intake: Intake;
/** Links by the name of the recipient. */
const links: Record<string, { word: string; token: string }> = {};
let copies: CopyRow[];

interface Intake {
  id: number;
  word: string;
  mailingId: number;
  plan: { questions: Record<string, { id: string; words: string; column: string; kind: string }>; personal: { mailingId: number } };
}
interface Opened {
  edition: number;
  answers: Record<string, string>;
  asks: string | null;
  isWrong: boolean;
}
interface Line {
  id: number;
  number: string;
  copyCode: string | null;
  changes: { column: string; was: string; now: string }[];
  settled: string;
}

const idOf = (column: string): string => Object.values(intake.plan.questions).find((one) => one.column === column)!.id;
const open = (token: string, check?: string): Promise<Response> =>
  stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/personal`, { token, ...(check !== undefined && { check }) });
const opened = async (token: string, check?: string): Promise<Opened> => (await open(token, check)).json() as Promise<Opened>;
let sent = 0;
const submit = (token: string, edition: number, answers: Record<string, unknown>, check?: string): Promise<Response> =>
  stranger(mailbag.address, 'POST', `/api/public/intakes/${intake.word}/submissions`, {
    edition,
    answers,
    key: `0123456789abcdef${sent++}`,
    language: 'en',
    personal: { token, ...(check !== undefined && { check }) },
  });
const lines = async (): Promise<Line[]> =>
  (await mailbag.client.get<{ lines: Line[] }>(`/api/intakes/${intake.id}/submissions?from=0&count=50`)).lines;
const stateOf = async (recipient: string): Promise<string> =>
  (await copiesOf(mailbag.client, batch)).find((one) => one.recipient === recipient)!.state;
let batch: number;
const valueOf = async (row: number, column: string): Promise<string> => {
  const { plan } = await mailbag.client.get<{ plan: { sourceId: number } }>(`/api/mailings/${mailing}`);
  const { columns } = await mailbag.client.get<{ columns: { name: string }[] }>(`/api/sources/${plan.sourceId}`);
  const { records } = await mailbag.client.get<{ records: { row: number; cells: { text: string }[] }[] }>(
    `/api/sources/${plan.sourceId}/records?from=0&count=50`,
  );
  return records.find((one) => one.row === row)!.cells[columns.findIndex(({ name }) => name === column)]!.text;
};
/** Changes the plan of the intake's personal links, and publishes them. */
async function setPersonal(next: Record<string, unknown>): Promise<void> {
  const { plan } = await mailbag.client.get<{ plan: { personal: Record<string, unknown> } }>(`/api/intakes/${intake.id}`);
  const changes = Object.entries(next).map(([name, is]) => ({ kind: 'set', place: ['personal', name], was: plan.personal[name], is }));
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/changes`, { changes });
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
}

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  ({ mailing } = await smallMailing(mailbag.client, [
    ['P-1', 'Fine Quist', 'fine.quist@example.org', 'yes'],
    ['P-2', 'Ole Brandt', 'ole.brandt@example.org', 'no'],
    ['P-3', 'Ada Wren', 'ada.wren@example.org', 'no'],
  ]));
  const made = await mailbag.client.send<Intake>('POST', '/api/intakes', {
    name: 'Check your plot',
    templates: [],
    before: { mailingId: mailing, site: mailbag.address },
  });
  intake = await mailbag.client.send<Intake>('POST', `/api/intakes/${made.id}/publish`);
  const { version, plan } = await mailbag.client.get<{
    version: number;
    plan: { message: Record<string, unknown>; output: Record<string, unknown> };
  }>(`/api/mailings/${mailing}`);
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      ...plan,
      message: { ...plan.message, body: 'Dear {{ name }},\n\nlook at what we know: {{ link }}' },
      output: {
        ...plan.output,
        stamp: { symbology: 'qr', pages: 'first', corner: 'top-right', fromSide: 8, fromEnd: 8, width: 34, inPrint: true, holds: 'link' },
      },
    },
  });
  ({ id: batch } = await startBatch<Batch>(mailbag.client, mailing));
  await mailbag.client.until<Batch>(`/api/batches/${batch}`, ({ state }) => state === 'done');
  copies = await copiesOf(mailbag.client, batch);
  for (const { id, to } of await office.letters()) {
    // Quoted-printable breaks lines with an equals sign at their end (RFC 2045, 6.7).
    const text = (await office.raw(id)).replace(/=\r?\n/g, '').replaceAll('=23', '#');
    const [, word, token] = /\/in\/([a-z-]+)#([\w.-]+)/.exec(text)!;
    links[to] = { word: word!, token: token! };
  }
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

const tokenOf = (address: string): string => Object.entries(links).find(([to]) => to.includes(address))![1].token;

test('an intake that is put before a mailing asks for its columns', () => {
  expect(Object.values(intake.plan.questions).map(({ column }) => column)).toEqual(
    expect.arrayContaining(['Plot', 'Name', 'Shed', 'Mail']),
  );
  expect(intake.plan.personal.mailingId).toBe(mailing);
});

test('each message holds a link of its own, and the code on the paper is the same, as another reader sees it', async () => {
  expect(Object.values(links).map(({ word }) => word)).toEqual([intake.word, intake.word, intake.word]);
  const tokens = Object.values(links).map(({ token }) => token);
  expect(new Set(tokens).size).toBe(3);
  for (const token of tokens) expect(token).toMatch(/^[0-9A-Z-]{11,13}\.[\w-]{22}$/);
  const copy = copies.find(({ recipient }) => recipient === 'Fine Quist')!;
  const bytes = await mailbag.client.bytes(`/api/copies/${copy.id}/pdf`);
  expect((await codesOn(bytes)).map(({ text }) => text)).toContain(`${mailbag.address}/in/${intake.word}#${tokenOf('fine.quist')}`);
});

test('it shows what the records say, and nothing of others', async () => {
  const { answers, asks } = await opened(tokenOf('fine.quist'));
  expect(asks).toBeNull();
  expect(answers).toMatchObject({
    [idOf('Plot')]: 'P-1',
    [idOf('Name')]: 'Fine Quist',
    [idOf('Mail')]: 'fine.quist@example.org',
    [idOf('Shed')]: 'yes',
  });
  expect(JSON.stringify(answers)).not.toMatch(/Brandt|Wren/);
});

test.each([
  ['a letter of the seal changed', (token: string) => `${token.slice(0, -1)}${token.endsWith('A') ? 'B' : 'A'}`],
  ['the seal of another copy', (token: string) => `${token.split('.')[0]}.${tokenOf('ole.brandt').split('.')[1]}`],
  ['a code that no copy has', (token: string) => `0000-0000-000.${token.split('.')[1]}`],
])('%s leads nowhere', async (_, change) => {
  const answer = await open(change(tokenOf('fine.quist')));
  expect(answer.status).toBe(404);
  expect(await answer.text()).not.toMatch(/Quist|Brandt/);
});

test('what is right as it stands makes the copy complete, with nothing to look at', async () => {
  const { edition, answers } = await opened(tokenOf('ada.wren'));
  expect((await submit(tokenOf('ada.wren'), edition, answers)).status).toBe(200);
  expect((await lines())[0]).toMatchObject({ changes: [], settled: 'none' });
  expect(await stateOf('Ada Wren')).toBe('complete');
});

test('what is corrected waits beside the record; taken over it is a correction of the source, and the copy is complete', async () => {
  const { edition, answers } = await opened(tokenOf('fine.quist'));
  const given = { ...answers, [idOf('Name')]: 'Fine Quist-Lund', [idOf('Shed')]: 'no' };
  const receipt = (await (await submit(tokenOf('fine.quist'), edition, given)).json()) as { number: string };
  const line = (await lines()).find(({ number }) => number === receipt.number)!;
  expect(line).toMatchObject({
    settled: 'open',
    changes: [
      { column: 'Name', was: 'Fine Quist', now: 'Fine Quist-Lund' },
      { column: 'Shed', was: 'yes', now: 'no' },
    ],
  });
  expect(await stateOf('Fine Quist')).toBe('returned');
  const { needs } = await mailbag.client.get<{ needs: { kind: string; count: number }[] }>('/api/desk');
  expect(needs).toContainEqual(expect.objectContaining({ kind: 'changes', count: 1 }));
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/submissions/${line.id}/settle`, { accepted: ['Name'] });
  expect([await valueOf(2, 'Name'), await valueOf(2, 'Shed')]).toEqual(['Fine Quist-Lund', 'yes']);
  expect(await stateOf('Fine Quist')).toBe('complete');
  // Nobody settles it twice.
  await expect(
    mailbag.client.send('POST', `/api/intakes/${intake.id}/submissions/${line.id}/settle`, { accepted: ['Shed'] }),
  ).rejects.toThrow('intake-settled');
  // The page shows what the office knows by now.
  expect((await opened(tokenOf('fine.quist'))).answers[idOf('Name')]).toBe('Fine Quist-Lund');
});

test('where Mailbag is to take changes over, nobody need look', async () => {
  await setPersonal({ accept: 'mailbag' });
  const { edition, answers } = await opened(tokenOf('ole.brandt'));
  await submit(tokenOf('ole.brandt'), edition, { ...answers, [idOf('Mail')]: 'ole@example.org' });
  await mailbag.client.until<{ lines: Line[] }>(
    `/api/intakes/${intake.id}/submissions?from=0&count=50`,
    (told) => told.lines[0]!.settled === 'accepted',
  );
  expect(await valueOf(3, 'Mail')).toBe('ole@example.org');
  expect(await stateOf('Ole Brandt')).toBe('complete');
});

test('what must be known first is asked, nothing is shown or taken before it is right, and it cannot be tried out', async () => {
  await setPersonal({ ask: 'Plot' });
  const token = tokenOf('ole.brandt');
  const before = await opened(token);
  expect(before).toMatchObject({ answers: {}, asks: 'Plot', isWrong: false });
  expect(await opened(token, 'P-1')).toMatchObject({ answers: {}, isWrong: true });
  expect((await opened(token, ' p-2 ')).answers[idOf('Name')]).toBe('Ole Brandt');
  expect((await submit(token, before.edition, {})).status).toBe(404);
  expect((await submit(token, before.edition, {}, 'P-1')).status).toBe(404);
  const tries = await Promise.all(Array.from({ length: 10 }, () => open(token, 'P-9')));
  expect(tries.some(({ status }) => status === 429)).toBe(true);
  await setPersonal({ ask: '' });
});

test('whoever has a personal link needs no pass phrase, and a link that was never given is none', async () => {
  const place = ['opening', 'passPhrase'];
  const set = (is: string, was?: string) =>
    mailbag.client.send('POST', `/api/intakes/${intake.id}/changes`, {
      changes: [{ kind: 'set', place, ...(was !== undefined && { was }), is }],
    });
  await set('roses');
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
  const page = (link: string): Promise<Response> =>
    stranger(mailbag.address, 'GET', `/api/public/intakes/${intake.word}`, undefined, { 'X-Mailbag-Link': link });
  expect((await page(tokenOf('ada.wren'))).status).toBe(200);
  expect((await page(`${tokenOf('ada.wren').split('.')[0]}.${'a'.repeat(22)}`)).status).toBe(403);
  await set('', 'roses');
  await mailbag.client.send('POST', `/api/intakes/${intake.id}/publish`);
});

test('a link holds no longer once it has ended, or earlier links were taken back', async () => {
  await setPersonal({ until: '2026-01-01T00:00:00Z' });
  const answer = await open(tokenOf('ada.wren'));
  expect([answer.status, await answer.text()]).toEqual([409, expect.stringContaining('your link ended on 2026-01-01')]);
  await setPersonal({ until: null, round: 2 });
  expect((await open(tokenOf('ada.wren'))).status).toBe(404);
});
