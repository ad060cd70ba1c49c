import { enhancedCode, troubleWords } from './enhanced-code.js';
import type { IncomingMail } from './report.js';
import { readDeliveryStatus, readReport } from './report.js';
import { newReturnToken, returnPath, returnToken } from './return-path.js';

const mail = (part: Partial<IncomingMail>): IncomingMail => ({ headers: {}, to: [], text: '', status: null, returned: null, ...part });
const token = 'k3m9q0v7d2a5h8t1c4g6';

describe('enhanced codes (RFC 3463)', () => {
  test.each([
    ['550 5.1.1 unknown user', '5.1.1', 'hard', 'address'],
    ['452 4.2.2 mailbox full', '4.2.2', 'soft', 'mailbox'],
    ['5.7.1 (delivery not authorized)', '5.7.1', 'hard', 'policy'],
    ['2.0.0 taken', '2.0.0', 'success', null],
    ['554 5.3.4 message too big', '5.3.4', 'hard', 'their server'],
  ])('%p', (text, code, lasting, trouble) => {
    expect(enhancedCode(text)).toEqual({ code, lasting, trouble });
  });
  test.each(['connect to 5.1.1.7 failed', '550 no such user', ''])('%p holds none', (text) => {
    expect(enhancedCode(text)).toBeNull();
  });
  test('have words', () => expect(troubleWords('5.2.2')).toBe('the mailbox is full'));
});

describe('delivery status (RFC 3464)', () => {
  // RFC 3464, appendix E.1 and E.4, as remembered.
  test('a simple report', () => {
    expect(
      readDeliveryStatus(
        'Reporting-MTA: dns; cs.utk.edu\r\n\r\nOriginal-Recipient: rfc822;louisl@larry.slip.umd.edu\r\nFinal-Recipient: rfc822;louisl@larry.slip.umd.edu\r\nAction: failed\r\nStatus: 4.0.0\r\nDiagnostic-Code: smtp; 426 connection timed out\r\nLast-Attempt-Date: Thu, 7 Jul 1994 17:15:49 -0400\r\n',
      ),
    ).toEqual([
      {
        address: 'louisl@larry.slip.umd.edu',
        action: 'failed',
        code: { code: '4.0.0', lasting: 'soft', trouble: null },
        diagnostic: '426 connection timed out',
      },
    ]);
  });
  test('a report of delay is no bounce', () => {
    const status =
      'Reporting-MTA: dns; sun2.nsfnet-relay.ac.uk\n\nFinal-Recipient: rfc822;thomas@de-montfort.ac.uk\nStatus: 4.0.0 (unknown temporary failure)\nAction: delayed\n';
    expect(readReport(mail({ status })).kind).toBe('delay');
  });
  test('a report about several recipients, with folded lines and other line ends', () => {
    const found = readDeliveryStatus(
      'Reporting-MTA: dns;mx\n\nFinal-Recipient: RFC822; a@example.org\nAction: failed (hard)\nStatus: 5.0.0 (permanent failure)\nDiagnostic-Code: smtp; 550-5.1.1 No such\n  user here\n \nFinal-Recipient: rfc822;b@example.org\nAction: delivered\nStatus: 2.1.5\n',
    );
    expect(found.map(({ address, action, diagnostic }) => [address, action, diagnostic])).toEqual([
      ['a@example.org', 'failed', '550-5.1.1 No such user here'],
      ['b@example.org', 'delivered', ''],
    ]);
  });
  test('the address that was written to is told, not the one it was led on to', () => {
    const [one] = readDeliveryStatus(
      'x: y\n\nOriginal-Recipient: rfc822; first@example.org\nFinal-Recipient: rfc822; second@example.net\nAction: failed\nStatus: 5.1.1\n',
    );
    expect(one!.address).toBe('first@example.org');
  });
});

describe('what came to the bounce mailbox', () => {
  test('is led back to its delivery by the token, whatever case the server gave it', () => {
    const path = returnPath('bounces@office.example', token);
    expect(path).toBe(`bounces+${token}@office.example`);
    expect(returnToken(path.toUpperCase())).toBe(token);
    expect(newReturnToken(new Uint8Array(20).fill(255))).toHaveLength(20);
  });
  test('is led back by the Message-ID of what was returned when the token was lost', () => {
    const found = readReport(
      mail({
        status: 'x: y\n\nFinal-Recipient: rfc822;a@b.example\nAction: failed\nStatus: 5.1.1\n',
        returned: 'From: o@x.example\r\nMessage-ID: <7.3.abc@office.example>\r\nSubject: Plot\r\n',
      }),
    );
    expect(found).toMatchObject({ kind: 'bounce', token: null, messageIds: ['<7.3.abc@office.example>'] });
  });
  // RFC 3834, 5: answers by machines carry Auto-Submitted: auto-replied.
  test.each([
    [{ 'auto-submitted': 'auto-replied', subject: 'Re: Plot' }],
    [{ subject: 'Automatic reply: Plot renewal' }],
    [{ 'x-autoreply': 'yes' }],
    [{ precedence: 'auto_reply' }],
  ])('an out-of-office note %p is no bounce', (headers) => {
    expect(readReport(mail({ headers, to: [`bounces+${token}@o.example`], text: 'Back on 5.1.1' })).kind).toBe('answer');
  });
  test('a person who writes to it is no bounce', () => {
    expect(readReport(mail({ headers: { from: 'Ann <ann@example.org>' }, text: 'My copy says 550, is that right?' })).kind).toBe('other');
  });
  test('a report in words only is understood by its code', () => {
    const found = readReport(
      mail({
        headers: { from: 'Mail Delivery System <MAILER-DAEMON@mx.example>', subject: 'Undelivered' },
        to: [`bounces+${token}@o.example`],
        text: 'This is the mail system.\n\n<quist@example.org>: host mx said: 550 5.1.1 unknown user\n',
      }),
    );
    expect(found).toMatchObject({
      kind: 'bounce',
      token,
      recipients: [{ address: 'quist@example.org', code: { code: '5.1.1', lasting: 'hard' } }],
    });
  });
});
