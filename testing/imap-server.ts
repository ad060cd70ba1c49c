import { spawn, spawnSync } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { answers, freePort } from './ports.js';

/** A dovecot, an IMAP server that we did not write, with one mailbox, user `bounces`, password `secret`. */
export class DovecotServer {
  private constructor(
    private readonly child: ChildProcess,
    private readonly folder: string,
    readonly port: number,
  ) {}

  static isThere(): boolean {
    return existsSync('/usr/sbin/dovecot');
  }

  static async open(): Promise<DovecotServer> {
    const folder = mkdtempSync(join(tmpdir(), 'mailbag-dovecot-'));
    chmodSync(folder, 0o755);
    const port = await freePort();
    // As root it changes to a user of its own; otherwise everything runs as who started it.
    const isRoot = process.getuid?.() === 0;
    const user = isRoot ? 'mail' : spawnSync('id', ['-un']).stdout.toString().trim();
    const group = isRoot ? 'mail' : spawnSync('id', ['-gn']).stdout.toString().trim();
    mkdirSync(join(folder, 'mail/new'), { recursive: true });
    mkdirSync(join(folder, 'mail/cur'));
    mkdirSync(join(folder, 'mail/tmp'));
    if (isRoot) spawnSync('chown', ['-R', 'mail:mail', join(folder, 'mail')]);
    writeFileSync(join(folder, 'users'), 'bounces:{PLAIN}secret::::::\n');
    writeFileSync(
      join(folder, 'dovecot.conf'),
      `base_dir = ${folder}/run
state_dir = ${folder}/state
log_path = ${folder}/log
protocols = imap
listen = 127.0.0.1
ssl = no
disable_plaintext_auth = no
default_internal_user = ${isRoot ? 'dovecot' : user}
default_internal_group = ${isRoot ? 'dovecot' : group}
default_login_user = ${isRoot ? 'dovenull' : user}
service imap-login {
  inet_listener imap {
    port = ${port}
  }
  inet_listener imaps {
    port = 0
  }
  chroot =
}
service anvil {
  chroot =
}
mail_location = maildir:${folder}/mail
mail_uid = ${user}
mail_gid = ${group}
first_valid_uid = 1
first_valid_gid = 1
passdb {
  driver = passwd-file
  args = ${folder}/users
}
userdb {
  driver = static
  args = uid=${user} gid=${group} home=${folder}
}
`,
    );
    const child = spawn('/usr/sbin/dovecot', ['-F', '-c', join(folder, 'dovecot.conf')], { stdio: 'ignore' });
    for (let tries = 0; !(await answers(port)); tries++) {
      if (tries > 100 || child.exitCode !== null)
        throw new Error(`dovecot did not start: ${spawnSync('cat', [join(folder, 'log')]).stdout.toString()}`);
      await new Promise((done) => setTimeout(done, 100));
    }
    return new DovecotServer(child, folder, port);
  }

  /** Puts a message into the mailbox, as a mail server delivers it. */
  deliver(raw: string, name: string): void {
    const path = join(this.folder, 'mail/new', `${Date.now()}.${name}.test`);
    writeFileSync(path, raw);
    if (process.getuid?.() === 0) spawnSync('chown', ['mail:mail', path]);
  }

  async close(): Promise<void> {
    this.child.kill('SIGTERM');
    await new Promise((done) => (this.child.exitCode !== null ? done(null) : this.child.once('exit', done)));
    rmSync(this.folder, { recursive: true, force: true });
  }
}
