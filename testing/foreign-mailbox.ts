import type { AddressInfo } from 'node:net';
import { ImapBox, imapServer } from '../standins/src/mail/imap.js';

/** A mailbox into which a test puts what it likes, read by IMAP. */
export interface ImapMailbox {
  port: number;
  put(raw: string): void;
  /** Messages that nobody has read. */
  unseen(): number;
  close(): Promise<void>;
}

export async function foreignMailbox(): Promise<ImapMailbox> {
  const box = new ImapBox();
  const server = imapServer(box);
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return {
    port: (server.address() as AddressInfo).port,
    put: (raw) => box.add(Buffer.from(raw)),
    unseen: () => box.messages.filter(({ flags }) => !flags.has('\\Seen')).length,
    close: () => new Promise((done) => server.close(() => done())),
  };
}
