import { ManyCopiesAnswer, ManyCopiesRequest, MessageAnswer, SendAgainRequest } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import type { Account } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, StreamableFile } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { SignedIn, TakesMegabytes, Who } from '../accounts/session.guard.js';
import { CopiesService } from '../copies/copies.service.js';
import { Ledger, askedBy } from '../copies/ledger.service.js';
import { attachment } from '../platform/content-disposition.js';
import { OutgoingMessages } from './outgoing-messages.service.js';
import { rawMessage } from './outgoing-message.js';
import { CopyActions } from './copy-actions.service.js';
import type { Principal } from '../platform/principal.js';

/** How copies go out, and what a person does about it. */
@Controller('api/copies')
export class CopyDeliveriesController {
  constructor(
    private readonly copies: CopiesService,
    private readonly ledger: Ledger,
    private readonly actions: CopyActions,
    private readonly outgoing: OutgoingMessages,
  ) {}

  /** The same with many copies. */
  @Answers(ManyCopiesAnswer)
  @Post('many')
  @TakesMegabytes(2)
  @HttpCode(200)
  @WithoutValues()
  async many(
    @Body() { action, ids, filter }: ManyCopiesRequest,
    @SignedIn() account: Account,
    @Who() who: Principal,
  ): Promise<ManyCopiesAnswer> {
    const meant = ids ?? (filter ? await this.ledger.ids(askedBy(filter, account)) : []);
    const done = await this.actions.many(action, meant, who);
    const back = action === 'to-paper' ? 'off-paper' : action === 'off-paper' ? 'to-paper' : null;
    return { meant: meant.length, done: done.length, undo: back && done.length > 0 ? { action: back, ids: done } : null };
  }

  /** The message of its delivery, as it went out. */
  @Answers(MessageAnswer)
  @Get(':id/message')
  async message(@Param('id', ParseIntPipe) id: number): Promise<MessageAnswer> {
    const { from, to, subject, html, text, attachments, isAsSent } = await this.outgoing.ofCopy(id);
    return {
      from: `${from.name} <${from.address}>`,
      to: to.map(({ name, address }) => (name ? `${name} <${address}>` : address)),
      subject,
      html,
      text,
      attachments: attachments.map(({ filename }) => filename),
      isAsSent,
    };
  }
  @Get(':id/message.eml')
  async rawMessage(@Param('id', ParseIntPipe) id: number): Promise<StreamableFile> {
    return new StreamableFile(await rawMessage(await this.outgoing.ofCopy(id)), {
      type: 'message/rfc822',
      disposition: attachment('Message.eml'),
    });
  }

  @Post(':id/send-again')
  @HttpCode(204)
  @WithoutValues()
  async sendAgain(
    @Param('id', ParseIntPipe) id: number,
    @Body() { address }: SendAgainRequest,
    @SignedIn() account: Account,
    @Who() who: Principal,
  ): Promise<void> {
    // Whoever may not look into a copy must not have it sent to another address and look into it there.
    if (!account.seesValues && (await this.copies.detail(id, account)).address.trim() !== address.trim())
      throw new MailbagError('account-values-hidden');
    return this.actions.sendAgain(id, address, who);
  }

  @Post(':id/confirm-sent')
  @HttpCode(204)
  @WithoutValues()
  confirmSent(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<void> {
    return this.actions.confirmSent(id, who);
  }

  @Post(':id/withdraw')
  @HttpCode(204)
  @WithoutValues()
  withdraw(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<void> {
    return this.actions.withdraw(id, who);
  }
}
