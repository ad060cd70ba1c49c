import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';

const folder = mkdtempSync(join(tmpdir(), 'mailbag-lock-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const door = pathToFileURL(join(process.cwd(), 'packages/folder/dist/index.js')).href;
/** A process that takes the folder and says how that went; it keeps it until it is ended. */
function taker() {
  const child = spawn(process.execPath, [
    '--input-type=module',
    '-e',
    `import { lockFolder } from '${door}';
    try { globalThis.lock = lockFolder(${JSON.stringify(folder)}); console.log('taken'); setInterval(() => {}, 1000); } catch (error) { console.log(error.code + ' ' + error.fields.pid); }`,
  ]);
  const output = new Promise<string>((resolve) => child.stdout.once('data', (data: Buffer) => resolve(data.toString().trim())));
  const gone = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  return { output, pid: child.pid!, kill: (signal: NodeJS.Signals) => (child.kill(signal), gone) };
}

test('a folder has one holder; the second is told which process that is, and a killed holder leaves it free', async () => {
  const first = taker();
  expect(await first.output).toBe('taken');
  const second = taker();
  expect(await second.output).toBe(`folder-in-use ${first.pid}`);
  await first.kill('SIGKILL');
  const third = taker();
  expect(await third.output).toBe('taken');
  await Promise.all([second.kill('SIGKILL'), third.kill('SIGKILL')]);
});
