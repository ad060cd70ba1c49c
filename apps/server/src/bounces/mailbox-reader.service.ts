import { oneLine } from '@mailbag/core';
import type { BeforeApplicationShutdown, OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { ImapFlow } from 'imapflow';
import { config } from '../platform/config.js';
import { Hold } from '../safety/hold.service.js';
import type { BounceMailbox } from '../settings/bounce-settings.service.js';
import { BounceSettings } from '../settings/bounce-settings.service.js';
import { BouncesService } from './bounces.service.js';

/** Bytes of a message that are read; a report stands at its beginning. */
const MOST_BYTES = 2 * 1024 * 1024;
/** Messages of one look. */
const MOST_MESSAGES = 500;

/** Looks into the bounce mailbox again and again (IMAP, RFC 9051). What was understood is marked as read, and nothing is deleted. */
@Injectable()
export class MailboxReader implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private timer: NodeJS.Timeout | null = null;
  private looking: Promise<void> | null = null;
  private stopping = false;

  constructor(
    private readonly settings: BounceSettings,
    private readonly bounces: BouncesService,
    private readonly hold: Hold,
  ) {}

  onApplicationBootstrap(): void {
    this.settings.changed.subscribe(() => void this.look());
    this.hold.released.subscribe(() => void this.look());
    void this.look();
  }

  async beforeApplicationShutdown(): Promise<void> {
    this.stopping = true;
    if (this.timer) clearTimeout(this.timer);
    await Promise.race([this.looking, new Promise((done) => setTimeout(done, 3000))]);
  }

  /** One look at once, for whoever asks. */
  async look(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.looking ??= this.lookNow().finally(() => {
      this.looking = null;
      if (!this.stopping) this.timer = setTimeout(() => void this.look(), config.mailboxSeconds * 1000);
    });
    await this.looking;
  }

  private async lookNow(): Promise<void> {
    const mailbox = await this.settings.mailbox();
    // What a copied folder took out of the mailbox would be missing where it comes from.
    if (!mailbox || this.hold.isHeld) return;
    const at = new Date().toISOString();
    try {
      const count = await this.read(mailbox);
      this.settings.lastLook = { at, ok: true, said: count === 0 ? 'Nothing new.' : `${count} new messages were read.` };
    } catch (cause) {
      const error = cause as Error & { responseText?: string; authenticationFailed?: boolean; code?: string };
      const why = oneLine(error.responseText ?? error.message).slice(0, 300);
      const said = error.authenticationFailed
        ? `The mailbox refused the sign-in: ${why}`
        : /ECONNREFUSED|ENOTFOUND|ETIMEDOUT|EHOSTUNREACH/.test(`${error.code} ${error.message}`)
          ? `${mailbox.host}:${mailbox.port} does not answer (${error.code ?? why}).`
          : why;
      this.settings.lastLook = { at, ok: false, said };
    }
  }

  private async read({ host, port, tls, checkCertificate, user, password, folder }: BounceMailbox): Promise<number> {
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
          if (this.stopping) break;
          // Taking it is what may go wrong: how often it was tried is written down before that.
          const message = await client.fetchOne(String(uid), { source: { maxLength: MOST_BYTES } }, { uid: true });
          if (message && message.source) await this.bounces.take(message.source, { way: 'imap', to: [], from: null });
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
