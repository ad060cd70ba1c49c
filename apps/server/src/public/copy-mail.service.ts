import { createHash, randomInt, timingSafeEqual } from 'node:crypto';
import type { PublicMailCodeRequest, PublicMailRequest } from '@mailbag/contract';
import { MailbagError, addressFault, remark } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { archivedBytes } from '../archive/archived-bytes.js';
import { noteCopies } from '../copies/copy-changes.js';
import { Transactions } from '../persistence/transactions.js';
import type { Principal } from '../platform/principal.js';
import { SendersService } from '../senders/senders.service.js';
import { codeMail, copiesMail } from './copy-mail-words.js';
import { PublicIntakes } from './public-intakes.service.js';

const MINUTES = 15;
/** Wrong codes after which another one must be asked for; times that the copies of one submission are sent on. */
const [MOST_TRIES, MOST_SENT] = [5, 3];
/** Submissions whose codes are kept; the oldest goes first. */
const MOST_KEPT = 5000;
const VISITOR: Principal = { kind: 'visitor', id: null, name: t`Visitor` };

interface Proof {
  email: string;
  code: Buffer;
  until: number;
  tries: number;
}
const digest = (text: string): Buffer => createHash('sha256').update(text).digest();

/** Copies that visitors have mailed to themselves and to others: only once a code has shown that the address they give is theirs, few times, in the office's words. */
@Injectable()
export class CopyMail {
  private readonly proofs = new Map<string, Proof>();
  /** How often the copies of a submission were sent on. */
  private readonly sent = new Map<string, number>();

  constructor(
    private readonly intakes: PublicIntakes,
    private readonly senders: SendersService,
    private readonly transactions: Transactions,
  ) {}

  /** Mails a code to whoever says that an address is theirs. @param key of the submission @throws MailbagError not-found, intake-copies-not-ready, intake-mail-failed */
  async mailCode(key: string, { email, language }: PublicMailCodeRequest): Promise<void> {
    const address = email.trim();
    await this.ready(key);
    if (addressFault(address) !== null) throw new MailbagError('intake-mail-failed');
    const code = String(randomInt(0, 1_000_000)).padStart(6, '0');
    this.keep(this.proofs, key, { email: address, code: digest(`${key} ${code}`), until: Date.now() + MINUTES * 60_000, tries: 0 });
    if ((await this.senders.mailOne(address, codeMail(language, code, MINUTES))) !== null) throw new MailbagError('intake-mail-failed');
  }

  /** Mails the copies of a submission. @throws MailbagError not-found, intake-copies-not-ready, intake-code-wrong, intake-too-often, intake-mail-failed */
  async send(key: string, { code, to, language }: PublicMailRequest): Promise<void> {
    const files = await this.ready(key);
    const proof = this.proofs.get(key);
    if (!proof || proof.until < Date.now() || proof.tries >= MOST_TRIES) throw new MailbagError('intake-code-wrong');
    if (!timingSafeEqual(proof.code, digest(`${key} ${code.replace(/\D/g, '')}`))) {
      proof.tries++;
      throw new MailbagError('intake-code-wrong');
    }
    const address = to.trim();
    const before = this.sent.get(key) ?? 0;
    if (addressFault(address) !== null || before >= MOST_SENT) throw new MailbagError('intake-mail-failed');
    // Counted before it goes, so that many at a time are not more than there may be.
    this.keep(this.sent, key, before + 1);
    const attachments = await Promise.all(files.map(async (file) => ({ filename: file.name, content: await archivedBytes(file) })));
    const failed = await this.senders.mailOne(address, {
      ...copiesMail(language, await this.intakes.titleOf(key), proof.email),
      attachments,
    });
    if (failed !== null) throw new MailbagError('intake-mail-failed');
    const ids = files.map(({ id }) => id);
    await this.transactions.run((sql) =>
      noteCopies(sql, ids, 'pass-on', { who: VISITOR, detail: remark('passed-on', { to: address, from: proof.email }) }),
    );
  }

  private async ready(key: string) {
    const { copies, files, isMaking } = await this.intakes.receipt(key);
    if (isMaking || files.length === 0) throw new MailbagError('intake-copies-not-ready');
    return files.map((file, index) => ({ ...file, name: copies[index]! }));
  }

  private keep<Value>(cache: Map<string, Value>, key: string, value: Value): void {
    cache.delete(key);
    cache.set(key, value);
    if (cache.size > MOST_KEPT) cache.delete(cache.keys().next().value!);
  }
}
