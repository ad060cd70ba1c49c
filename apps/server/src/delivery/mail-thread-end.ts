import { parentPort } from 'node:worker_threads';
import { guardTargets } from '../platform/targets.js';
import { MailTransport } from './mail-transport.js';
import type { ThreadMessage, Told } from './mail-thread-talk.js';
import { shortWords } from './outcome.js';
import type { OutgoingMessage } from './outgoing-message.js';

guardTargets();

const port = parentPort!;
const say = (message: ThreadMessage): void => port.postMessage(message);
const transports = new Map<number, MailTransport>();
const gates = new Map<number, (refusal: string | null) => void>();

/** Buffers arrive as plain bytes. */
const received = (message: OutgoingMessage): OutgoingMessage => ({
  ...message,
  attachments: message.attachments.map((one) => ({
    ...one,
    content: Buffer.from(one.content.buffer, one.content.byteOffset, one.content.byteLength),
  })),
});

function send(transport: number, id: number, message: OutgoingMessage): void {
  const atGate = (): Promise<void> =>
    new Promise((open, shut) => {
      gates.set(id, (refusal) => {
        gates.delete(id);
        if (refusal === null) open();
        else shut(new Error(refusal));
      });
      say({ kind: 'gate', id });
    });
  transports
    .get(transport)!
    .send(received(message), atGate)
    .then(
      (outcome) => say({ kind: 'ended', id, outcome }),
      (error: unknown) => say({ kind: 'ended', id, outcome: { kind: 'our-side', detail: shortWords(String(error)), lasting: false } }),
    );
}

port.on('message', (told: Told) => {
  if (told.kind === 'open') transports.set(told.transport, new MailTransport(told.server));
  else if (told.kind === 'send') send(told.transport, told.id, told.message);
  else if (told.kind === 'gate') gates.get(told.id)?.(told.refusal);
  else {
    transports.get(told.transport)?.close();
    transports.delete(told.transport);
  }
});
