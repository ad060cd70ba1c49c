import type { InvitationRequest, InvitedAnswer } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { AccountsService } from '../accounts/accounts.service.js';
import { SendersService } from '../senders/senders.service.js';
import type { Principal } from '../platform/principal.js';

/** Asks people in by mail. */
@Injectable()
export class Invitations {
  constructor(
    private readonly accounts: AccountsService,
    private readonly senders: SendersService,
  ) {}

  /** @param base address of Mailbag as the administrator sees it */
  async invite(request: InvitationRequest, who: Principal, base: string): Promise<InvitedAnswer> {
    const token = await this.accounts.invite(request, who);
    const address = `${base}/invitation?token=${token}`;
    const failure = await this.senders.mailOne(request.email.trim(), {
      subject: `${who.name} asks you to work with Mailbag`,
      text: `Dear ${request.name.trim()},\n\n${who.name} has made an account for you in Mailbag. Choose a password here to begin:\n\n${address}\n\nThe invitation holds for seven days.`,
    });
    return { address, failure };
  }
}
