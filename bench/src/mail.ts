import { fork } from 'node:child_process';
import { statSync } from 'node:fs';
import { join } from 'node:path';
import { addMailServer, addSender } from '@mailbag/demo/dist/mail-set-up.js';
import { ServerClient } from '@mailbag/demo/dist/server-client.js';
import Database from 'libsql';
import nodemailer from 'nodemailer';
import { denseSetting, mailingOf } from './batch.js';
import { denseForm } from './forms.js';
import { option } from './option.js';
import { startMailbag } from './server-process.js';
import { startBatch } from '@mailbag/demo/dist/start-batch.js';

/** Lines of drawing that make a copy of about 100 kB. */
const ART = 380;
const CONNECTIONS = 5;

interface Batch {
  state: string;
  counts: Record<string, number>;
}

/** Starts the sink. */
async function sink(): Promise<{ port: number; code: () => Promise<string>; stop: () => void }> {
  const child = fork(new URL('./mail-sink.js', import.meta.url), { stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
  let code = '';
  const port = await new Promise<number>((resolve) =>
    child.on('message', (message: { port?: number; code?: string }) => {
      if (message.port) resolve(message.port);
      if (message.code) code = message.code;
    }),
  );
  return {
    port,
    async code() {
      while (!code) await new Promise((done) => setTimeout(done, 20));
      return code;
    },
    stop: () => void child.kill(),
  };
}

/** What the library does by itself: a pool, one message for each file, nothing written down. @returns messages a second */
async function barePool(port: number, files: readonly string[]): Promise<number> {
  const pool = nodemailer.createTransport({
    pool: true,
    maxConnections: CONNECTIONS,
    maxMessages: Infinity,
    host: '127.0.0.1',
    port,
    secure: false,
    ignoreTLS: true,
  } as object);
  let next = 0;
  const from = performance.now();
  const lane = async (): Promise<void> => {
    while (next < files.length) {
      const index = next++;
      const path = files[index]!;
      await pool.sendMail({
        from: 'Office <office@larkmere.example>',
        to: `tenant.${index}@example.org`,
        subject: `Plot ${index}`,
        text: 'Dear tenant,\n\nsee the attachment.',
        html: '<p>Dear tenant,</p><p>see the attachment.</p>',
        attachments: [{ filename: path.split('/').at(-1)!, path, contentType: 'application/pdf' }],
      });
    }
  };
  await Promise.all(Array.from({ length: CONNECTIONS * 2 }, lane));
  pool.close();
  return (files.length * 1000) / (performance.now() - from);
}

/** Messages a second of a whole server (claims, leases, stories, all written down) beside a bare pool with the same files over as many connections, in turns. */
export async function mailBench(): Promise<void> {
  const count = Number(option('records', '1500'));
  const rounds = Number(option('rounds', '3'));
  const mailbag = await startMailbag();
  const target = await sink();
  try {
    const client = new ServerClient(mailbag.address);
    await client.send('POST', '/api/account/set-up', {
      name: 'Bench',
      email: 'bench@larkmere.example',
      password: 'a long enough password',
    });
    const serverId = await addMailServer(client, target.port, { connections: CONNECTIONS });
    await addSender(client, serverId, 'office@larkmere.example', target.code);
    const mailing = await mailingOf(client, denseSetting(count, denseForm(ART)), true);
    const database = new Database(join(mailbag.data, 'mailbag.sqlite'), { readonly: true });
    const results: { ours: number; bare: number }[] = [];
    let attachment = 0;
    for (let round = 0; round < rounds; round++) {
      // All copies are made before the first message leaves, so only sending is timed.
      const { version, plan } = await client.get<{ version: number; plan: { message: object } }>(`/api/mailings/${mailing}`);
      const startAt = new Date(Date.now() + 6000 + count * 6).toISOString();
      await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, message: { ...plan.message, startAt } } });
      await client.until<{ current: boolean }>(`/api/mailings/${mailing}/checks`, ({ current }) => current, 120);
      const { id } = await startBatch<{ id: number }>(client, mailing, round === 0 ? 'new' : 'everybody');
      await client.until<Batch>(`/api/batches/${id}`, ({ counts }) => (counts.queued ?? 0) === count, 300);
      await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done', 600);
      const [row] = database
        .prepare(
          "SELECT MIN(copy_event.at) AS first, MAX(delivery.sentAt) AS last FROM copy_event JOIN copy ON copy.id = copy_event.copyId JOIN delivery ON delivery.id = copy.deliveryId WHERE copy.batchId = ? AND copy_event.event = 'claim'",
        )
        .all([id]) as { first: string; last: string }[];
      const ours = (count * 1000) / (Date.parse(row!.last) - Date.parse(row!.first));
      const paths = (database.prepare('SELECT path FROM copy WHERE batchId = ?').all([id]) as { path: string }[]).map(({ path }) =>
        join(mailbag.data, 'archive', path),
      );
      attachment = statSync(paths[0]!).size;
      results.push({ ours, bare: await barePool(target.port, paths) });
    }
    database.close();
    const middle = (values: number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
    const [ours, bare] = [middle(results.map((one) => one.ours)), middle(results.map((one) => one.bare))];
    console.log(
      JSON.stringify({
        case: 'mail',
        messages: count,
        attachmentKb: Math.round(attachment / 1024),
        connections: CONNECTIONS,
        messagesPerSecond: Math.round(ours),
        barePool: Math.round(bare),
        shareOfBarePool: Number((ours / bare).toFixed(2)),
        rounds: results.map((one) => ({ ours: Math.round(one.ours), bare: Math.round(one.bare) })),
      }),
    );
  } finally {
    target.stop();
    mailbag.stop();
  }
}
