import { createHash } from 'node:crypto';
import { simpleParser } from 'mailparser';

/** A message that the stand-in accepted. */
export interface Received {
  id: number;
  messageId: string;
  from: string;
  /** The recipients of its envelope, and where bounces were to go. */
  to: string;
  returnPath: string;
  subject: string;
  at: string;
  /** `sha256` in hexadecimal. */
  attachments: { name: string; type: string; size: number; sha256: string }[];
}

/** What the stand-in accepted since it started. The raw messages of the newest are kept, so that memory stays bounded. */
export class Mailbox {
  readonly received: Received[] = [];
  private readonly raw = new Map<number, Buffer>();

  constructor(private readonly keep = 500) {}

  async take(raw: Buffer, envelopeTo: readonly string[], returnPath = ''): Promise<Received> {
    const parsed = await simpleParser(raw);
    const one: Received = {
      id: this.received.length + 1,
      messageId: parsed.messageId ?? '',
      from: parsed.from?.text ?? '',
      to: envelopeTo.join(', '),
      returnPath,
      subject: parsed.subject ?? '',
      at: new Date().toISOString(),
      attachments: parsed.attachments.map((part) => ({
        name: part.filename ?? 'file',
        type: part.contentType,
        size: part.size,
        sha256: createHash('sha256').update(part.content).digest('hex'),
      })),
    };
    this.received.push(one);
    this.raw.set(one.id, raw);
    const old = one.id - this.keep;
    if (old > 0) this.raw.delete(old);
    return one;
  }

  async open(
    id: number,
  ): Promise<{ received: Received; raw: Buffer; text: string; attachments: { name: string; type: string; content: Buffer }[] } | null> {
    const received = this.received[id - 1];
    const raw = this.raw.get(id);
    if (!received || !raw) return null;
    const parsed = await simpleParser(raw);
    return {
      received,
      raw,
      text: parsed.text ?? '',
      attachments: parsed.attachments.map((part) => ({ name: part.filename ?? 'file', type: part.contentType, content: part.content })),
    };
  }
}
