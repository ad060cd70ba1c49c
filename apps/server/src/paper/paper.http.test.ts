import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Detail } from '@mailbag/core';
import { detailText } from '@mailbag/core';
import { CupsServer } from '../../../../testing/cups-server.js';
import { readByOther } from '../../../../testing/other-reader.js';
import { PostOffice, PrinterStandIn, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch, CopyRow } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
let printer: PrinterStandIn;
const mailbag = new RunningMailbag({ MAILBAG_PRINTER_SECONDS: '0.2' });
beforeAll(async () => {
  office = await PostOffice.open();
  printer = await PrinterStandIn.open();
  await (await mailbag.start()).setUp(office);
  await mailbag.client.send('POST', '/api/printers', { name: 'Stand-in', uri: printer.uri });
  await mailbag.client.send('PUT', '/api/settings/office', { returnLine: 'Office · 1 Mill Lane · 04200 Larkmere', country: 'DE' });
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
  await printer.close();
});

interface Run {
  id: number;
  number: number;
  state: string;
  detail: Detail | null;
  sheets: number;
  pages: number;
  copies: number;
  recipients: number;
  leftOut: number;
  sheetsOf: { copyId: number; recipient: string; postalCode: string; sheet: number }[];
}
/** A mailing whose rows hold postal addresses in the columns Name and Shed of the small mailing: the plan says where. */
async function posted(
  folder: string,
  rows: readonly (readonly [plot: string, name: string, mail: string, shed: string])[],
  wants: string[] = [],
): Promise<{ mailing: number; batch: number; copies: CopyRow[] }> {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows, { folder });
  const { version, plan } = await client.get<{ version: number; plan: Record<string, unknown> }>(`/api/mailings/${mailing}`);
  const paper = {
    name: '{{ name }}',
    street: 'Reed Lane {{ plot }}',
    postalCode: '{{ plot | slice: 1, 5 }}',
    town: '{% if name != "Nowhere" %}Larkmere{% endif %}',
    region: '',
    country: '',
    wantsColumn: wants.length > 0 ? 'Name' : null,
    wantsValues: wants,
  };
  await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, paper } });
  const { id: batch } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${batch}`, ({ state }) => state === 'done');
  return { mailing, batch, copies: await copiesOf(client, batch) };
}
const make = (batch: number, more: object = {}): Promise<Run> =>
  mailbag.client.send('POST', '/api/print-runs', {
    batch,
    reasons: ['no-address', 'bounced', 'asked'],
    duplex: true,
    addressSheets: true,
    ...more,
  });

test('who has no address, bounced or asks for paper is gathered in postal order, each with a sheet for the window', async () => {
  const { batch } = await posted(
    'gather',
    [
      ['P99084', 'Zoë Łąkowska', '', 'no'],
      ['P10115', 'Bounced Bae', 'unknown.bae@example.org', 'no'],
      ['P01067', 'Asks For Paper', 'asks@example.org', 'no'],
      ['P50667', 'Mailed Mo', 'mo@example.org', 'no'],
      ['P20095', 'Nowhere', '', 'no'],
    ],
    ['asks for paper'],
  );
  const waiting = await mailbag.client.get<{ byReason: Record<string, number>; withoutPost: number }>(
    `/api/print-runs/waiting?batch=${batch}`,
  );
  expect(waiting).toMatchObject({ byReason: { 'no-address': 2, bounced: 1, asked: 1 }, withoutPost: 1 });
  const run = await make(batch);
  expect(run).toMatchObject({ state: 'ready', copies: 3, recipients: 3, leftOut: 1, sheets: 6, pages: 12 });
  expect(run.sheetsOf.map(({ recipient, sheet }) => [recipient, sheet])).toEqual([
    ['Asks For Paper', 1],
    ['Bounced Bae', 3],
    ['Zoë Łąkowska', 5],
  ]);
  const pages = await readByOther(await mailbag.client.bytes(`/api/print-runs/${run.id}/pdf`));
  // Both sides: address, blank back, copy, blank back.
  expect(pages).toHaveLength(12);
  expect(pages.map(({ text }) => text === '')).toEqual([false, true, false, true, false, true, false, true, false, true, false, true]);
  expect(pages[8]!.text).toContain('Zoë Łąkowska');
  expect(pages[8]!.text).toContain('Larkmere');
  expect(pages[10]!.text).toContain('Zoë Łąkowska');
  expect(pages[10]!.text).not.toContain('Bounced Bae');
  // What is in a run is not gathered twice.
  await expect(make(batch)).rejects.toThrow('print-nothing');
  const cancelled = await mailbag.client.send<Run>('POST', `/api/print-runs/${run.id}/cancel`);
  expect(cancelled.state).toBe('cancelled');
  expect((await make(batch)).copies).toBe(3);
});

test('a printer that jams says so, goes on, and only then the copies are printed', async () => {
  const { batch, copies } = await posted('jam', [['P01067', 'Jam', '', 'no']]);
  const run = await make(batch);
  const [{ id: printerId }] = (await mailbag.client.get<{ id: number }[]>('/api/printers')) as [{ id: number }];
  await printer.behave('jam');
  await mailbag.client.send('POST', `/api/print-runs/${run.id}/print`, { printerId });
  await mailbag.client.until<Run>(`/api/print-runs/${run.id}`, ({ detail }) =>
    /paper is jammed/.test(detail === null ? '' : detailText(detail)),
  );
  expect((await mailbag.client.get<{ state: string }>(`/api/copies/${copies[0]!.id}`)).state).toBe('made');
  // Even a server that is killed meanwhile asks the printer again.
  await mailbag.kill();
  await printer.behave('well');
  await mailbag.startAgain();
  await mailbag.client.until<Run>(`/api/print-runs/${run.id}`, ({ state }) => state === 'printed');
  expect(await mailbag.client.get(`/api/copies/${copies[0]!.id}`)).toMatchObject({
    state: 'printed',
    events: [{ event: 'print', who: 'Printer', detail: { code: 'print-run', fields: { run: run.number } } }, {}],
  });
  expect((await printer.jobs()).filter(({ name }) => name === `Mailbag print run ${run.number}`)).toHaveLength(1);
});

test.each([
  ['lose', 'unconfirmed', /knows nothing of this job/],
  ['abort', 'failed', /aborted by system/],
])('a printer that does “%s” leaves the run %s, and a person decides', async (mood, state, words) => {
  const { batch, copies } = await posted(mood, [['P01067', 'Lost', '', 'no']]);
  const run = await make(batch);
  const [{ id: printerId }] = (await mailbag.client.get<{ id: number }[]>('/api/printers')) as [{ id: number }];
  await printer.behave(mood);
  await mailbag.client.send('POST', `/api/print-runs/${run.id}/print`, { printerId });
  const over = await mailbag.client.until<Run>(`/api/print-runs/${run.id}`, (one) => one.state === state);
  expect(detailText(over.detail!)).toMatch(words);
  await printer.behave('well');
  expect((await mailbag.client.get<{ state: string }>(`/api/copies/${copies[0]!.id}`)).state).toBe('made');
  await mailbag.client.send('POST', `/api/print-runs/${run.id}/printed`);
  expect(await mailbag.client.get(`/api/copies/${copies[0]!.id}`)).toMatchObject({
    state: 'printed',
    events: [{ who: 'Test Person' }, {}],
  });
  // A single sheet is printed once more; the story tells it.
  const again = await mailbag.client.send<Run>('POST', '/api/print-runs', {
    ids: [copies[0]!.id],
    reasons: [],
    duplex: false,
    addressSheets: false,
  });
  expect(again).toMatchObject({ copies: 1, sheets: 1 });
  await mailbag.client.send('POST', `/api/print-runs/${again.id}/printed`);
  expect(await mailbag.client.get(`/api/copies/${copies[0]!.id}`)).toMatchObject({
    state: 'printed',
    events: [{ event: 'reprint' }, {}, {}],
  });
});

test('copies with a password are printed without it', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['P01067', 'Secret', '', 'no']], { folder: 'secret' });
  const { version, plan } = await client.get<{ version: number; plan: { output: object } }>(`/api/mailings/${mailing}`);
  const paper = {
    name: '{{ name }}',
    street: 'Reed Lane 1',
    postalCode: '01067',
    town: 'Larkmere',
    region: '',
    country: '',
    wantsColumn: null,
    wantsValues: [],
  };
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: { ...plan, paper, output: { ...plan.output, openPassword: '{{ plot }}-{{ name }}' } },
  });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const [copy] = await copiesOf(client, id);
  const file = join(mailbag.data, 'archive', copy!.file);
  const tried = (password: string): number | null => spawnSync('qpdf', [`--password=${password}`, '--requires-password', file]).status;
  if (existsSync('/usr/bin/qpdf')) {
    // qpdf, --requires-password: 0 when another password is needed, 3 when the given one opens it.
    expect(tried('wrong')).toBe(0);
    expect(tried('P01067-Secret')).toBe(3);
  }
  expect(await client.send('POST', `/api/copies/${copy!.id}/password`)).toEqual({ password: 'P01067-Secret' });
  expect(readFileSync(join(mailbag.data, 'mailbag.sqlite')).includes('P01067-Secret')).toBe(false);
  const run = await make(id, { addressSheets: false });
  const [page] = await readByOther(await client.bytes(`/api/print-runs/${run.id}/pdf`));
  expect(page!.text).toContain('Secret');
});

(CupsServer.isThere() ? test : test.skip)(
  'CUPS, a print server that we did not write, takes a run and prints it',
  async () => {
    const folder = mkdtempSync(join(tmpdir(), 'mailbag-printed-'));
    const cups = await CupsServer.open(folder);
    try {
      const printers = await mailbag.client.send<{ id: number; name: string }[]>('POST', '/api/printers', { name: 'CUPS', uri: cups.uri });
      const { batch, copies } = await posted('cups', [['P01067', 'Cups', '', 'no']]);
      const run = await make(batch);
      await mailbag.client.send('POST', `/api/print-runs/${run.id}/print`, { printerId: printers.find(({ name }) => name === 'CUPS')!.id });
      await mailbag.client.until<Run>(`/api/print-runs/${run.id}`, ({ state }) => state === 'printed');
      expect((await mailbag.client.get<{ state: string }>(`/api/copies/${copies[0]!.id}`)).state).toBe('printed');
      expect(cups.taken().equals(Buffer.from(await mailbag.client.bytes(`/api/print-runs/${run.id}/pdf`)))).toBe(true);
    } finally {
      await cups.close();
      rmSync(folder, { recursive: true, force: true });
    }
  },
  120_000,
);

test('what is no printer is told in a sentence', async () => {
  await expect(mailbag.client.send('POST', '/api/printers', { name: 'Nobody', uri: 'ipp://127.0.0.1:9/ipp/print' })).rejects.toThrow(
    'printer-unreachable',
  );
});
