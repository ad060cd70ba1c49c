import { readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { startBatch } from '@mailbag/demo/dist/start-batch.js';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import { mailingOf, percentile, tenancySetting } from './batch.js';
import { option } from './option.js';
import { forgetPeak, memoryOf, startMailbag } from './server-process.js';

interface Batch {
  state: string;
  counts: Record<string, number>;
}

/** Milliseconds in which a person looks at what came. */
const LOOK = 120;

/** Asks as a person does until the batch is over, and measures each answer. */
async function work(steps: ((turn: number) => Promise<unknown>)[], isOver: () => boolean, answers: number[]): Promise<void> {
  for (let turn = 0; !isOver(); turn++) {
    const from = performance.now();
    await steps[turn % steps.length]!(turn);
    answers.push(performance.now() - from);
    await new Promise((done) => setTimeout(done, LOOK));
  }
}

/** Makes very many copies while three people work: one in the ledger, one at a mailing, one in the records. */
export async function peopleBench(): Promise<void> {
  const records = Number(option('records', '30000'));
  const delays = join(process.cwd(), 'bench/dist/loop-delay.json');
  const mailbag = await startMailbag({ LOOP_DELAY_FILE: delays, NODE_OPTIONS: `--require ${resolve('bench/loop-delay.cjs')}` });
  try {
    const first = new ServerClient(mailbag.address);
    const person = { name: 'Bench', email: 'bench@larkmere.example', password: 'a long enough password' };
    await first.send('POST', '/api/account/set-up', person);
    const clients = await Promise.all(
      ['ledger', 'mailing', 'records'].map(async (name) => {
        const client = new ServerClient(mailbag.address);
        const { address } = await first.send<{ address: string }>('POST', '/api/people/invitations', {
          name,
          email: `${name}@larkmere.example`,
          role: 'operator',
          seesValues: true,
          seesPasswords: false,
        });
        await client.send('POST', '/api/people/invitation', {
          token: new URL(address).searchParams.get('token'),
          password: 'otters wear 3 green hats',
        });
        return client;
      }),
    );
    const other = await mailingOf(first, tenancySetting(500), false);
    const mailing = await mailingOf(first, tenancySetting(records), false);
    const { plan, version: begun } = await first.get<{ plan: { sourceId: number; name: string }; version: number }>(
      `/api/mailings/${other}`,
    );
    await first.until<{ current: boolean }>(`/api/mailings/${mailing}/checks`, ({ current }) => current, 120);
    forgetPeak(mailbag.pid);
    const { id } = await startBatch<{ id: number }>(first, mailing);
    const from = performance.now();
    let isOver = false;
    const answers: number[] = [];
    const [ledger, maker, reader] = clients as [ServerClient, ServerClient, ServerClient];
    let version = begun;
    const people = Promise.all([
      work(
        [
          () => ledger.get('/api/copies?count=100'),
          () => ledger.get('/api/copies/counts'),
          () => ledger.get('/api/copies?text=tenant&count=50'),
          () => ledger.get('/api/desk'),
          async () => {
            const { rows } = await ledger.get<{ rows: { id: number }[] }>('/api/copies?count=1&state=made');
            if (rows[0]) await ledger.get(`/api/copies/${rows[0].id}`);
          },
        ],
        () => isOver,
        answers,
      ),
      work(
        [
          () => maker.get(`/api/mailings/${other}`),
          async (turn) => {
            ({ version } = await maker.send<{ version: number }>('PUT', `/api/mailings/${other}`, {
              version,
              plan: { ...plan, name: `Bench ${turn}` },
            }));
          },
          () => maker.get(`/api/mailings/${other}/checks`),
          () => maker.get('/api/mailings'),
          () => maker.get(`/api/mailings/${other}/findings?from=0&count=50`),
        ],
        () => isOver,
        answers,
      ),
      work(
        [
          (turn) => reader.get(`/api/sources/${plan.sourceId}/records?from=${(turn * 37) % 400}&count=60`),
          () => reader.get(`/api/sources/${plan.sourceId}`),
          () => reader.get('/api/find?text=bench'),
          () => reader.get('/api/batches/running'),
        ],
        () => isOver,
        answers,
      ),
    ]);
    let counts: Record<string, number> = {};
    for (let state = ''; state !== 'done';) {
      ({ state, counts } = await first.get<Batch>(`/api/batches/${id}`));
      if (state === 'paused') throw new Error(`the batch stopped: ${JSON.stringify(counts)}`);
      await new Promise((done) => setTimeout(done, 250));
    }
    isOver = true;
    const seconds = (performance.now() - from) / 1000;
    await people;
    console.log(
      JSON.stringify({
        case: `${records} records made while three people work`,
        seconds: Math.round(seconds * 10) / 10,
        copiesPerSecond: Math.round(records / seconds),
        answers: answers.length,
        answerMedianMs: percentile(answers, 0.5),
        answer99thMs: percentile(answers, 0.99),
        answerWorstMs: percentile(answers, 1),
        loopHeldMs: JSON.parse(readFileSync(delays, 'utf8')) as object,
        memoryMb: memoryOf(mailbag.pid),
        counts,
      }),
    );
  } finally {
    mailbag.stop();
  }
}
