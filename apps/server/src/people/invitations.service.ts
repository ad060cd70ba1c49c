import type { InvitationRequest, InvitedAnswer } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { AccountsService } from '../accounts/accounts.service.js';
import { Transactions } from '../persistence/transactions.js';
import { ownMailWords } from '../senders/own-mail-words.js';
import { SendersService } from '../senders/senders.service.js';
import { accountStore } from '../stores/account.store.js';
import type { Principal } from '../platform/principal.js';

/** Asks people in by mail. */
@Injectable()
export class Invitations {
  constructor(
    private readonly accounts: AccountsService,
    private readonly senders: SendersService,
    private readonly transactions: Transactions,
  ) {}

  /** @param base address of Mailbag as the administrator sees it */
  async invite(request: InvitationRequest, who: Principal, base: string): Promise<InvitedAnswer> {
    const token = await this.accounts.invite(request, who);
    const address = `${base}/invitation?token=${token}`;
    const words = ownMailWords(await accountStore.languageOf(this.transactions, who));
    const failure = await this.senders.mailOne(request.email.trim(), words.invitation(who.name, request.name.trim(), address));
    return { address, failure };
  }
}
