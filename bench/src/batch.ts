import { tenancyAgreement } from '@mailbag/demo/dist/forms/tenancy-agreement.js';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import { tenancies } from '@mailbag/demo/dist/tenancies.js';
import { agreementMap } from '@mailbag/demo/dist/world.js';
import { tenancyWorkbook } from '@mailbag/demo/dist/workbooks.js';
import { option } from './option.js';
import { memoryOf, startMailbag } from './server-process.js';

interface Batch {
  state: string;
  copies: number;
  counts: Record<string, number>;
}

/** Tenancies of the demo over and over, each with a plot number of its own and without the faults that hold a record back. */
function manyTenancies(count: number): ReturnType<typeof tenancies> {
  const good = tenancies().filter((one) => /^[^@\s]+@[^@\s]+\.\w+$/.test(one.email) && one.surname.length < 30);
  return Array.from({ length: count }, (_, index) => ({
    ...good[index % good.length]!,
    plot: `P-${index + 1}`,
    email: `tenant.${index + 1}@example.org`,
    concession: 'None',
  }));
}

const percentile = (values: number[], share: number): number =>
  Math.round([...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0);

/** Runs a whole batch on a real server: records to stored copies in the ledger, mailed with `--mail yes`. */
export async function batchBench(): Promise<void> {
  const records = Number(option('records', '10000'));
  const mailed = option('mail', 'no') === 'yes';
  const mailbag = await startMailbag();
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', {
      name: 'Bench',
      email: 'bench@larkmere.example',
      password: 'a long enough password',
    });
    await client.send('PUT', '/api/settings/mail', {
      host: '127.0.0.1',
      port: mailbag.smtp,
      tls: false,
      user: '',
      password: '',
      senderName: 'Office',
      senderAddress: 'office@larkmere.example',
    });
    const { template } = await client.upload<{ template: { id: number } }>('/api/templates', 'Tenancy agreement.pdf', tenancyAgreement());
    const { fileId, excerpt } = await client.upload<{ fileId: string; excerpt: { sheet: string; headingRow: number } }>(
      '/api/sources/files',
      'many.xlsx',
      await tenancyWorkbook(manyTenancies(records)),
    );
    const readFrom = performance.now();
    const { id: sourceId } = await client.send<{ id: number }>('POST', '/api/sources', {
      fileId,
      name: 'many.xlsx',
      reading: { sheet: excerpt.sheet, headingRow: excerpt.headingRow },
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
        keyColumn: 'Plot',
        leftOut: [],
        maps: { [template.id]: agreementMap },
        output: { folder: '2027/{{ site }}', file: '{{ plot }}.pdf' },
        message: { mailed, addressColumn: 'E-mail', recipient: '{{ surname }}', subject: 'Plot {{ plot }}', body: 'Dear {{ surname }}' },
      },
    });
    const { id: batch } = await client.send<{ id: number }>('POST', `/api/mailings/${mailing}/batches`);
    const checkSeconds = (performance.now() - checkFrom) / 1000;
    const from = performance.now();
    const answers: number[] = [];
    let madeSeconds = 0;
    let state = '';
    let counts: Batch['counts'] = {};
    for (const end = Date.now() + 600_000; Date.now() < end && state !== 'done';) {
      const asked = performance.now();
      ({ state, counts } = await client.get<Batch>(`/api/batches/${batch}`));
      await client.get('/api/desk');
      answers.push(performance.now() - asked);
      if (!madeSeconds && (state === 'sending' || state === 'done')) madeSeconds = (performance.now() - from) / 1000;
      if (state === 'paused') throw new Error(`the batch stopped: ${JSON.stringify(counts)}`);
      await new Promise((done) => setTimeout(done, 50));
    }
    console.log(
      JSON.stringify({
        case: `batch of ${records}${mailed ? ', mailed' : ''}`,
        readSeconds: Math.round(readSeconds * 10) / 10,
        checkSeconds: Math.round(checkSeconds * 10) / 10,
        madeSeconds: Math.round(madeSeconds * 10) / 10,
        copiesPerSecond: Math.round(records / madeSeconds),
        allSeconds: Math.round((performance.now() - from) / 100) / 10,
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
