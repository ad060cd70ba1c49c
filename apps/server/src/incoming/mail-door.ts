import { createHash } from 'node:crypto';
import { isMailbagError } from '@mailbag/core';
import type { Sql } from '../persistence/sql.js';
import type { ReadMail, TaskName, Tasks } from '../work/tasks.js';
import { reportStore } from '../stores/report.store.js';

/** Changes of the database, one after the other. */
export interface Changes {
  run<T>(work: (sql: Sql) => Promise<T>): Promise<T>;
}
/** Threads that do long work. */
export interface Threads {
  run<Name extends TaskName>(name: Name, input: Tasks[Name]['input']): Promise<Tasks[Name]['output']>;
}

/** How a message came in. */
export interface IncomingWay {
  way: 'imap' | 'smtp';
  /** Addresses of its envelope; none where they are not known. */
  to: readonly string[];
  /** Return path of its envelope; null where it is not known. */
  from: string | null;
}

/** A message at the door. */
export interface IncomingMessage extends IncomingWay {
  /** SHA-256 in hexadecimal, by which it is known again through whatever way it comes: trace headers in front of it do not count. */
  digest: string;
  /** Taken apart; null: it could not be, in the time that a message gets. */
  mail: ReadMail | null;
}

/** What somebody made of a message. */
export interface TakenMail {
  kind: string;
  /** Called when it is kept. */
  afterwards?: () => void;
}

/** Somebody for whom mail comes in: bounces, copies that come back, orders. */
export interface MailTaker {
  /** Whether mail to an address is for it. */
  knows(address: string): Promise<boolean>;
  /** Keeps a message in the transaction in which it is taken in. @returns null: it is for somebody else */
  take(sql: Sql, message: IncomingMessage): Promise<TakenMail | null>;
}

/** Times that a message is tried; one that ended the server each time is a matter for a person. */
const MOST_TRIES = 3;

/** The one door for mail, whatever way it comes. Each message counts once, however often it comes; whoever it is for is asked in turn. */
export class MailDoor {
  private readonly takers: MailTaker[] = [];
  /** Messages that were read without harm and could not be kept, since the disk was full: reading them once more is no try. */
  private readonly readWell = new Set<string>();

  constructor(
    private readonly transactions: Changes,
    private readonly pool: Threads,
  ) {}

  /** @param isLast takes what nobody else wants */
  register(taker: MailTaker, isLast = false): void {
    if (isLast) this.takers.push(taker);
    else this.takers.unshift(taker);
  }

  /** Whether somebody here gets mail to an address. */
  async leadsHere(address: string): Promise<boolean> {
    for (const taker of this.takers) if (await taker.knows(address)) return true;
    return false;
  }

  /** @returns what it was; null: nobody wanted it */
  async take(raw: Buffer, { way, to, from }: IncomingWay): Promise<string | null> {
    const rawDigest = createHash('sha256').update(raw).digest('hex');
    const mail = await this.read(raw, to, rawDigest);
    const digest = mail
      ? createHash('sha256')
          .update(mail.messageId || raw)
          .update(mail.matter)
          .digest('hex')
      : rawDigest;
    const taken = await this.transactions.run(async (sql) => {
      await reportStore.dropTry(sql, rawDigest);
      for (const taker of this.takers) {
        const done = await taker.take(sql, { way, to, from, digest, mail });
        if (done) return done;
      }
      return null;
    });
    this.readWell.delete(rawDigest);
    taken?.afterwards?.();
    return taken?.kind ?? null;
  }

  /** Takes a message apart in a thread of its own. That it is tried is written down first: a message that ends the server must not end it again and again. */
  private async read(raw: Buffer, to: readonly string[], digest: string): Promise<ReadMail | null> {
    // Its thread is there before it counts: a server that is ended while it still begins has not tried anything.
    await this.pool.run('openPost', null);
    const tries = this.readWell.has(digest)
      ? 0
      : await this.transactions.run(async (sql) => {
          const row = await reportStore.countTry(sql, digest, new Date().toISOString());
          return row!.tries;
        });
    if (tries > MOST_TRIES) return null;
    try {
      const mail = await this.pool.run('readMail', { raw: new Uint8Array(raw), envelopeTo: to });
      this.readWell.add(digest);
      return mail;
    } catch (error) {
      // A server that is stopping has not tried it.
      if (isMailbagError(error) && error.code === 'server-stops') throw error;
      // The machine may have been busy with something else just then.
      return tries < MOST_TRIES ? this.read(raw, to, digest) : null;
    }
  }
}
