import { existsSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

test('uploads that nothing was made of, and sessions that are over, are swept away; what is used stays', async () => {
  const { client } = mailbag;
  const upload = async (): Promise<string> =>
    (await client.upload<{ fileId: string }>('/api/sources/files', 'left.csv', new TextEncoder().encode('Name\r\nAnn\r\n'))).fileId;
  const [left, fresh] = [await upload(), await upload()];
  const { mailing } = await smallMailing(client, [['P-1', 'Ann', '', 'no']], { mailed: false });
  const { plan } = await client.get<{ plan: { sourceId: number } }>(`/api/mailings/${mailing}`);
  const database = mailbag.beside();
  const [{ fileId: used }] = database.prepare('SELECT fileId FROM source WHERE id = ?').all([plan.sourceId]) as [{ fileId: string }];
  const path = (id: string): string => join(mailbag.data, 'sources', id);
  const longAgo = new Date(Date.now() - 3 * 86_400_000);
  for (const id of [left, used])
    for (const file of [path(id), `${path(id)}.name`]) if (existsSync(file)) utimesSync(file, longAgo, longAgo);
  database
    .prepare("INSERT INTO session (tokenHash, accountId, createdAt, expiresAt) VALUES ('over', 1, ?, ?)")
    .run([longAgo.toISOString(), longAgo.toISOString()]);
  database.close();
  await mailbag.stop();
  await mailbag.startAgain();
  const sessions = (): unknown[] => {
    const looked = mailbag.beside();
    const rows = looked.prepare("SELECT 1 FROM session WHERE tokenHash = 'over'").all([]);
    looked.close();
    return rows;
  };
  // The server that was started again has a port of its own.
  await mailbag.client.until<unknown>(
    '/api/health',
    () => !existsSync(path(left)) && !existsSync(`${path(left)}.name`) && sessions().length === 0,
  );
  expect([left, used, fresh].map((id) => existsSync(path(id)))).toEqual([false, true, true]);
  expect(sessions()).toEqual([]);
});
