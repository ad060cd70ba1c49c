import { createHash } from 'node:crypto';
import { execFile } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { promisify } from 'node:util';

/** The thread is compiled code, so the writer is, too. */
const compiled = pathToFileURL('packages/host/dist/index.js').href;
/** Runs a script of its own beside the writer. @returns what it printed */
async function running(script: string, ...args: string[]): Promise<string> {
  const code = `import { CopyWriter } from ${JSON.stringify(compiled)}; const [folder] = process.argv.slice(1); ${script}`;
  const { stdout } = await promisify(execFile)(process.execPath, ['--input-type=module', '-e', code, ...args]);
  return stdout.trim();
}

let folder = '';
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'mailbag-writer-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

const sha = (bytes: Uint8Array | string): string => createHash('sha256').update(bytes).digest('hex');

test('copies of all sizes are in their places when it is flushed, whatever they share', async () => {
  await running(
    `const bases = ['first', 'second'].map((text) => Buffer.from(text.repeat(1000)));
     const writer = new CopyWriter();
     for (let index = 0; index < 4000; index++) {
       const own = Buffer.alloc((index * 7919) % 60000, String(index));
       writer.write(folder + '/' + index + ' ä.pdf', { parts: index % 3 === 2 ? [own] : [bases[index % 3], own, Buffer.from('%%EOF')] });
     }
     writer.write(folder + '/large.pdf', { parts: [bases[0], Buffer.alloc(20_000_000, 'L')] });
     writer.end();`,
    folder,
  );
  expect(readdirSync(folder)).toHaveLength(4001);
  const shared = ['first', 'second'].map((text) => text.repeat(1000));
  for (let index = 0; index < 4000; index++) {
    const own = Buffer.alloc((index * 7919) % 60_000, String(index)).toString();
    const meant = index % 3 === 2 ? own : `${shared[index % 3]}${own}%%EOF`;
    if (sha(readFileSync(join(folder, `${index} ä.pdf`))) !== sha(meant)) throw new Error(`Copy ${index} is not what was handed over.`);
  }
  expect(readFileSync(join(folder, 'large.pdf'))).toHaveLength(20_005_000);
});

test('what cannot be written is told with its path, at the latest when it ends; nothing is written after it', async () => {
  const output = await running(
    `const writer = new CopyWriter();
     writer.write(folder + '/one.pdf', { parts: [Buffer.from('1')] });
     writer.write(folder + '/missing/two.pdf', { parts: [Buffer.from('2')] });
     try { for (let index = 0; index < 1000; index++) writer.write(folder + '/later.pdf', { parts: [Buffer.alloc(100_000)] }); } catch {}
     try { writer.end(); } catch ({ code, path }) { console.log(code, path); }`,
    folder,
  );
  expect(output).toBe(`ENOENT ${folder}/missing/two.pdf`);
  expect(readdirSync(folder)).toEqual(['one.pdf']);
});
