import { spawn, spawnSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..');

/** Runs a command to its end with its output shown; ends this process when it fails. */
export function must(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (result.status !== 0) process.exit(result.status ?? 1);
}

/**
 * Runs commands at the same time and ends this process as soon as one of them fails, the others with it. A `quiet` one gives way to the others and has its
 * output in one piece; of the others it is seen as it comes.
 */
export async function mustTogether(...commands) {
  const children = new Set();
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.once(signal, () => {
      for (const child of children) child.kill();
      process.exit(1);
    });
  const run = ({ command, args, env = process.env, quiet = false }) =>
    new Promise((resolve) => {
      const child = spawn(command, args, { cwd: root, env, stdio: quiet ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'] });
      children.add(child);
      const output = [];
      if (quiet) {
        setPriority(child.pid, constants.priority.PRIORITY_LOW);
        for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => output.push(chunk));
      }
      child.on('close', (status) => {
        children.delete(child);
        process.stdout.write(Buffer.concat(output));
        if (status === 0) return resolve();
        for (const other of children) other.kill();
        process.exit(status ?? 1);
      });
    });
  await Promise.all(commands.map(run));
}

/** Installs the dependencies when they are not there or older than the lock file. */
export function install() {
  const marker = join(root, 'node_modules/.package-lock.json');
  const isFresh = existsSync(marker) && statSync(marker).mtimeMs >= statSync(join(root, 'package-lock.json')).mtimeMs;
  if (!isFresh) must('npm', ['ci', '--no-audit', '--no-fund']);
}

export const build = () => must('npm', ['run', 'build', '--silent']);

/** Starts a Node program and resolves with what it sends first. It ends with this process. */
export function startProcess(script, args = [], env = {}) {
  const child = spawn(process.execPath, [join(root, script), ...args], {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    // Threads of one process share their room: each with its own holds a third more (glibc, mallopt).
    env: { MALLOC_ARENA_MAX: '2', ...process.env, ...env },
  });
  const ready = new Promise((resolve, reject) => {
    child.once('message', resolve);
    child.once('exit', () => reject(new Error(`${script} ended before it was ready`)));
  });
  // What went wrong it has said itself.
  ready.catch(() => process.exit(1));
  return { child, ready };
}

/** The value after `--name`, or of `--name=value`. */
export function option(name, fallback) {
  const args = process.argv.slice(2);
  const at = args.findIndex((arg) => arg === `--${name}` || arg.startsWith(`--${name}=`));
  if (at < 0) return fallback;
  const value = args[at].includes('=') ? args[at].slice(args[at].indexOf('=') + 1) : args[at + 1];
  if (!value) {
    console.error(`--${name} needs a value.`);
    process.exit(2);
  }
  return value;
}

/** The port to listen on. Ports that no browser opens (mail, remote shells and the like) are refused at once, before the long build. */
export async function webPort(fallback) {
  const port = option('port', fallback);
  const isNumber = /^\d{1,5}$/.test(port) && Number(port) < 65536;
  const refused =
    isNumber && Number(port) > 0 && (await fetch(`http://127.0.0.1:${port}/`).catch((error) => error)).cause?.message === 'bad port';
  if (isNumber && !refused) return port;
  console.error(
    `--port ${port} ${refused ? 'is kept for another service, so browsers do not open it' : 'is no port'}. Choose another one, such as ${fallback}.`,
  );
  process.exit(2);
}

/** Ends the children with this process. */
export function endTogether(...children) {
  for (const signal of ['SIGINT', 'SIGTERM']) {
    process.on(signal, () => {
      for (const child of children) child.kill('SIGTERM');
      setTimeout(() => process.exit(0), 9000).unref();
    });
  }
  for (const child of children) child.on('exit', () => process.exit(0));
}
