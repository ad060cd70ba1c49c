import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PATIENCE } from './patience.js';
import { freePort } from './ports.js';

/** Neither server runs as root; an unprivileged user is there on every Debian. */
const NOBODY = 65_534;
const isRoot = process.getuid?.() === 0;
const as = isRoot ? { uid: NOBODY, gid: NOBODY } : {};

function ownFolder(name: string): string {
  const folder = mkdtempSync(join(tmpdir(), `mailbag-${name}-`));
  if (isRoot) chownSync(folder, NOBODY, NOBODY);
  return folder;
}

function run(command: string, args: string[]): void {
  const { status, stderr, stdout, error } = spawnSync(command, args, {
    ...as,
    encoding: 'utf8',
    env: { ...process.env, LC_ALL: 'C.UTF-8' },
  });
  if (status !== 0) throw new Error(`${command} ended with ${status}: ${error?.message ?? ''}${stdout}${stderr}`);
}

async function untilOpen(port: number, child: ChildProcess, output: () => string): Promise<void> {
  for (const end = Date.now() + PATIENCE; Date.now() < end;) {
    if (child.exitCode !== null) throw new Error(`the database server ended: ${output()}`);
    const isOpen = await new Promise<boolean>((resolve) => {
      const socket = connect(port, '127.0.0.1');
      socket.once('connect', () => resolve(true)).once('error', () => resolve(false));
      socket.once('connect', () => socket.destroy());
    });
    if (isOpen) return;
    await new Promise((done) => setTimeout(done, 100));
  }
  throw new Error(`the database server did not open its port: ${output()}`);
}

/** A real database server on a free port of loopback, in a folder of its own, run without privileges. */
export class DatabaseServer {
  private constructor(
    readonly port: number,
    private readonly folder: string,
    private readonly child: ChildProcess,
  ) {}

  private static async launch(folder: string, port: number, command: string, args: string[]): Promise<DatabaseServer> {
    const child = spawn(command, args, { ...as, stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()));
    child.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()));
    await untilOpen(port, child, () => output);
    return new DatabaseServer(port, folder, child);
  }

  /** PostgreSQL with the user `office` and its password `plots`. */
  static async postgres(): Promise<DatabaseServer> {
    const base = '/usr/lib/postgresql';
    // The client alone makes a folder of its version too.
    const versions = existsSync(base) ? readdirSync(base).filter((one) => existsSync(join(base, one, 'bin/initdb'))) : [];
    const version = versions.sort((a, b) => Number(b) - Number(a))[0];
    if (!version) throw new Error('PostgreSQL is not installed: apt-get install postgresql');
    const bin = join(base, version, 'bin');
    const folder = ownFolder('postgres');
    const data = join(folder, 'data');
    run('/bin/sh', [
      '-c',
      `printf plots > ${folder}/pw && ${bin}/initdb -D ${data} -U office --pwfile=${folder}/pw -A scram-sha-256 -E UTF8 --no-sync >/dev/null`,
    ]);
    const port = await freePort();
    return DatabaseServer.launch(folder, port, join(bin, 'postgres'), [
      '-D',
      data,
      '-p',
      String(port),
      '-c',
      'listen_addresses=127.0.0.1',
      '-c',
      `unix_socket_directories=${folder}`,
      '-c',
      'fsync=off',
    ]);
  }

  /** MariaDB with the user `root` without a password, from this machine only. */
  static async mariadb(): Promise<DatabaseServer> {
    const server = ['/usr/sbin/mariadbd', '/usr/sbin/mysqld'].find((path) => existsSync(path));
    if (!server) throw new Error('MariaDB is not installed: apt-get install mariadb-server');
    const folder = ownFolder('mariadb');
    const data = join(folder, 'data');
    run('/usr/bin/mariadb-install-db', [
      '--no-defaults',
      `--datadir=${data}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      `--tmpdir=${folder}`,
    ]);
    const port = await freePort();
    return DatabaseServer.launch(folder, port, server, [
      '--no-defaults',
      `--datadir=${data}`,
      `--port=${port}`,
      `--socket=${folder}/socket`,
      `--pid-file=${folder}/pid`,
      `--tmpdir=${folder}`,
      '--bind-address=127.0.0.1',
      '--skip-name-resolve=0',
      '--innodb-flush-log-at-trx-commit=0',
    ]);
  }

  /** Breaks off at once, as a power cut does. */
  async kill(): Promise<void> {
    if (this.child.exitCode === null && this.child.signalCode === null) {
      this.child.kill('SIGKILL');
      await new Promise((done) => this.child.once('exit', done));
    }
  }
  async close(): Promise<void> {
    await this.kill();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
