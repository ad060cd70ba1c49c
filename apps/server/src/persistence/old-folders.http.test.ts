import { createHash } from 'node:crypto';
import { createWriteStream, mkdirSync, mkdtempSync, readFileSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import Database from 'libsql';
import yauzl from 'yauzl';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';

const OLD = 'testing/old-folders';

/** Unpacks a folder of an earlier version. */
async function unpacked(name: string): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-old-'));
  const zip = await new Promise<yauzl.ZipFile>((done, fail) =>
    yauzl.open(join(OLD, name), { lazyEntries: true, autoClose: false }, (error, opened) => (error ? fail(error) : done(opened))),
  );
  const entries = await new Promise<yauzl.Entry[]>((done, fail) => {
    const all: yauzl.Entry[] = [];
    zip
      .on('entry', (entry: yauzl.Entry) => void (all.push(entry), zip.readEntry()))
      .once('end', () => done(all))
      .once('error', fail);
    zip.readEntry();
  });
  for (const entry of entries) {
    const path = join(folder, entry.fileName);
    mkdirSync(dirname(path), { recursive: true });
    const stream = await new Promise<NodeJS.ReadableStream>((done, fail) =>
      zip.openReadStream(entry, (error, opened) => (error ? fail(error) : done(opened))),
    );
    await pipeline(stream, createWriteStream(path, { mode: 0o600 }));
  }
  zip.close();
  return folder;
}

/** Tells a folder where the stand-in post office is, and where bounces go. */
function led(folder: string, smtp: number): void {
  const database = new Database(join(folder, 'mailbag.sqlite'));
  const has = (table: string): boolean => database.prepare('SELECT 1 FROM sqlite_master WHERE name = ?').all([table]).length > 0;
  if (has('mail_server')) database.prepare('UPDATE mail_server SET port = ?').run([smtp]);
  else database.prepare("UPDATE setting SET value = json_set(value, '$.port', ?) WHERE name = 'mail'").run([smtp]);
  database.prepare('INSERT OR REPLACE INTO setting (name, value) VALUES (?, ?)').run([
    'bounces',
    JSON.stringify({
      address: 'bounces@larkmere.example',
      host: '',
      port: 993,
      tls: true,
      checkCertificate: true,
      user: '',
      folder: '',
      smtpPort: 0,
      sealed: '',
    }),
  ]);
  database.close();
}

interface Row {
  id: number;
  recipient: string;
  state: string;
}

test.concurrent.each(readdirSync(OLD).filter((name) => name.endsWith('.zip')))(
  '%s: what was queued goes on with a token of its own, what was under way is settled by a person, and everything is found',
  async (name) => {
    const office = await PostOffice.open();
    const folder = await unpacked(name);
    led(folder, office.smtp);
    const mailbag = new RunningMailbag({}, folder);
    try {
      await mailbag.start();
      await mailbag.signIn();
      const { client } = mailbag;
      const { rows } = await client.until<{ rows: Row[] }>('/api/copies?count=50', (page) =>
        page.rows.some(({ recipient, state }) => recipient === 'Queued Quinn' && state === 'sent'),
      );
      expect(Object.fromEntries(rows.map(({ recipient, state }) => [recipient, state]))).toEqual({
        'Sent Sue': 'sent',
        'Queued Quinn': 'sent',
        'Under Way Uma': 'unconfirmed',
        'Paper Pat': 'made',
      });
      const letters = await office.letters();
      expect(letters.map(({ to }) => to)).toEqual(['quinn@example.org']);
      expect(letters[0]!.returnPath).toMatch(/^bounces\+[a-z0-9]{16,}@larkmere\.example$/);
      // Search, records, plan, copies, checks: what people open is there.
      expect((await client.get<{ rows: Row[] }>('/api/copies?text=quin')).rows).toHaveLength(1);
      const [mailing] = await client.get<{ id: number; records: number }[]>('/api/mailings');
      expect(mailing).toMatchObject({ records: 4 });
      await client.until<{ current: boolean }>(`/api/mailings/${mailing!.id}/checks`, ({ current }) => current);
      for (const { id } of rows)
        expect(new TextDecoder().decode((await client.bytes(`/api/copies/${id}/pdf`)).subarray(0, 5))).toBe('%PDF-');
      // Nobody who has a copy runs again by default.
      expect(await client.send('POST', `/api/mailings/${mailing!.id}/start`, { who: 'new' })).toMatchObject({
        records: 0,
        counts: { 'has-one': 4 },
      });
    } finally {
      await mailbag.close();
      await office.close();
    }
  },
);

/** A migration that people have run is never edited: what is to be different goes into a new one. Its digest is added with it. */
test('migrations that were in use are as they were', () => {
  const folder = 'apps/server/src/migrations';
  const digests = Object.fromEntries(
    readdirSync(folder).map((name) => [
      name,
      createHash('sha256')
        // Where its types stand is no part of what it does.
        .update(readFileSync(join(folder, name), 'utf8').replace(/^import .*\n/gm, ''))
        .digest('hex')
        .slice(0, 16),
    ]),
  );
  expect(digests).toEqual({
    '0001-first-tables.ts': '521d76cf3ee02e6c',
    '0002-records-from-anywhere.ts': 'd22218f097b3e3c2',
    '0003-delivery-and-ledger.ts': 'c6f3c699ba89dbee',
    '0004-safe-keeping.ts': '253243b12bb58be2',
    '0005-older-folders.ts': '5ebad76921f36bc4',
    '0006-waiting-deliveries.ts': 'ce5b600ed3ed2568',
    '0007-keys.ts': '5abac3285eb243b0',
    '0008-jobs.ts': 'cff469ed0ab8e0bf',
    '0009-principals.ts': '8b9f898838a95ab3',
    '0010-source-kinds.ts': '0685e70e9684c609',
    '0011-layouts.ts': 'db64d0fb7410d814',
    '0012-mailing-changes.ts': '1762461ed0294b76',
    '0013-copies-of-items.ts': '974b00dff7deed41',
    '0014-source-pictures.ts': '9f1ae73f30e820e4',
    '0015-intakes.ts': '7893e010cc3e97ab',
    '0016-personal-links.ts': 'a0d27399b36f5421',
    '0017-languages.ts': '55550ef98bd8a13d',
    '0018-wastebasket.ts': '502a035a91c32b42',
    '0019-batch-mails.ts': 'f599b5c40f187aea',
    '0020-plain-names.ts': 'f5b4dad7b3e60fc2',
    '0021-settings-wastebasket.ts': '46f3bc7cafd65b81',
  });
});
