import { randomBytes } from 'node:crypto';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import { FairQueue } from '../platform/fair-queue.js';

/** Each takes 19 MB and a core for some milliseconds; so many at a time, and so many that wait for one place. */
const AT_A_TIME = 2;
const MOST_WAITING = 20;
/** From 0 to 4 as the estimate counts: 3 takes a thousand guesses a second for more than a day. */
const STRONG = 3;
/** Characters that are looked at: what is longer is strong, and takes long to look at. */
const LOOKED_AT = 64;

/** Passwords of accounts: whether one is worth anything, and their hashes (Argon2id, RFC 9106). */
@Injectable()
export class Passwords {
  private readonly queue = new FairQueue(AT_A_TIME, 1, MOST_WAITING);
  /** Verified against when there is no such account, so that the answer takes as long. */
  private readonly nobody = hash(randomBytes(16).toString('hex'));

  private inTurn<T>(place: string, work: () => Promise<T>): Promise<T> {
    if (this.queue.isFull(place)) throw new MailbagError('work-too-many');
    return this.queue.run(place, work);
  }

  /** @param own name and address of whose it is @throws MailbagError password-weak when it is in the list of common ones, or made of it or of what everybody knows */
  async assertStrong(password: string, own: readonly string[]): Promise<void> {
    // Asked for seldom, and large: it is there only as long as it is needed.
    const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
      import('@zxcvbn-ts/core'),
      import('@zxcvbn-ts/language-common'),
    ]);
    const estimate = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
    const words = own.flatMap((one) => [one, ...one.split(/[\s@.]+/)]).filter((one) => one.length > 2);
    if (estimate.check(password.slice(0, LOOKED_AT), [...words, 'mailbag']).score < STRONG) throw new MailbagError('password-weak');
  }

  /** @param place where it comes from: places take turns @throws MailbagError work-too-many */
  hash(place: string, password: string): Promise<string> {
    return this.inTurn(place, () => hash(password));
  }

  /** @param stored null: there is no such account @throws MailbagError work-too-many */
  isRight(place: string, stored: string | null, password: string): Promise<boolean> {
    return this.inTurn(place, async () => (await verify(stored ?? (await this.nobody), password).catch(() => false)) && stored !== null);
  }
}
