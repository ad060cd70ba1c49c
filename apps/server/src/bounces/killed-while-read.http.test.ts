import { resolve } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { IncomingReport } from '@mailbag/contract';
import { createTransport } from 'nodemailer';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';

const mailbag = new RunningMailbag({
  MAILBAG_INBOUND_PORT: '0',
  NODE_OPTIONS: `--require ${resolve('testing/slow-threads.cjs')}`,
  SLOW_THREADS: '1500',
});
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  await mailbag.client.send('PUT', '/api/bounces', {
    address: 'bounces@larkmere.example',
    host: '',
    port: 0,
    tls: false,
    checkCertificate: false,
    user: '',
    password: '',
    folder: 'INBOX',
    smtpPort: 0,
  });
});
afterAll(() => mailbag.close());

const letter = 'From: Ann <ann@example.org>\r\nSubject: Thanks\r\nMessage-ID: <x@y.example>\r\n\r\nMine came, thank you.\r\n';
async function bring(): Promise<unknown> {
  const transport = createTransport({ host: '127.0.0.1', port: await mailbag.inboundPort(), secure: false, ignoreTLS: true });
  return transport
    .sendMail({ envelope: { from: 'ann@example.org', to: ['bounces@larkmere.example'] }, raw: letter })
    .finally(() => transport.close());
}

test('a message is not given up because the server was ended again and again before its thread had begun', async () => {
  for (let round = 0; round < 4; round++) {
    const bringing = bring().catch(() => 'cut off');
    await pause(700);
    await mailbag.kill();
    expect(await bringing).toBe('cut off');
    await mailbag.startAgain();
  }
  await bring();
  const reports = await mailbag.client.get<IncomingReport[]>('/api/bounces/reports');
  expect(reports.map(({ kind, subject }) => ({ kind, subject }))).toEqual([{ kind: 'other', subject: 'Thanks' }]);
});
