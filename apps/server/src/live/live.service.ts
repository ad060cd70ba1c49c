import type { LiveEvent } from '@mailbag/contract';
import type { BeforeApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { Subject } from 'rxjs';

/** What happens, told inside the server and to open pages. */
@Injectable()
export class LiveService implements BeforeApplicationShutdown {
  readonly events = new Subject<LiveEvent>();
  /** Told once: streams to open pages end. */
  readonly over = new Subject<void>();

  beforeApplicationShutdown(): void {
    this.over.next();
  }

  notify(topic: LiveEvent['topic'], id: number): void {
    this.events.next({ topic, id });
  }
}
