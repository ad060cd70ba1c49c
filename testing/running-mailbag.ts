import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { addMailServer, addSender } from '../demo/src/mail-set-up.js';
import { ServerClient } from '../demo/src/server-client.js';

/** Starts a built Node program and waits for what it sends first. */
async function start<Ready>(
  script: string,
  args: string[],
  env: Record<string, string>,
): Promise<{ child: ChildProcess; ready: Ready; output: () => string }> {
  const child = spawn(process.execPath, [join(process.cwd(), script), ...args], {
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
    env: { ...process.env, ...env },
  });
  let output = '';
  child.stdout!.on('data', (chunk: Buffer) => (output += chunk.toString()));
  child.stderr!.on('data', (chunk: Buffer) => (output += chunk.toString()));
  const ready = await new Promise<Ready>((resolve, reject) => {
    child.once('message', (message) => resolve(message as Ready));
    child.once('exit', (code) => reject(new Error(`${script} ended with ${code}: ${output}`)));
  });
  return { child, ready, output: () => output };
}

const ended = (child: ChildProcess): Promise<void> =>
  child.exitCode !== null || child.signalCode !== null ? Promise.resolve() : new Promise((resolve) => child.once('exit', () => resolve()));

export interface ReceivedMail {
  id: number;
  messageId: string;
  to: string;
  returnPath: string;
  subject: string;
  attachments: { name: string; type: string; size: number; sha256: string }[];
}

/** Subjects of codes for senders. */
const CODE = /^\d{6} (?:is your code|ist Ihr Code) /;

/** A stand-in post office of its own process. */
export class PostOffice {
  private constructor(
    private readonly child: ChildProcess,
    readonly smtp: number,
    readonly page: string,
    readonly imap: number,
  ) {}

  static async open(): Promise<PostOffice> {
    const { child, ready } = await start<{ smtp: number; page: number; imap: number }>('standins/dist/mail/main.js', ['0', '0', '0'], {});
    return new PostOffice(child, ready.smtp, `http://127.0.0.1:${ready.page}`, ready.imap);
  }
  async received(): Promise<ReceivedMail[]> {
    return (await (await fetch(`${this.page}/messages.json`)).json()) as ReceivedMail[];
  }
  /** What it received, without the codes for senders. */
  async letters(): Promise<ReceivedMail[]> {
    return (await this.received()).filter(({ subject }) => !CODE.test(subject));
  }
  /** How it behaves from now on: `mood=busy`, `reports=2525` (port that reports are sent to), `after=50` (milliseconds until they come). */
  async behave(how: string): Promise<void> {
    await fetch(`${this.page}/behave?${how}`, { method: 'POST' });
  }
  /** A message as it travelled. */
  async raw(message: number): Promise<string> {
    return (await fetch(`${this.page}/messages/${message}.eml`)).text();
  }
  /** The code that was mailed to an address last. */
  async code(address: string): Promise<string> {
    const found = (await this.received()).filter(({ to, subject }) => to === address && CODE.test(subject)).at(-1);
    if (!found) throw new Error(`No code was mailed to ${address}`);
    return found.subject.slice(0, 6);
  }
  async attachment(message: number, index: number): Promise<Uint8Array> {
    return new Uint8Array(await (await fetch(`${this.page}/messages/${message}/attachments/${index}`)).arrayBuffer());
  }
  async close(): Promise<void> {
    this.child.kill('SIGKILL');
    await ended(this.child);
  }
}

export interface PrintedJob {
  id: number;
  name: string;
  sides: string;
  size: number;
  state: string;
}

/** A stand-in printer of its own process. */
export class PrinterStandIn {
  private constructor(
    private readonly child: ChildProcess,
    readonly port: number,
  ) {}

  static async open(): Promise<PrinterStandIn> {
    const { child, ready } = await start<{ port: number }>('standins/dist/printer/main.js', ['0'], {});
    return new PrinterStandIn(child, ready.port);
  }
  get uri(): string {
    return `ipp://127.0.0.1:${this.port}/ipp/print`;
  }
  async behave(mood: string): Promise<void> {
    await fetch(`http://127.0.0.1:${this.port}/behave?mood=${mood}`, { method: 'POST' });
  }
  async jobs(): Promise<PrintedJob[]> {
    return (await (await fetch(`http://127.0.0.1:${this.port}/jobs.json`)).json()) as PrintedJob[];
  }
  /** The file of a job, as the printer got it. */
  async file(id: number): Promise<Uint8Array> {
    return new Uint8Array(await (await fetch(`http://127.0.0.1:${this.port}/jobs/${id}.pdf`)).arrayBuffer());
  }
  async close(): Promise<void> {
    this.child.kill('SIGKILL');
    await ended(this.child);
  }
}

/** The number behind the last slash and colon of an address. */
const portOf = (address: string): number => Number(/:(\d+)/.exec(address.replace('http://', ''))?.[1]);
/** Ports of the stand-ins, as the demo's world wants them. */
export const standInPorts = (office: PostOffice, printer: PrinterStandIn) => ({
  smtp: office.smtp,
  page: portOf(office.page),
  imap: office.imap,
  printer: printer.port,
});

export const person = { name: 'Test Person', email: 'person@larkmere.example', password: 'a long enough password' };

/** A built server on a free port with a data folder of its own, which can be killed and started again. */
export class RunningMailbag {
  address = '';
  client!: ServerClient;
  private child!: ChildProcess;
  private output: () => string = () => '';

  /** @param data a folder that is there already */
  constructor(
    private readonly env: Record<string, string> = {},
    readonly data = mkdtempSync(join(tmpdir(), 'mailbag-test-')),
  ) {}

  async start(): Promise<this> {
    const { child, ready, output } = await start<{ port: number }>('apps/server/bin/server.mjs', [], {
      MAILBAG_PORT: '0',
      MAILBAG_DATA: this.data,
      MAILBAG_RETRY_PACE: '0.005',
      MAILBAG_MAIL_TIMEOUT: '4000',
      MAILBAG_LOCAL_TARGETS: 'all',
      MAILBAG_CHECK_ANSWERS: '1',
      MALLOC_ARENA_MAX: '2',
      ...this.env,
    });
    this.child = child;
    this.output = output;
    this.address = `http://127.0.0.1:${ready.port}`;
    this.client = new ServerClient(this.address);
    return this;
  }
  /** Port on which it takes bounces; null: it takes none. */
  async inboundPort(): Promise<number> {
    const { listening } = await this.client.get<{ listening: number | null }>('/api/bounces');
    if (listening === null) throw new Error('No port takes bounces');
    return listening;
  }
  get pid(): number {
    return this.child.pid!;
  }
  /** What the server printed, for the messages of failed tests. */
  log(): string {
    return this.output();
  }
  /** Its database, opened beside it as by another program, which waits while the server writes. */
  beside(): Database.Database {
    const database = new Database(join(this.data, 'mailbag.sqlite'));
    database.pragma('busy_timeout = 5000');
    return database;
  }
  /** Changes a row beside the server: makes what happened look longer ago, or what cannot happen by itself. */
  change(sql: string, parameters: readonly unknown[] = []): void {
    const database = this.beside();
    database.prepare(sql).run([...parameters]);
    database.close();
  }
  /** Makes the first account, which signs in. */
  async setUp(postOffice?: PostOffice): Promise<this> {
    await this.client.send('POST', '/api/account/set-up', person);
    if (postOffice) {
      const server = await addMailServer(this.client, postOffice.smtp);
      await addSender(this.client, server, 'office@larkmere.example', (address) => postOffice.code(address));
    }
    return this;
  }
  async signIn(): Promise<void> {
    await this.client.send('POST', '/api/account/sign-in', { email: person.email, password: person.password });
  }
  /** Ends the server at once, as a power cut does. */
  async kill(): Promise<void> {
    this.child.kill('SIGKILL');
    await ended(this.child);
  }
  /** Tells the server to stop, as a system that shuts down does. @returns milliseconds until it was gone */
  async stop(): Promise<number> {
    const from = Date.now();
    this.child.kill('SIGTERM');
    await ended(this.child);
    return Date.now() - from;
  }
  /** How it ended: its exit code, or the signal. */
  get end(): number | string | null {
    return this.child.exitCode ?? this.child.signalCode;
  }
  /** After a kill: starts on the same data and signs in. */
  async startAgain(): Promise<void> {
    await this.start();
    await this.signIn();
  }
  async close(): Promise<void> {
    await this.kill();
    rmSync(this.data, { recursive: true, force: true });
  }
}
