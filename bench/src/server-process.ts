import type { ChildProcess } from 'node:child_process';
import { fork } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../../', import.meta.url));

function start<Ready>(script: string, args: string[], env: Record<string, string>): Promise<{ child: ChildProcess; ready: Ready }> {
  const child = fork(join(root, script), args, {
    env: { ...process.env, MALLOC_ARENA_MAX: '2', MAILBAG_LOCAL_TARGETS: 'all', ...env },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  return new Promise((resolve, reject) => {
    child.once('message', (message) => resolve({ child, ready: message as Ready }));
    child.once('exit', (code) => reject(new Error(`${script} ended with ${code}`)));
  });
}

/** Megabytes that a process has in memory now and had at most (Linux). */
export function memoryOf(pid: number): { now: number; peak: number } {
  const status = readFileSync(`/proc/${pid}/status`, 'utf8');
  const read = (name: string): number => Number(new RegExp(`${name}:\\s+(\\d+)`).exec(status)?.[1] ?? 0) / 1024;
  return { now: Math.round(read('VmRSS')), peak: Math.round(read('VmHWM')) };
}

/** Seconds of processor time that a process has had (Linux: fields 14 and 15 of its stat, in hundredths). Unlike the clock, it hardly depends on what else the machine does. */
export function processorSeconds(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
}

/** From here on, the peak is that of what follows. */
export const forgetPeak = (pid: number): void => writeFileSync(`/proc/${pid}/clear_refs`, '5');

/** A built server and a stand-in post office on free ports of loopback, with a data folder of their own. */
export async function startMailbag(env: Record<string, string> = {}): Promise<{
  address: string;
  smtp: number;
  page: string;
  code(address: string): Promise<string>;
  pid: number;
  data: string;
  stop(): void;
}> {
  const data = mkdtempSync(join(tmpdir(), 'mailbag-bench-'));
  const office = await start<{ smtp: number; page: number }>('standins/dist/mail/main.js', ['0', '0', '0'], {});
  const server = await start<{ port: number }>('apps/server/bin/server.mjs', [], { MAILBAG_PORT: '0', MAILBAG_DATA: data, ...env });
  return {
    address: `http://127.0.0.1:${server.ready.port}`,
    smtp: office.ready.smtp,
    page: `http://127.0.0.1:${office.ready.page}`,
    async code(address) {
      const all = (await (await fetch(`http://127.0.0.1:${office.ready.page}/messages.json`)).json()) as { to: string; subject: string }[];
      return all
        .filter(({ to }) => to === address)
        .at(-1)!
        .subject.slice(0, 6);
    },
    pid: server.child.pid!,
    data,
    stop() {
      server.child.kill('SIGKILL');
      office.child.kill('SIGKILL');
      rmSync(data, { recursive: true, force: true });
    },
  };
}
