import { compileTemplate, fillCopy, inspectTemplate } from '@mailbag/core';
import { nodeFonts, writeCopy } from '@mailbag/host';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { tenancyAgreement } from '@mailbag/demo/dist/forms/tenancy-agreement.js';
import { addMailServer, addSender } from '@mailbag/demo/dist/mail-set-up.js';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import { tenancies } from '@mailbag/demo/dist/tenancies.js';
import { agreementMap } from '@mailbag/demo/dist/world.js';
import { tenancyWorkbook } from '@mailbag/demo/dist/workbooks.js';
import { recordFor } from './fill-cases.js';
import { denseForm } from './forms.js';
import { option } from './option.js';
import { memoryOf, processorSeconds, startMailbag } from './server-process.js';
import { startBatch } from '@mailbag/demo/dist/start-batch.js';

interface Batch {
  state: string;
  copies: number;
  counts: Record<string, number>;
}

/** Tenancies of the demo over and over, each with a plot number of its own and without the faults that hold a record back. */
export function manyTenancies(count: number): ReturnType<typeof tenancies> {
  const good = tenancies().filter((one) => /^[^@\s]+@[^@\s]+\.\w+$/.test(one.email) && one.surname.length < 30);
  return Array.from({ length: count }, (_, index) => ({
    ...good[index % good.length]!,
    plot: `P-${index + 1}`,
    email: `tenant.${index + 1}@example.org`,
    concession: 'None',
  }));
}

export const percentile = (values: number[], share: number): number =>
  Math.round([...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0);

/** A template with its records and map. */
interface Setting {
  form: Uint8Array;
  file: string;
  sheet: () => Promise<Uint8Array>;
  key: string;
  address: string;
  map: Record<string, unknown>;
}

export function tenancySetting(records: number): Setting {
  return {
    form: tenancyAgreement(),
    file: 'many.xlsx',
    sheet: () => tenancyWorkbook(manyTenancies(records)),
    key: 'Plot',
    address: 'E-mail',
    map: agreementMap,
  };
}

/** The dense form of the fill bench, its four pages from 38 columns. */
export function denseSetting(records: number, form = denseForm()): Setting {
  const headings = ['Key', 'Mail', ...Array.from({ length: 38 }, (_, index) => `C${index}`)];
  const kindAt = (index: number): string =>
    index % 9 === 8 ? 'tick' : index % 9 === 7 ? 'menu' : index % 9 === 6 ? 'comb' : index % 9 === 5 ? 'lines' : 'text';
  const valueAt = (row: number, index: number): string =>
    ({
      tick: row % 2 ? 'yes' : 'no',
      menu: ['Alder', 'Birch', 'Cherry'][row % 3]!,
      comb: String(100_000_000_000 + row),
      lines: `Record ${row} has a few words in field ${index} that take more than a line of this box`,
      text: `Value ${row} of ${index}`,
    })[kindAt(index)]!;
  const rows = Array.from({ length: records }, (_, row) =>
    [`K${row}`, `tenant.${row}@example.org`, ...headings.slice(2).map((_heading, index) => valueAt(row, index))].join(','),
  );
  const table = {
    tick: [
      { from: 'yes', to: 'Yes' },
      { from: 'no', to: 'Off' },
    ],
    menu: [
      { from: 'Alder', to: 'a' },
      { from: 'Birch', to: 'b' },
      { from: 'Cherry', to: 'c' },
    ],
  };
  const rule = (index: number): unknown => {
    const kind = kindAt(index);
    return kind === 'tick' || kind === 'menu'
      ? { kind: 'translate', column: `C${index}`, table: table[kind] }
      : { kind: 'column', column: `C${index}` };
  };
  return {
    form,
    file: 'dense.csv',
    sheet: async () => new TextEncoder().encode([headings.join(','), ...rows].join('\r\n')),
    key: 'Key',
    address: 'Mail',
    map: Object.fromEntries([0, 1, 2, 3].flatMap((page) => Array.from({ length: 38 }, (_, index) => [`p${page}.f${index}`, rule(index)]))),
  };
}

/** Copies a second that the engine makes and writes by itself, on one core, from the same form. */
export async function engineAlone(form: Uint8Array): Promise<number> {
  const { fields } = await inspectTemplate(form);
  const compiled = await compileTemplate(form, { ...(await nodeFonts()), given: fields.map(({ name }) => name) });
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-bench-'));
  const count = 2000;
  const records = Array.from({ length: count }, (_, index) => recordFor(fields, index));
  const from = performance.now();
  records.forEach((values, index) => writeCopy(join(folder, `${index}.pdf`), fillCopy(compiled, values)));
  const rate = (count * 1000) / (performance.now() - from);
  rmSync(folder, { recursive: true, force: true });
  return Math.round(rate);
}

/** Uploads form and sheet and saves the mailing. */
async function madeMailing(
  client: ServerClient,
  setting: Setting,
  mailed: boolean,
): Promise<{ mailing: number; readSeconds: number; checkFrom: number }> {
  const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'Form.pdf', setting.form);
  const { fileId, excerpt } = await client.upload<{ fileId: string; excerpt: { sheet: string | null; headingRow: number } }>(
    '/api/sources/files',
    setting.file,
    await setting.sheet(),
  );
  const readFrom = performance.now();
  const { id: sourceId } = await client.send<{ id: number }>('POST', '/api/sources', {
    fileIds: [fileId],
    name: setting.file,
    reading: { headingRow: excerpt.headingRow, ...(excerpt.sheet === null ? {} : { sheet: excerpt.sheet }) },
  });
  await client.until<{ state: string }>(`/api/sources/${sourceId}`, ({ state }) => state === 'ready', 120);
  const readSeconds = (performance.now() - readFrom) / 1000;
  const { id: mailing, version } = await client.send<{ id: number; version: number }>('POST', '/api/mailings', { name: 'Bench' });
  const checkFrom = performance.now();
  await client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      name: 'Bench',
      packet: [template.id],
      sourceId,
      keyColumn: setting.key,
      leftOut: [],
      maps: { [template.id]: setting.map },
      output: { folder: '2027', file: '{{ number }}.pdf' },
      message: {
        mailed,
        addressColumn: setting.address,
        recipient: 'Tenant {{ number }}',
        subject: 'Copy {{ number }}',
        body: 'See the attachment.',
      },
    },
  });
  return { mailing, readSeconds, checkFrom };
}

/** As `madeMailing`, for other benches. @returns its id */
export const mailingOf = async (client: ServerClient, setting: Setting, mailed: boolean): Promise<number> =>
  (await madeMailing(client, setting, mailed)).mailing;

/** Runs a whole batch on a real server: records to stored copies in the ledger, mailed with `--mail yes`. */
export async function batchBench(): Promise<void> {
  const records = Number(option('records', '10000'));
  const mailed = option('mail', 'no') === 'yes';
  const setting = option('form', 'agreement') === 'dense' ? denseSetting(records) : tenancySetting(records);
  const engine = await engineAlone(setting.form);
  const mailbag = await startMailbag();
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', {
      name: 'Bench',
      email: 'bench@larkmere.example',
      password: 'a long enough password',
    });
    const serverId = await addMailServer(client, mailbag.smtp);
    await addSender(client, serverId, 'office@larkmere.example', mailbag.code);
    const { mailing, readSeconds, checkFrom } = await madeMailing(client, setting, mailed);
    const { id: batch } = await startBatch<{ id: number }>(client, mailing);
    const checkSeconds = (performance.now() - checkFrom) / 1000;
    const from = performance.now();
    const busyBefore = processorSeconds(mailbag.pid);
    const answers: number[] = [];
    let plannedSeconds = 0;
    let madeSeconds = 0;
    let state = '';
    let counts: Batch['counts'] = {};
    for (const end = Date.now() + 600_000; Date.now() < end && state !== 'done';) {
      const asked = performance.now();
      ({ state, counts } = await client.get<Batch>(`/api/batches/${batch}`));
      await client.get('/api/desk');
      answers.push(performance.now() - asked);
      if (!plannedSeconds && state !== 'planning') plannedSeconds = (performance.now() - from) / 1000;
      if (!madeSeconds && (state === 'sending' || state === 'done')) madeSeconds = (performance.now() - from) / 1000;
      if (state === 'paused') throw new Error(`the batch stopped: ${JSON.stringify(counts)}`);
      await new Promise((done) => setTimeout(done, 50));
    }
    console.log(
      JSON.stringify({
        case: `batch of ${records}${mailed ? ', mailed' : ''}`,
        readSeconds: Math.round(readSeconds * 10) / 10,
        checkSeconds: Math.round(checkSeconds * 10) / 10,
        engineAlone: engine,
        shareOfEngine: Math.round((records / madeSeconds / engine) * 100) / 100,
        plannedSeconds: Math.round(plannedSeconds * 10) / 10,
        madeSeconds: Math.round(madeSeconds * 10) / 10,
        copiesPerSecond: Math.round(records / madeSeconds),
        allSeconds: Math.round((performance.now() - from) / 100) / 10,
        processorSeconds: Math.round((processorSeconds(mailbag.pid) - busyBefore) * 10) / 10,
        counts,
        answerMedianMs: percentile(answers, 0.5),
        answerWorstMs: percentile(answers, 1),
        peakMb: memoryOf(mailbag.pid).peak,
      }),
    );
  } finally {
    mailbag.stop();
  }
}
