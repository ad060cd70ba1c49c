import type { Thread } from './mail-thread.js';
import { MailThread } from './mail-thread.js';
import type { ThreadMessage, Told } from './mail-thread-talk.js';
import type { OutgoingMessage } from './outgoing-message.js';

/** A thread that does nothing by itself: the test says what it says, and when it breaks. */
class SilentThread implements Thread {
  readonly told: Told[] = [];
  isHolding = true;
  private readonly listeners = new Map<string, (message: never) => void>();
  postMessage = (told: Told): void => void this.told.push(told);
  on = (event: string, listener: (message: never) => void): void => void this.listeners.set(event, listener);
  ref = (): void => void (this.isHolding = true);
  unref = (): void => void (this.isHolding = false);
  terminate = (): Promise<number> => Promise.resolve(0);
  say(message: ThreadMessage): Promise<void> {
    this.listeners.get('message')!(message as never);
    return new Promise((done) => setImmediate(done));
  }
  break(why: Error | null): void {
    if (why) this.listeners.get('error')!(why as never);
    this.listeners.get('exit')!(undefined as never);
  }
  ids(): number[] {
    return this.told.flatMap((one) => (one.kind === 'send' ? [one.id] : []));
  }
}

const server = { id: 1, name: 'Post', connections: 2 } as never;
const message = (subject: string): OutgoingMessage => ({ subject, attachments: [] }) as never;
const pass = (): Promise<void> => Promise.resolve();

function started(): { threads: SilentThread[]; mail: MailThread; broken: string[] } {
  const threads: SilentThread[] = [];
  const broken: string[] = [];
  const mail = new MailThread(
    (error) => broken.push(error.message),
    () => threads[threads.push(new SilentThread()) - 1]!,
  );
  return { threads, mail, broken };
}

test('nothing leaves before what must be written down is, and its refusal keeps the message back', async () => {
  const { threads, mail } = started();
  const transport = mail.open(server);
  let write = (): void => undefined;
  const first = transport.send(message('first'), () => new Promise((done) => (write = done)));
  const second = transport.send(message('second'), () => Promise.reject(new Error('Its claim was lost.')));
  const [thread] = threads as [SilentThread];
  const [one, two] = thread.ids() as [number, number];
  await thread.say({ kind: 'gate', id: one });
  expect(thread.told.filter(({ kind }) => kind === 'gate')).toEqual([]);
  write();
  await thread.say({ kind: 'gate', id: two });
  expect(thread.told.filter(({ kind }) => kind === 'gate')).toEqual([
    { kind: 'gate', id: one, refusal: null },
    { kind: 'gate', id: two, refusal: 'Its claim was lost.' },
  ]);
  await thread.say({ kind: 'ended', id: one, outcome: { kind: 'accepted', detail: '250', accepted: [], refused: [] } });
  await thread.say({ kind: 'ended', id: two, outcome: { kind: 'our-side', detail: 'kept', lasting: false } });
  expect([(await first).kind, (await second).kind]).toEqual(['accepted', 'our-side']);
  // Only while something is under way does the thread keep the server from ending.
  expect(thread.isHolding).toBe(false);
});

test('a closed transport lets nothing through the gate any more', async () => {
  const { threads, mail } = started();
  const transport = mail.open(server);
  void transport.send(message('waits'), () => Promise.reject(new Error('must not be asked')));
  const [thread] = threads as [SilentThread];
  transport.close();
  await thread.say({ kind: 'gate', id: thread.ids()[0]! });
  expect(thread.told.at(-1)).toMatchObject({ kind: 'gate', refusal: 'the sending stops' });
  expect(await transport.send(message('late'), pass)).toMatchObject({ kind: 'given-back' });
  expect(thread.ids()).toHaveLength(1);
});

test('when the thread breaks, what was leaving is unknown, the rest was not tried, and the next message starts another one', async () => {
  const { threads, mail, broken } = started();
  const transport = mail.open(server);
  const leaving = transport.send(message('leaving'), pass);
  const waiting = transport.send(message('waiting'), pass);
  const [thread] = threads as [SilentThread];
  await thread.say({ kind: 'gate', id: thread.ids()[0]! });
  thread.break(new Error('out of memory'));
  expect(await leaving).toMatchObject({ kind: 'unknown', detail: { code: 'mail-part-stopped', fields: { why: 'out of memory' } } });
  expect(await waiting).toMatchObject({ kind: 'our-side', lasting: false });
  expect(broken).toEqual(['out of memory']);
  void transport.send(message('again'), pass);
  expect(threads).toHaveLength(2);
  expect(threads[1]!.told.map(({ kind }) => kind)).toEqual(['open', 'send']);
});
