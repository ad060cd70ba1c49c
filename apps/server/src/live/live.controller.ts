import type { Account, LiveEvent } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import type { MessageEvent } from '@nestjs/common';
import { Controller, Req, Sse } from '@nestjs/common';
import type { Request } from 'express';
import type { Observable } from 'rxjs';
import { bufferTime, filter, finalize, interval, map, merge, mergeMap, of, takeUntil } from 'rxjs';
import { AccountsService } from '../accounts/accounts.service.js';
import { WithoutValues } from '../accounts/hidden-values.js';
import { sessionToken } from '../accounts/session-cookie.js';
import { SignedIn } from '../accounts/session.guard.js';
import { LiveService } from './live.service.js';

/** Streams that one account keeps open at most: a window each, and some that nobody has noticed are gone. */
const MOST_OPEN = 20;
/** Milliseconds between signs of life. */
const ALIVE = 20_000;

@Controller('api/events')
@WithoutValues()
export class LiveController {
  private readonly open = new Map<number, number>();

  constructor(
    private readonly live: LiveService,
    private readonly accounts: AccountsService,
  ) {}

  /** Events of a quarter of a second at once, each kind and id once; a sign of life every 20 seconds. Ends with the session. @throws MailbagError work-too-many */
  @Sse()
  events(@SignedIn() { id }: Account, @Req() request: Request): Observable<MessageEvent> {
    const open = this.open.get(id) ?? 0;
    if (open >= MOST_OPEN) throw new MailbagError('work-too-many');
    this.open.set(id, open + 1);
    const token = sessionToken(request);
    const changes = this.live.events.pipe(
      bufferTime(250),
      filter((events) => events.length > 0),
      mergeMap((events) => new Map(events.map((event) => [`${event.topic} ${event.id}`, event])).values()),
      map((event: LiveEvent): MessageEvent => ({ data: event })),
    );
    const alive = interval(ALIVE).pipe(map((): MessageEvent => ({ type: 'alive', data: '' })));
    const signedOut = merge(this.accounts.sessionsEnded, interval(ALIVE)).pipe(
      mergeMap(() => this.accounts.accountOf(token)),
      filter((account) => account === null),
    );
    return merge(of<MessageEvent>({ type: 'alive', data: '' }), changes, alive).pipe(
      takeUntil(merge(this.live.over, signedOut)),
      finalize(() => {
        const left = (this.open.get(id) ?? 1) - 1;
        if (left > 0) this.open.set(id, left);
        else this.open.delete(id);
      }),
    );
  }
}
