import { oneLine, remark } from '@mailbag/core';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { config } from '../platform/config.js';
import { Hold } from '../safety/hold.service.js';
import type { BounceMailbox } from '../settings/bounce-settings.service.js';
import { BounceSettings } from '../settings/bounce-settings.service.js';
import { IncomingMail } from './incoming-mail.service.js';
import { Jobs } from '../jobs/jobs.service.js';

/** Bytes of a message that are read; a report stands at its beginning. */
const MOST_BYTES = 2 * 1024 * 1024;
/** Messages of one look. */
const MOST_MESSAGES = 500;

/** Looks into the bounce mailbox again and again (IMAP, RFC 9051). What was understood is marked as read, and nothing is deleted. */
@Injectable()
export class MailboxReader implements OnApplicationBootstrap {
  constructor(
    private readonly settings: BounceSettings,
    private readonly door: IncomingMail,
    private readonly hold: Hold,
    private readonly jobs: Jobs,
  ) {
    jobs.register('mailbox', {
      title: 'Reading the bounce mailbox',
      ends: true,
      atOnce: 1,
      retry: [10_000],
      forEver: true,
      run: ({ signal }) => this.lookNow(signal),
    });
    jobs.every({ kind: 'mailbox' }, config.mailboxSeconds * 1000);
  }

  onApplicationBootstrap(): void {
    const soon = (): void => void this.jobs.soon('mailbox').catch(() => undefined);
    this.settings.changed.subscribe(soon);
    this.hold.released.subscribe(soon);
    soon();
  }

  /** One look at once, for whoever asks. */
  async look(): Promise<void> {
    await this.jobs.run({ kind: 'mailbox' });
  }

  private async lookNow(signal: AbortSignal): Promise<void> {
    const mailbox = await this.settings.mailbox();
    // What a copied folder took out of the mailbox would be missing where it comes from.
    if (!mailbox || this.hold.isHeld) return;
    const at = new Date().toISOString();
    try {
      const count = await this.read(mailbox, signal);
      this.settings.lastLook = {
        at,
        ok: true,
        detail: count === 0 ? remark('mailbox-nothing-new') : remark('mailbox-read', { messages: count }),
      };
    } catch (cause) {
      const error = cause as Error & { responseText?: string; authenticationFailed?: boolean; code?: string };
      const why = oneLine(error.responseText ?? error.message).slice(0, 300);
      const detail = error.authenticationFailed
        ? remark('mailbox-refused', { answer: why })
        : /ECONNREFUSED|ENOTFOUND|ETIMEDOUT|EHOSTUNREACH/.test(`${error.code} ${error.message}`)
          ? remark('mailbox-silent', { host: mailbox.host, port: mailbox.port, why: error.code ?? why })
          : why;
      this.settings.lastLook = { at, ok: false, detail };
    }
  }

  private async read({ host, port, tls, checkCertificate, user, password, folder }: BounceMailbox, signal: AbortSignal): Promise<number> {
    const { ImapFlow } = await import('imapflow');
    const client = new ImapFlow({
      host,
      port,
      secure: tls,
      auth: { user, pass: password },
      tls: { rejectUnauthorized: checkCertificate },
      logger: false,
      connectionTimeout: config.mailTimeout,
      greetingTimeout: config.mailTimeout,
      socketTimeout: config.mailTimeout * 2,
    });
    client.on('error', () => undefined);
    await client.connect();
    try {
      const lock = await client.getMailboxLock(folder);
      try {
        const unseen = (await client.search({ seen: false }, { uid: true })) || [];
        let count = 0;
        for (const uid of unseen.slice(0, MOST_MESSAGES)) {
          if (signal.aborted) break;
          // Taking it is what may go wrong: how often it was tried is written down before that.
          const message = await client.fetchOne(String(uid), { source: { maxLength: MOST_BYTES } }, { uid: true });
          if (message && message.source) await this.door.take(message.source, { way: 'imap', to: [], from: null });
          // Only what is kept is marked; a stop in between reads it once more, which is noticed.
          await client.messageFlagsAdd(String(uid), ['\\Seen'], { uid: true });
          count++;
        }
        return count;
      } finally {
        lock.release();
      }
    } finally {
      await client.logout().catch(() => client.close());
    }
  }
}
