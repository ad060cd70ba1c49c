import { createHash, randomInt, timingSafeEqual } from 'node:crypto';
import type { SenderAnswer } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { accountStore } from '../stores/account.store.js';
import { senderStore } from '../stores/sender.store.js';
import { principal } from '../platform/principal.js';
import { ownMailWords } from './own-mail-words.js';
import { SenderEntity } from './senders.entity.js';
import { CODE_TRIES, SendersService } from './senders.service.js';

const CODE_MINUTES = 15;
const codeDigest = (senderId: number, code: string): Buffer => createHash('sha256').update(`${senderId} ${code}`).digest();

/** Whoever sends shows with a code that mail to the address is theirs. */
@Injectable()
export class SenderCodes {
  constructor(
    private readonly senders: SendersService,
    private readonly transactions: Transactions,
  ) {}

  /** Mails a six-digit code to the sender's own address, through its own server. @throws MailbagError sender-code-not-mailed, not-found */
  async mailCode(id: number): Promise<SenderAnswer[]> {
    const code = String(randomInt(0, 1_000_000)).padStart(6, '0');
    const { sender, transporter } = await this.senders.connected(id);
    try {
      await transporter.sendMail({
        from: { name: sender.name, address: sender.address },
        to: sender.address,
        ...ownMailWords(await accountStore.languageOf(this.transactions, principal())).code(code, sender.address, CODE_MINUTES),
        headers: { 'Auto-Submitted': 'auto-generated' },
      });
    } catch (cause) {
      throw new MailbagError(
        'sender-code-not-mailed',
        { address: sender.address, answer: (cause as { response?: string }).response ?? (cause as Error).message },
        { cause },
      );
    } finally {
      transporter.close();
    }
    await this.transactions.run((manager) =>
      senderStore.setCode(manager, codeDigest(id, code).toString('hex'), new Date(Date.now() + CODE_MINUTES * 60_000).toISOString(), id),
    );
    return this.senders.senderAnswers();
  }

  /** @throws MailbagError sender-code-wrong, sender-code-over, not-found */
  async confirm(id: number, typed: string): Promise<SenderAnswer[]> {
    const code = typed.replace(/\D/g, '');
    const outcome = await this.transactions.run(async (manager) => {
      const sender = await manager.findOneBy(SenderEntity, { id });
      if (!sender) throw new MailbagError('not-found', { what: t`sender` });
      const isOver =
        !sender.codeHash || !sender.codeUntil || sender.codeUntil <= new Date().toISOString() || sender.codeTries >= CODE_TRIES;
      if (isOver) return 'over';
      if (timingSafeEqual(Buffer.from(sender.codeHash!, 'hex'), codeDigest(id, code))) {
        await senderStore.confirm(manager, new Date().toISOString(), id);
        return 'right';
      }
      await senderStore.countCodeTry(manager, id);
      return CODE_TRIES - sender.codeTries - 1;
    });
    if (outcome === 'over' || outcome === 0) throw new MailbagError('sender-code-over');
    if (outcome !== 'right') throw new MailbagError('sender-code-wrong', { left: outcome });
    this.senders.changed.next();
    return this.senders.senderAnswers();
  }
}
