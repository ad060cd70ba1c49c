import type { LiveEvent } from '@mailbag/contract';
import type { MessageEvent } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Controller, Sse } from '@nestjs/common';
import type { Observable } from 'rxjs';
import { bufferTime, filter, interval, map, merge, mergeMap, of, takeUntil } from 'rxjs';
import { LiveService } from './live.service.js';

@Controller('api/events')
@WithoutValues()
export class LiveController {
  constructor(private readonly live: LiveService) {}

  /** Events of a quarter of a second at once, each kind and id once; a sign of life every 20 seconds. */
  @Sse()
  events(): Observable<MessageEvent> {
    const changes = this.live.events.pipe(
      bufferTime(250),
      filter((events) => events.length > 0),
      mergeMap((events) => new Map(events.map((event) => [`${event.topic} ${event.id}`, event])).values()),
      map((event: LiveEvent): MessageEvent => ({ data: event })),
    );
    const alive = interval(20_000).pipe(map((): MessageEvent => ({ type: 'alive', data: '' })));
    return merge(of<MessageEvent>({ type: 'alive', data: '' }), changes, alive).pipe(takeUntil(this.live.over));
  }
}
