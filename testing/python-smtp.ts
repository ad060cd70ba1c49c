import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { answers, freePort } from './ports.js';

const PYTHON = '/usr/bin/python3';
/** Python's own SMTP server; each message becomes a file: envelope in the first lines, then the message. */
const program = `
import asyncore, smtpd, sys, os
class Taker(smtpd.SMTPServer):
    count = 0
    def process_message(self, peer, mailfrom, rcpttos, data, **kwargs):
        Taker.count += 1
        path = os.path.join(sys.argv[2], '%06d' % Taker.count)
        with open(path + '.part', 'wb') as out:
            out.write(('%s\\n%s\\n' % (mailfrom, ','.join(rcpttos))).encode() + data)
        os.rename(path + '.part', path + '.eml')
Taker(('127.0.0.1', int(sys.argv[1])), None, decode_data=False, enable_SMTPUTF8=True)
asyncore.loop()
`;

/** An SMTP server that we did not write. */
export class PythonSmtp {
  private constructor(
    private readonly child: ChildProcess,
    private readonly folder: string,
    readonly port: number,
  ) {}

  static isThere(): boolean {
    return spawnSync(PYTHON, ['-W', 'ignore', '-c', 'import smtpd']).status === 0;
  }
  static async open(): Promise<PythonSmtp> {
    const folder = mkdtempSync(join(tmpdir(), 'mailbag-smtp-'));
    const port = await freePort();
    const child = spawn(PYTHON, ['-W', 'ignore', '-c', program, String(port), folder], { stdio: 'ignore' });
    while (!(await answers(port))) await new Promise((done) => setTimeout(done, 50));
    return new PythonSmtp(child, folder, port);
  }
  /** What it took: return path, recipients, the message. */
  taken(): { from: string; to: string[]; raw: string }[] {
    return readdirSync(this.folder)
      .filter((name) => name.endsWith('.eml'))
      .sort()
      .map((name) => {
        const [from = '', to = '', ...rest] = readFileSync(join(this.folder, name), 'utf8').split('\n');
        return { from, to: to.split(','), raw: rest.join('\n') };
      });
  }
  async close(): Promise<void> {
    this.child.kill('SIGKILL');
    await new Promise((done) =>
      this.child.exitCode !== null || this.child.signalCode !== null ? done(null) : this.child.once('exit', done),
    );
    rmSync(this.folder, { recursive: true, force: true });
  }
}
