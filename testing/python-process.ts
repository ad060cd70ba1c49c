import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { answers, freePort } from './ports.js';

const PYTHON = ['/usr/bin/python3', '-W', 'ignore'] as const;

/** What a Python program says on its output; null: it failed. @param input goes to its standard input */
export function runPython(program: string, args: readonly string[] = [], input: string | Buffer = ''): string | null {
  const { status, stdout } = spawnSync(PYTHON[0], [...PYTHON.slice(1), '-c', program, ...args], { input, encoding: 'utf8' });
  return status === 0 ? stdout : null;
}
export const hasPythonModule = (name: string): boolean => runPython(`import ${name}`) !== null;

/** A server in Python on a port of loopback that writes what it takes as files into a folder. */
export class PythonServer {
  private constructor(
    private readonly child: ChildProcess,
    private readonly folder: string,
    readonly port: number,
  ) {}

  /** @param program gets port and folder as its first arguments, and `more` after them */
  static async open(program: string, ...more: string[]): Promise<PythonServer> {
    const folder = mkdtempSync(join(tmpdir(), 'mailbag-python-'));
    const port = await freePort();
    const child = spawn(PYTHON[0], [...PYTHON.slice(1), '-c', program, String(port), folder, ...more], { stdio: 'ignore' });
    while (!(await answers(port))) await new Promise((done) => setTimeout(done, 50));
    return new PythonServer(child, folder, port);
  }
  /** The files in the order in which they came, by their lines. */
  files(): string[][] {
    return readdirSync(this.folder)
      .filter((name) => name.endsWith('.eml'))
      .sort()
      .map((name) => readFileSync(join(this.folder, name), 'utf8').split('\n'));
  }
  async close(): Promise<void> {
    this.child.kill('SIGKILL');
    await new Promise((done) =>
      this.child.exitCode !== null || this.child.signalCode !== null ? done(null) : this.child.once('exit', done),
    );
    rmSync(this.folder, { recursive: true, force: true });
  }
}
