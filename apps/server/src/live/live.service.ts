import type { LiveEvent } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { Subject } from 'rxjs';

/** What happens, told inside the server and to open pages. */
@Injectable()
export class LiveService {
  readonly events = new Subject<LiveEvent>();

  tell(topic: LiveEvent['topic'], id: number): void {
    this.events.next({ topic, id });
  }
}
