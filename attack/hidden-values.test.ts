import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { ServerClient } from '../demo/src/server-client.js';
import { startBatch } from '../demo/src/start-batch.js';
import { signedInAs } from '../testing/accounts.js';
import { PostOffice, RunningMailbag } from '../testing/running-mailbag.js';
import type { Batch } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';

/** Who may not see values gets at them by no path, and by nothing that the server does for them. */
const mailbag = new RunningMailbag();
let office: PostOffice;
let mailing: number;
let batch: number;
let copy: { id: number; address: string };
let source: number;
let run: number;
const blind: { name: string; client: ServerClient }[] = [];
/** Stand in records only: none is a name, an address or part of a file's name. */
const secrets = ['yesterdaysillness', 'plot-77', '99084', 'fixed-and-secret', 'changedillness'];

const refusal = (asked: Promise<unknown>): Promise<string> =>
  asked.then(
    (answer) => JSON.stringify(answer) ?? '',
    (error: Error) => error.message,
  );

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  const { client } = mailbag;
  await client.send('PUT', '/api/settings/office', { returnLine: 'Office · 1 Mill Lane · 04200 Larkmere', country: 'DE' });
  ({ mailing } = await smallMailing(client, [
    ['plot-77', 'Quist', 'quist@example.org', 'yesterdaysillness'],
    ['99084', 'Ferrow', '', 'no'],
    ['P-3', 'Bounced', 'unknown.bae@example.org', 'no'],
  ]));
  const { version, plan } = await client.get<{ version: number; plan: Record<string, object> & { sourceId: number } }>(
    `/api/mailings/${mailing}`,
  );
  source = plan.sourceId;
  for (const map of Object.values(plan.maps as Record<string, Record<string, unknown>>)) delete map['permit.shed'];
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      ...plan,
      output: { folder: 'hidden', file: '{{ code }}.pdf', openPassword: 'fixed-and-secret', metadata: ['Shed'] },
      paper: {
        name: '{{ name }}',
        street: 'Lane',
        postalCode: '{{ plot }}',
        town: 'Larkmere',
        region: '',
        country: '',
        wantsColumn: null,
        wantsValues: [],
      },
    },
  });
  const started = await startBatch<Batch>(client, mailing);
  batch = started.id;
  await client.until<Batch>(`/api/batches/${batch}`, ({ state }) => state === 'done');
  copy = (await copiesOf(client, batch)).find(({ address }) => address !== '')!;
  run = (
    await client.send<{ id: number }>('POST', '/api/print-runs', { batch, reasons: ['no-address'], duplex: false, addressSheets: true })
  ).id;
  await client.until<{ state: string }>(`/api/print-runs/${run}`, ({ state }) => state !== 'making');
  // A later reading that changes a value.
  const csv =
    'Plot,Name,Mail,Shed\r\nplot-77,Quist,quist@example.org,changedillness\r\n99084,Ferrow,,no\r\nP-3,Bounced,unknown.bae@example.org,no\r\n';
  const { fileId } = await client.upload<{ fileId: string }>('/api/sources/files', 'rows.csv', new TextEncoder().encode(csv));
  await client.send('PUT', `/api/sources/${source}/reading`, { fileIds: [fileId], keyColumn: 'Plot' });
  await client.until<{ changes: { changed: number } | null }>(`/api/sources/${source}`, ({ changes }) => changes?.changed === 1);
  for (const role of ['viewer', 'operator'] as const)
    blind.push({ name: role, client: await signedInAs(mailbag, { role, seesValues: false }) });
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

/** Every path that answers, as the code of the server names it: a new one is tried without anybody thinking of it. */
function paths(): string[] {
  const folder = 'apps/server/src';
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.controller.ts'))
    .flatMap((name) => {
      const text = readFileSync(join(folder, name), 'utf8');
      const base = /@Controller\('([^']*)'\)/.exec(text)![1]!;
      return [...text.matchAll(/@Get\((?:'([^']*)')?\)/g)].map((found) => `/${base}${found[1] ? `/${found[1]}` : ''}`);
    });
}
const filledIn = (path: string): string => {
  const id = path.includes('/mailings/')
    ? mailing
    : path.includes('/batches/')
      ? batch
      : path.includes('/copies/')
        ? copy.id
        : path.includes('/print-runs/')
          ? run
          : path.includes('/sources/')
            ? source
            : 1;
  return `${path
    .replace(':id', String(id))
    .replace(/:format/, 'csv')
    .replace(/:\w+/g, '1')}?from=0&count=50&index=0&text=yester`;
};

test('no path that answers tells a value, a postal code or a password', async () => {
  const all = paths();
  expect(all.length).toBeGreaterThan(60);
  let answered = 0;
  for (const { name, client } of blind)
    for (const path of all) {
      const bytes = await Promise.race([
        client.bytes(filledIn(path)).catch((error: Error) => new TextEncoder().encode(error.message)),
        // What is told as it happens never ends.
        new Promise<Uint8Array>((done) => setTimeout(() => done(new Uint8Array()), path === '/api/events' ? 300 : 20_000)),
      ]);
      const text = new TextDecoder().decode(bytes);
      if (!/: (4|5)\d\d /.test(text)) answered++;
      for (const secret of secrets)
        expect({ who: name, path, tells: text.includes(secret) ? secret : null }).toEqual({ who: name, path, tells: null });
    }
  expect(answered).toBeGreaterThan(40);
  // The same paths do tell them to those who may see them, or this would prove nothing.
  const seen = (
    await Promise.all(
      ['/api/sources/:id', '/api/mailings/:id', '/api/print-runs/:id'].map((path) => refusal(mailbag.client.get(filledIn(path)))),
    )
  ).join();
  for (const secret of secrets.slice(2)) expect(seen).toContain(secret);
});

test('an operator without values has nothing sent, shown or named for them that tells one', async () => {
  const { client } = blind.find(({ name }) => name === 'operator')!;
  const { version, plan } = await client.get<{ version: number; plan: Record<string, object> }>(`/api/mailings/${mailing}`);
  const before = (await office.letters()).length;
  const attempts: [method: 'POST' | 'PUT', path: string, body: object][] = [
    // Values into names and paths, which the ledger shows.
    ['PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, output: { folder: '{{ shed }}', file: '{{ shed }}.pdf' } } }],
    [
      'POST',
      `/api/mailings/${mailing}/message-sample`,
      { index: 0, message: plan.message, output: { folder: '{{ shed }}', file: 'x.pdf' } },
    ],
    // Copies and messages to themselves.
    ['POST', `/api/copies/${copy.id}/send-again`, { address: 'operator@larkmere.example' }],
    ['POST', `/api/mailings/${mailing}/test-message`, { index: 0, address: 'operator@larkmere.example' }],
    ['POST', `/api/mailings/${mailing}/start`, { who: 'everybody' }],
    ['POST', `/api/mailings/${mailing}/batches`, { who: 'everybody', digest: '', version, startKey: 'mine' }],
    ['POST', `/api/sources/${source}/corrections`, { row: 2, column: 'Mail', value: 'operator@larkmere.example' }],
    ['PUT', `/api/sources/${source}/reading`, {}],
    ['POST', '/api/mailings', { name: 'Mine' }],
    ['POST', `/api/copies/${copy.id}/password`, {}],
  ];
  for (const [method, path, body] of attempts)
    expect(`${path} ${await refusal(client.send(method, path, body))}`).toMatch(/account-(values|passwords)-hidden/);
  expect((await office.letters()).length).toBe(before);
  // Their own work goes on: the same copy once more to whom it is for.
  const bounced = (await copiesOf(mailbag.client, batch)).find(({ address }) => address.startsWith('unknown'))!;
  await client.send('POST', `/api/copies/${bounced.id}/send-again`, { address: bounced.address });
  await client.until<{ events: { state: string }[] }>(
    `/api/copies/${bounced.id}`,
    ({ events }) => events.filter((one) => one.state === 'bounced').length === 2,
  );
});

test('a password is kept encrypted, and who does not see it can save the rest of the plan', async () => {
  const { client } = mailbag;
  const sighted = await signedInAs(mailbag, { role: 'operator' });
  const { version, plan } = await sighted.get<{ version: number; plan: { output: { openPassword: string } } }>(`/api/mailings/${mailing}`);
  expect(plan.output.openPassword).not.toContain('fixed');
  await sighted.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, name: 'Renamed' } });
  expect(await client.get(`/api/mailings/${mailing}`)).toMatchObject({
    plan: { name: 'Renamed', output: { openPassword: 'fixed-and-secret' } },
  });
  const whole = readdirSync(mailbag.data, { withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map(({ name }) => readFileSync(join(mailbag.data, name), 'latin1'))
    .join();
  expect(whole).toContain('Renamed');
  expect(whole).not.toContain('fixed-and-secret');
});
