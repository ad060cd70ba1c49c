import { Mailbox } from './mailbox.js';
import { treatmentOf } from './behaviour.js';

test.each([
  ['quist@example.org', 'accept'],
  ['unknown.quist@example.org', 'unknown'],
  ['nobody@example.org', 'unknown'],
  ['later.a10@example.org', 'later'],
  ['full+x@example.org', 'full'],
  ['drop-me@example.org', 'drop'],
  ['fuller@example.org', 'accept'],
])('%s is treated as %s', (address, treatment) => {
  expect(treatmentOf(address)).toBe(treatment);
});

test('a message is shown as its recipient would see it, and only the newest are kept whole', async () => {
  const mailbox = new Mailbox(1);
  const raw = (subject: string): Buffer =>
    Buffer.from(
      `From: Office <o@larkmere.example>\r\nTo: a@example.org\r\nSubject: ${subject}\r\nMessage-ID: <${subject}@x>\r\n\r\nHello\r\n`,
    );
  await mailbox.take(raw('one'), ['a@example.org']);
  await mailbox.take(raw('two'), ['a@example.org']);
  expect(mailbox.received.map(({ messageId, subject }) => [messageId, subject])).toEqual([
    ['<one@x>', 'one'],
    ['<two@x>', 'two'],
  ]);
  expect((await mailbox.open(2))!.text.trim()).toBe('Hello');
  expect(await mailbox.open(1)).toBeNull();
});
