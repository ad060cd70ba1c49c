import type { Reply } from './behaviour.js';

const date = (): string => new Date().toUTCString().replace('GMT', '+0000');
let count = 0;
const id = (): string => `<reply.${Date.now()}.${++count}@post-office.test>`;

/** The mail that comes back for a message (RFC 3464 for reports, RFC 3834 for answers). @param returnPath where it goes @param original headers of the message */
export function replyTo(reply: Reply, recipient: string, returnPath: string, original: string): string {
  const head = (from: string, subject: string, more: string[] = []): string =>
    [
      `From: ${from}`,
      `To: <${returnPath}>`,
      `Subject: ${subject}`,
      `Date: ${date()}`,
      `Message-ID: ${id()}`,
      ...more,
      'MIME-Version: 1.0',
    ].join('\r\n');
  if (reply === 'away')
    return `${head(`<${recipient}>`, 'Out of office: back on Monday', ['Auto-Submitted: auto-replied'])}\r\nContent-Type: text/plain; charset=utf-8\r\n\r\nI am away until Monday and will read your message then.\r\n`;
  if (reply === 'words')
    return `${head('Mail Delivery System <MAILER-DAEMON@post-office.test>', 'Undelivered mail', ['Auto-Submitted: auto-replied'])}\r\nContent-Type: text/plain; charset=utf-8\r\n\r\nYour message could not be delivered.\r\n\r\n<${recipient}>: host mx.example.org said: 550 5.1.1 unknown user\r\n`;
  const facts = {
    gone: ['failed', '5.1.1', `550 5.1.1 <${recipient}>: no such mailbox any more`],
    stuffed: ['failed', '4.2.2', `452 4.2.2 <${recipient}>: mailbox full for five days`],
    waiting: ['delayed', '4.4.1', '421 4.4.1 their server does not answer yet'],
  }[reply];
  const boundary = `reply-${Date.now()}-${count}`;
  return [
    head(
      'Mail Delivery System <MAILER-DAEMON@post-office.test>',
      reply === 'waiting' ? 'Delivery is delayed' : 'Undelivered mail returned to sender',
      ['Auto-Submitted: auto-replied'],
    ),
    `Content-Type: multipart/report; report-type=delivery-status; boundary="${boundary}"`,
    '',
    `--${boundary}`,
    'Content-Type: text/plain; charset=utf-8',
    '',
    `Your message to ${recipient} ${reply === 'waiting' ? 'is still on its way' : 'could not be delivered'}.`,
    '',
    `--${boundary}`,
    'Content-Type: message/delivery-status',
    '',
    'Reporting-MTA: dns; post-office.test',
    '',
    `Original-Recipient: rfc822;${recipient}`,
    `Final-Recipient: rfc822;${recipient}`,
    `Action: ${facts[0]}`,
    `Status: ${facts[1]}`,
    `Diagnostic-Code: smtp; ${facts[2]}`,
    '',
    `--${boundary}`,
    'Content-Type: text/rfc822-headers',
    '',
    original.trim(),
    '',
    `--${boundary}--`,
    '',
  ].join('\r\n');
}
