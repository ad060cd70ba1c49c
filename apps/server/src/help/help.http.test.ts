import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Parser } from 'htmlparser2';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';

/** The manual as it is served, without a network and without signing in. */
const manual = join(import.meta.dirname, '../../../../docs/manual');
const pagesIn = (folder: string): string[] => readdirSync(folder).filter((name) => name.endsWith('.md')).sort(); // prettier-ignore
const files = pagesIn(manual);
const germanFiles = pagesIn(join(manual, 'de'));
const mailbag = new RunningMailbag();
beforeAll(() => mailbag.start());
afterAll(() => mailbag.close());
const read = async (path: string): Promise<{ status: number; type: string; text: string }> => {
  const answer = await fetch(mailbag.address + path);
  return { status: answer.status, type: answer.headers.get('content-type') ?? '', text: await answer.text() };
};
/** Where the links and pictures of a page lead. */
function targetsOf(html: string): { links: string[]; pictures: string[]; described: boolean } {
  const found = { links: [] as string[], pictures: [] as string[], described: true };
  const parser = new Parser({
    onopentag: (name, { href, src, alt }) => {
      if (name === 'a' && href) found.links.push(href);
      if (name === 'img' && src) {
        found.pictures.push(src);
        found.described &&= (alt ?? '') !== '';
      }
    },
  });
  parser.end(html);
  return found;
}

test('every page is there, and everything that it leads to and shows is there too', async () => {
  expect(files.length).toBeGreaterThanOrEqual(10);
  const seen = new Set<string>();
  expect(germanFiles).toEqual(files);
  for (const file of [...files, ...germanFiles.map((name) => `de/${name}`)]) {
    const path = `/help/${file.replace(/(^|\/)\d+-/, '$1').replace(/\.md$/, '')}`;
    const { status, type, text } = await read(path);
    expect([path, status, type]).toEqual([path, 200, 'text/html; charset=utf-8']);
    const { links, pictures, described } = targetsOf(text);
    expect([path, described]).toEqual([path, true]);
    for (const target of [...links, ...pictures]) {
      if (seen.has(target)) continue;
      seen.add(target);
      const answer = await fetch(mailbag.address + target);
      expect([file, target, answer.status]).toEqual([file, target, 200]);
      if (target.endsWith('.png')) expect(answer.headers.get('content-type')).toBe('image/png');
    }
  }
  expect((await read('/help')).text).toContain('What Mailbag does');
  const german = await read('/help/de');
  expect(german.text).toContain('<html lang="de">');
  expect(german.text).toContain('Was Mailbag tut');
});

test('what is not there is said, and nothing beside the pictures is given out', async () => {
  for (const nowhere of ['/help/nowhere', '/help/de/nowhere', '/help/fr']) expect((await read(nowhere)).status).toBe(404);
  for (const path of ['/help/pictures/..%2f..%2fpackage.json', '/help/pictures/%2e%2e/errors.md', '/help/pictures/none.png'])
    expect([path, (await read(path)).status >= 400]).toEqual([path, true]);
});

test('the words that the manual puts in bold stand on the screens', () => {
  const sources: string[] = [];
  const collect = (folder: string): void => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) collect(path);
      else if (/\.tsx?$/.test(entry.name) && !entry.name.includes('.test.')) sources.push(readFileSync(path, 'utf8'));
    }
  };
  const repository = join(import.meta.dirname, '../../../..');
  for (const folder of ['apps/web/src', 'packages/core/src/copies', 'packages/core/src/map/kinds']) collect(join(repository, folder));
  const screens = sources.join('\n').toLowerCase();
  expect(existsSync(manual)).toBe(true);
  for (const file of files)
    for (const [, words] of readFileSync(join(manual, file), 'utf8').matchAll(/\*\*(.+?)\*\*/g))
      expect([file, words, screens.includes(words!.toLowerCase())]).toEqual([file, words, true]);
});

test('the words that the German manual puts in bold are those of the German screens, beginning and end of words aside', () => {
  const words = join(import.meta.dirname, '../../../web/src/words/de');
  const said = readdirSync(words)
    .flatMap((file) => Object.values(JSON.parse(readFileSync(join(words, file), 'utf8')) as Record<string, string>))
    .map((text) => text.toLowerCase());
  for (const file of germanFiles)
    for (const [, bold] of readFileSync(join(manual, 'de', file), 'utf8').matchAll(/\*\*(.+?)\*\*/g))
      expect([file, bold, said.includes(bold!.toLowerCase())]).toEqual([file, bold, true]);
});
