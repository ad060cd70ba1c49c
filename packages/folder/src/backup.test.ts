import { createWriteStream, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { finished } from 'node:stream/promises';
import Database from 'libsql';
import yazl from 'yazl';
import { backup } from './backup.js';
import { restore } from './restore.js';

const parent = mkdtempSync(join(tmpdir(), 'mailbag-backup-'));
afterAll(() => rmSync(parent, { recursive: true, force: true }));
const folder = join(parent, 'data');
const put = (name: string, text: string | Buffer): void => {
  mkdirSync(dirname(join(folder, name)), { recursive: true });
  writeFileSync(join(folder, name), text);
};
beforeAll(() => {
  mkdirSync(folder);
  const database = new Database(join(folder, 'mailbag.sqlite'));
  database.pragma('journal_mode = WAL');
  database.exec('CREATE TABLE t (n INTEGER, twice INTEGER); INSERT INTO t VALUES (1, 2)');
  database.close();
  put('secret.key', Buffer.alloc(32, 7));
  put('archive/2027/Plot A — Łucja.pdf', '%PDF a');
  put('archive/Manifests/Batch 1.csv', 'x');
  put('templates/abc.pdf', Buffer.alloc(300_000, 'p'));
  put('faces/Own.ttf', 'f');
  put('spool/copy-1.part', 'half');
  put('archive/half.part', 'half');
  put('backups/mailbag 2027.zip', 'old');
  put('mailbag.stamp', '{}');
});
const files = (place: string): string[] =>
  readdirSync(place, { recursive: true, encoding: 'utf8' })
    .filter((name) => statSync(join(place, name)).isFile())
    .sort();

test('what comes back is what was there: the database, the key and every file that is kept, and no half ones', async () => {
  const path = join(parent, 'one.zip');
  const manifest = await backup(folder, path);
  expect(manifest.gone).toEqual([]);
  expect(statSync(path).mode & 0o077).toBe(0);
  const back = join(parent, 'back');
  await restore(path, back);
  expect(files(back)).toEqual([
    'archive/2027/Plot A — Łucja.pdf',
    'archive/Manifests/Batch 1.csv',
    'faces/Own.ttf',
    'mailbag.sqlite',
    'mailbag.stamp',
    'secret.key',
    'templates/abc.pdf',
  ]);
  for (const name of files(back).filter((one) => !one.startsWith('mailbag')))
    expect(readFileSync(join(back, name)).equals(readFileSync(join(folder, name)))).toBe(true);
  const database = new Database(join(back, 'mailbag.sqlite'));
  expect(database.prepare('SELECT n, twice FROM t').all([])).toEqual([{ n: 1, twice: 2 }]);
  database.close();
  expect(statSync(back).mode & 0o077).toBe(0);
  expect(files(parent).filter((name) => name.startsWith('one.zip'))).toEqual(['one.zip']);
});

test('a database that is written to meanwhile is backed up as it was at one moment', async () => {
  const writer = new Database(join(folder, 'mailbag.sqlite'));
  let isOver = false;
  const writing = (async () => {
    for (let n = 2; !isOver; n++) {
      writer.exec(`BEGIN; INSERT INTO t (n) VALUES (${n}); UPDATE t SET twice = n * 2 WHERE n = ${n}; COMMIT`);
      await new Promise((done) => setImmediate(done));
    }
  })();
  for (let round = 0; round < 3; round++) {
    await backup(folder, join(parent, `busy ${round}.zip`));
    await restore(join(parent, `busy ${round}.zip`), join(parent, `busy ${round}`));
    const database = new Database(join(parent, `busy ${round}`, 'mailbag.sqlite'));
    expect(database.prepare('SELECT COUNT(*) AS wrong FROM t WHERE twice IS NOT n * 2').all([])).toEqual([{ wrong: 0 }]);
    database.close();
  }
  isOver = true;
  await writing;
  writer.close();
});

/** A backup that somebody has changed. */
async function changed(
  name: string,
  change: (entries: Map<string, Buffer>, manifest: { files: { name: string; size: number; sha256: string }[] }) => void,
): Promise<string> {
  const { openPromise } = await import('yauzl');
  const { buffer } = await import('node:stream/consumers');
  const zip = await openPromise(join(parent, 'one.zip'), { autoClose: false, lazyEntries: true });
  const entries = new Map<string, Buffer>();
  for await (const entry of zip.eachEntry()) entries.set(entry.fileName, await buffer(await zip.openReadStreamPromise(entry)));
  zip.close();
  const manifest = JSON.parse(entries.get('manifest.json')!.toString()) as Parameters<typeof change>[1];
  change(entries, manifest);
  entries.set('manifest.json', Buffer.from(JSON.stringify(manifest)));
  const out = new yazl.ZipFile();
  for (const [path, bytes] of entries) out.addBuffer(bytes, path);
  out.end();
  const path = join(parent, name);
  await finished(out.outputStream.pipe(createWriteStream(path)));
  return path;
}
test.each<[string, Parameters<typeof changed>[1], RegExp]>([
  ['has another byte in a file', (entries) => entries.get('templates/abc.pdf')!.write('x', 100), /is not what was backed up/],
  ['lacks a file', (entries) => entries.delete('secret.key'), /secret\.key is missing/],
  ['has a file more', (entries) => entries.set('archive/more.pdf', Buffer.from('x')), /more\.pdf is in it, but not in its manifest/],
  ['has a shorter file', (entries) => entries.set('faces/Own.ttf', Buffer.from('')), /has 0 bytes in place of 1/],
  [
    'leads out of the folder',
    (_, { files: list }) => (list.at(-1)!.name = 'archive/../../elsewhere'),
    /leads out of the folder|is in it, but not/,
  ],
  [
    'would write beside the folders',
    (_, { files: list }) => (list.at(-1)!.name = 'server.js'),
    /leads out of the folder|is in it, but not/,
  ],
  [
    'has no database',
    (entries, manifest) => (
      entries.delete('mailbag.sqlite'),
      (manifest.files = manifest.files.filter(({ name }) => name !== 'mailbag.sqlite'))
    ),
    /holds no database/,
  ],
  [
    'has a damaged database',
    (entries, { files: list }) => {
      const bytes = entries.get('mailbag.sqlite')!;
      bytes.fill(0xff, 4096, 4200);
      const { createHash } = jest.requireActual<typeof import('node:crypto')>('node:crypto');
      list.find(({ name }) => name === 'mailbag.sqlite')!.sha256 = createHash('sha256').update(bytes).digest('hex');
    },
    /database is damaged|malformed|not a database/,
  ],
])('a backup that %s is refused, and nothing is written', async (what, change, why) => {
  const path = await changed(`changed ${what}.zip`, change);
  const target = join(parent, `never ${what}`);
  await expect(restore(path, target)).rejects.toThrow(why);
  expect(existsSync(target)).toBe(false);
  expect(existsSync(`${target}.restoring`)).toBe(false);
});
test.each([
  ['is no zip', () => 'no zip'],
  ['is cut off', () => readFileSync(join(parent, 'one.zip')).subarray(0, 1000)],
])('a file that %s is refused with a sentence', async (what, bytes) => {
  writeFileSync(join(parent, `${what}.zip`), bytes());
  await expect(restore(join(parent, `${what}.zip`), join(parent, 'never'))).rejects.toMatchObject({ code: 'restore-failed' });
});
test('a folder with something in it is left alone', async () => {
  await expect(restore(join(parent, 'one.zip'), folder)).rejects.toMatchObject({ code: 'restore-not-empty' });
});
test('a backup of what is no data folder, or to where nothing can be written, leaves nothing behind', async () => {
  await expect(backup(join(parent, 'nowhere'), join(parent, 'x.zip'))).rejects.toMatchObject({ code: 'backup-failed' });
  await expect(backup(folder, join(parent, 'no such folder', 'x.zip'))).rejects.toMatchObject({ code: 'backup-failed' });
  expect(existsSync(join(parent, 'x.zip'))).toBe(false);
});
