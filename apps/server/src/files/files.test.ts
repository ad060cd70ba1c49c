import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { unzip } from '../../../../packages/core/src/testing/unzip.js';
import { config } from '../platform/config.js';
import { isPlaceTaken, readCopyFile, syncCopies, writeCopyFile } from './copy-file.js';
import { fileKey, pathOf } from './file-key.js';
import { digestOf, has, list, open, put, read, remove, rename, stat } from './files.js';
import { WholeFile } from './whole-file.js';
import type { ZipPart } from './zip-of-files.js';
import { zipOfFiles } from './zip-of-files.js';

const before = config.dataFolder;
beforeEach(() => void (config.dataFolder = mkdtempSync(join(tmpdir(), 'mailbag-files-'))));
afterEach(() => {
  rmSync(config.dataFolder, { recursive: true });
  config.dataFolder = before;
});
const digest = (text: string): string => createHash('sha256').update(text).digest('hex');
const spool = (): string[] => (existsSync(join(config.dataFolder, 'spool')) ? readdirSync(join(config.dataFolder, 'spool')) : []);

test('a key names one file on its shelf and never leads elsewhere', () => {
  expect(fileKey('archive', '2027', 'Plot 12.pdf')).toBe('archive/2027/Plot 12.pdf');
  for (const part of ['..', '.', '', 'a/../b', 'a//b', '/etc/passwd', 'a\0b'])
    expect(() => fileKey('archive', part)).toThrow('does not name a file');
});

test('what is put is there with its size and digest, replaces what was there, and leaves nothing aside', async () => {
  const key = fileKey('archive', 'a', 'b.txt');
  expect(await put(key, 'first')).toEqual({ size: 5, digest: digest('first') });
  async function* pieces() {
    yield 'sec';
    await Promise.resolve();
    yield Buffer.from('ond');
  }
  expect(await put(key, pieces())).toEqual({ size: 6, digest: digest('second') });
  expect(readFileSync(join(config.dataFolder, 'archive', 'a', 'b.txt'), 'utf8')).toBe('second');
  expect([await digestOf(key), (await stat(key))?.size, await has(key), String(await read(key))]).toEqual([
    digest('second'),
    6,
    true,
    'second',
  ]);
  expect(spool()).toEqual([]);
});

test('a file that breaks off while it is put leaves what was there, and nothing else', async () => {
  const key = fileKey('registers', 'r', 'one.json');
  await put(key, 'whole');

  async function* broken() {
    yield 'ha';
    throw new Error('gone');
  }
  await expect(put(key, broken())).rejects.toThrow('gone');
  expect(String(await read(key))).toBe('whole');
  expect(spool()).toEqual([]);
});

test('what is not there is null and can be removed again; folders that are empty go with their last file', async () => {
  const key = fileKey('archive', '2027', 'spring', 'a.pdf');
  expect([await open(key), await read(key), await stat(key), await digestOf(key), await has(key)]).toEqual([null, null, null, null, false]);
  expect(await has('archive/2027')).toBe(false);
  await remove(key);
  await put(key, 'a');
  await put(fileKey('archive', '2027', 'b.pdf'), 'b');
  expect([await read('archive/2027'), await has('archive/2027')]).toEqual([null, false]);
  await remove(key);
  expect(readdirSync(join(config.dataFolder, 'archive', '2027'))).toEqual(['b.pdf']);
  await remove(fileKey('archive', '2027', 'b.pdf'));
  expect(readdirSync(join(config.dataFolder, 'archive'))).toEqual([]);
});

test('files are listed by their names and renamed from shelf to shelf', async () => {
  expect(await list('sources')).toEqual([]);
  await put(fileKey('sources', 'b'), '1');
  await put(fileKey('sources', 'a'), '2');
  await put(fileKey('sources', 'deep', 'c'), '3');
  expect(await list('sources')).toEqual(['sources/a', 'sources/b']);
  expect(await list('sources', 'deep')).toEqual(['sources/deep/c']);
  await rename(fileKey('sources', 'a'), fileKey('attachments', 'new', 'a'));
  expect([await has('sources/a'), String(await read('attachments/new/a'))]).toEqual([false, '2']);
});

test('a copy is written whole, read back with what is too much of it, and brought to the disk', async () => {
  const key = fileKey('archive', 'x', 'copy.pdf');
  const bytes = Buffer.from('%PDF-1.7 of two parts');
  writeCopyFile(key, { bytes, parts: [bytes.subarray(0, 9), bytes.subarray(9)], notes: [] } as never, fileKey('spool', 'copy-1.part'));
  await syncCopies([key]);
  expect(Buffer.from(readCopyFile(key, bytes.length))).toEqual(bytes);
  expect(readCopyFile(key, 5)).toHaveLength(6);
  expect(spool()).toEqual([]);
  // A folder that somebody has taken away is made again.
  rmSync(join(config.dataFolder, 'archive'), { recursive: true });
  const write = () => writeCopyFile(key, { bytes, parts: [bytes], notes: [] } as never, fileKey('spool', 'copy-2.part'));
  expect(write).toThrow(expect.objectContaining({ code: 'batch-not-made' }) as Error);
  write();
  expect(await has(key)).toBe(true);
});

test('a place is taken by a file and by a folder of that name, and by nothing below a file', async () => {
  await put(fileKey('archive', '2027', 'a.pdf', 'b.pdf'), 'x');
  await put(fileKey('archive', 'c.pdf'), 'x');
  const taken = (...parts: string[]): boolean => isPlaceTaken(fileKey('archive', ...parts));
  expect([taken('2027', 'a.pdf'), taken('2027', 'a.pdf', 'b.pdf'), taken('c.pdf')]).toEqual([true, true, true]);
  expect([taken('2027', 'b.pdf'), taken('c.pdf', 'd.pdf'), taken('d.pdf')]).toEqual([false, false, false]);
});

test('a file that is written piece by piece is there when it is kept, and not at all when it is dropped', async () => {
  const key = fileKey('print-runs', 'run-1.pdf');
  const file = new WholeFile(key);
  file.write(Buffer.from('abc'));
  expect(await has(key)).toBe(false);
  file.write(Buffer.from('def'));
  file.keep();
  expect([String(await read(key)), file.size]).toEqual(['abcdef', 6]);
  const dropped = new WholeFile(fileKey('print-runs', 'run-2.pdf'));
  dropped.write(Buffer.from('abc'));
  dropped.drop();
  expect([await list('print-runs'), spool()]).toEqual([[key], []]);
});

test('a zip holds the files that are there and what is made meanwhile', async () => {
  const key = fileKey('archive', 'a.pdf');
  await put(key, 'of the archive');

  async function* parts(): AsyncGenerator<ZipPart> {
    yield { key, name: 'in/a.pdf', at: new Date(2027, 0, 1) };
    yield { key: fileKey('archive', 'gone.pdf'), name: 'gone.pdf' };
    yield {
      name: 'manifest.csv',

      text: (async function* () {
        yield 'a,b\r\n';
      })(),
    };
  }
  const zip = unzip(await buffer(zipOfFiles(parts())));
  const held = await Promise.all(zip.parts.map(async ({ name }) => [name, String(await buffer(zip.read(name)))]));
  expect(Object.fromEntries(held)).toEqual({ 'in/a.pdf': 'of the archive', 'manifest.csv': 'a,b\r\n' });
  expect(pathOf(key).endsWith(join('archive', 'a.pdf'))).toBe(true);
});
