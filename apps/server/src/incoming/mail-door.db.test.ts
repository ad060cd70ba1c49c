import { ownDatabase } from '../../../../testing/own-database.js';
import type { Sql } from '../persistence/sql.js';
import { readMail } from '../threads/read-mail.js';
import type { IncomingMessage, MailTaker, Threads } from './mail-door.js';
import { MailDoor } from './mail-door.js';

let opened: Awaited<ReturnType<typeof ownDatabase>>;
beforeAll(async () => void (opened = await ownDatabase()));
afterAll(() => opened.close());

/** Threads that take messages apart here, and fail as often as it is said. */
let failures = 0;
const pool = {
  run: (name: string, input: Parameters<typeof readMail>[0]) => {
    if (name !== 'readMail') return Promise.resolve();
    return failures-- > 0 ? Promise.reject(new Error('the thread is gone')) : readMail(input);
  },
} as unknown as Threads;

/** A door whose transactions are undone when what they do fails. */
const openDoor = (): MailDoor => new MailDoor({ run: <T>(work: (sql: Sql) => Promise<T>) => opened.database.transaction(work) }, pool);

const way = { way: 'smtp', to: ['orders@larkmere.example'], from: 'office@larkmere.example' } as const;
const message = (subject: string): Buffer => Buffer.from(`Message-ID: <${subject}@example.org>\r\nSubject: ${subject}\r\n\r\nPlease.\r\n`);

/** One for whom mail to an address is, and what it got. */
function taker(address: string, wants: (subject: string) => boolean): MailTaker & { got: IncomingMessage[]; told: number } {
  const self = {
    got: [] as IncomingMessage[],
    told: 0,
    knows: (asked: string) => Promise.resolve(asked === address),
    take(_sql: unknown, incoming: IncomingMessage) {
      if (!wants(incoming.mail?.subject ?? '')) return Promise.resolve(null);
      self.got.push(incoming);
      return Promise.resolve({ kind: address, afterwards: () => void self.told++ });
    },
  };
  return self;
}

test('mail is offered in turn to those for whom it may be, and what nobody wants goes to the last', async () => {
  const door = openDoor();
  const last = taker('bounces', () => true);
  const orders = taker('orders', (subject) => subject.startsWith('Order'));
  door.register(last, true);
  door.register(orders);
  expect([await door.leadsHere('orders'), await door.leadsHere('bounces'), await door.leadsHere('nobody')]).toEqual([true, true, false]);
  expect(await door.take(message('Order 7'), way)).toBe('orders');
  expect(await door.take(message('Something else'), way)).toBe('bounces');
  expect([orders.got.length, orders.told, last.got.length, last.told]).toEqual([1, 1, 1, 1]);
  expect(orders.got[0]).toMatchObject({ way: 'smtp', from: 'office@larkmere.example', mail: { subject: 'Order 7' } });
});

test('a message is the same whatever way it comes and whatever trace headers stand before it', async () => {
  const door = openDoor();
  const all = taker('bounces', () => true);
  door.register(all, true);
  await door.take(message('Twice'), way);
  await door.take(Buffer.concat([Buffer.from('Received: from somewhere\r\n'), message('Twice')]), { way: 'imap', to: [], from: null });
  await door.take(message('Once'), way);
  const [first, second, other] = all.got.map(({ digest }) => digest);
  expect(second).toBe(first);
  expect(other).not.toBe(first);
});

test('one that cannot be taken apart is tried three times, and then handed on as it is', async () => {
  const door = openDoor();
  const all = taker('bounces', () => true);
  door.register(all, true);
  failures = 2;
  await door.take(message('Third time'), way);
  expect(all.got[0]!.mail).toMatchObject({ subject: 'Third time' });
  failures = 1000;
  await door.take(message('Never'), way);
  failures = 0;
  expect(all.got[1]!.mail).toBeNull();
});

test('what is not kept has told nobody, and can be taken again', async () => {
  const door = openDoor();
  const all = taker('bounces', () => true);
  const full: MailTaker = {
    knows: () => Promise.resolve(false),
    take: () => Promise.reject(new Error('the disk is full')),
  };
  door.register(all, true);
  door.register(full);
  await expect(door.take(message('Full'), way)).rejects.toThrow('the disk is full');
  expect([all.got.length, all.told]).toEqual([0, 0]);
  full.take = () => Promise.resolve(null);
  expect(await door.take(message('Full'), way)).toBe('bounces');
});
