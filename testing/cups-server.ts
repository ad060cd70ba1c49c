import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { answers, freePort } from './ports.js';

/** A CUPS of its own with one queue, which prints into a file. */
export class CupsServer {
  private constructor(
    private readonly child: ChildProcess,
    private readonly root: string,
    private readonly port: number,
  ) {}

  /** Only root can start it with a place of its own. */
  static isThere(): boolean {
    return existsSync('/usr/sbin/cupsd') && process.getuid?.() === 0;
  }

  /** @param folder where printed files go */
  static async open(folder: string): Promise<CupsServer> {
    const root = mkdtempSync(join(tmpdir(), 'mailbag-cups-'));
    const port = await freePort();
    const out = join(folder, 'printed.pdf');
    for (const name of ['etc', 'spool', 'spool/tmp', 'cache', 'run', 'log', 'etc/ppd']) mkdirSync(join(root, name), { recursive: true });
    for (const path of [root, folder]) chmodSync(path, 0o777);
    writeFileSync(out, '');
    chmodSync(out, 0o666);
    writeFileSync(
      join(root, 'etc/cups-files.conf'),
      `FileDevice Yes
ServerRoot ${root}/etc
RequestRoot ${root}/spool
TempDir ${root}/spool/tmp
CacheDir ${root}/cache
StateDir ${root}/run
AccessLog ${root}/log/access
ErrorLog ${root}/log/error
PageLog ${root}/log/page
SystemGroup root
`,
    );
    writeFileSync(
      join(root, 'etc/cupsd.conf'),
      `Listen 127.0.0.1:${port}
LogLevel warn
Browsing No
WebInterface No
PreserveJobFiles Yes
DefaultAuthType None
<Location />
  Order allow,deny
  Allow all
</Location>
<Policy default>
  JobPrivateAccess all
  JobPrivateValues none
  <Limit All>
    Order deny,allow
  </Limit>
</Policy>
`,
    );
    writeFileSync(
      join(root, 'etc/printers.conf'),
      `<Printer tray>\nDeviceURI file://${out}\nState Idle\nAccepting Yes\nShared No\nErrorPolicy stop-printer\nOpPolicy default\n</Printer>\n`,
    );
    const child = spawn('/usr/sbin/cupsd', ['-f', '-c', join(root, 'etc/cupsd.conf'), '-s', join(root, 'etc/cups-files.conf')], {
      stdio: 'ignore',
    });
    for (let tries = 0; !(await answers(port)); tries++) {
      if (tries > 100 || child.exitCode !== null) throw new Error('cupsd did not start');
      await new Promise((done) => setTimeout(done, 100));
    }
    return new CupsServer(child, root, port);
  }

  get uri(): string {
    return `ipp://127.0.0.1:${this.port}/printers/tray`;
  }
  /** The file of its first job, as it took it. */
  taken(): Buffer {
    return readFileSync(join(this.root, 'spool/d00001-001'));
  }
  /** What it says of itself, for the messages of failed tests. */
  log(): string {
    return readFileSync(join(this.root, 'log/error'), 'utf8');
  }
  async close(): Promise<void> {
    this.child.kill('SIGTERM');
    await new Promise((done) => (this.child.exitCode !== null ? done(null) : this.child.once('exit', done)));
    rmSync(this.root, { recursive: true, force: true });
  }
}
