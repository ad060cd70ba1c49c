import type { HereAnswer } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { LiveService } from './live.service.js';

/** Milliseconds after which a window that says nothing is taken to be closed. */
const GONE = 25_000;

interface Window {
  accountId: number;
  name: string;
  until: number;
}

/** Which windows have a mailing open, told from window to window. Nothing of it outlasts the server. */
@Injectable()
export class HereService {
  private readonly windows = new Map<number, Map<string, Window>>();

  constructor(private readonly live: LiveService) {}

  /** A window says that it has a mailing open, or closes it. @returns who else has, each name once, and whether the same person has in another window */
  say(mailingId: number, window: string, { id, name }: { id: number; name: string }, leaves: boolean): HereAnswer {
    const now = Date.now();
    const here = this.windows.get(mailingId) ?? new Map<string, Window>();
    this.windows.set(mailingId, here);
    let isChanged = leaves ? here.delete(window) : !here.has(window);
    if (!leaves) here.set(window, { accountId: id, name, until: now + GONE });
    for (const [key, { until }] of here) if (until < now) isChanged = here.delete(key) || isChanged;
    if (here.size === 0) this.windows.delete(mailingId);
    if (isChanged) this.live.notify('here', mailingId);
    const rest = [...here].flatMap(([key, one]) => (key === window ? [] : [one]));
    return {
      others: [...new Set(rest.filter(({ accountId }) => accountId !== id).map((one) => one.name))],
      elsewhere: rest.some(({ accountId }) => accountId === id),
    };
  }
}
