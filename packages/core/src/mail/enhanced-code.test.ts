import type { troubles } from './enhanced-code.js';
import { enhancedCode, troubleWords } from './enhanced-code.js';
import { newReturnToken, returnPath, returnToken } from './return-path.js';
import { deliveryHeaders } from './headers.js';

/** The sub-codes that RFC 3463 (3.1 to 3.8) registers, with the subject under which each stands. */
const registered: [code: string, subject: (typeof troubles)[number] | null][] = [
  ...['1.0', '1.1', '1.2', '1.3', '1.4', '1.5', '1.6', '1.7', '1.8'].map((code): [string, 'address'] => [code, 'address']),
  ...['2.0', '2.1', '2.2', '2.3', '2.4'].map((code): [string, 'mailbox'] => [code, 'mailbox']),
  ...['3.0', '3.1', '3.2', '3.3', '3.4', '3.5'].map((code): [string, 'their server'] => [code, 'their server']),
  ...['4.0', '4.1', '4.2', '4.3', '4.4', '4.5', '4.6', '4.7'].map((code): [string, 'network'] => [code, 'network']),
  ...['5.0', '5.1', '5.2', '5.3', '5.4', '5.5'].map((code): [string, 'protocol'] => [code, 'protocol']),
  ...['6.0', '6.1', '6.2', '6.3', '6.4', '6.5'].map((code): [string, 'content'] => [code, 'content']),
  ...['7.0', '7.1', '7.2', '7.3', '7.4', '7.5', '7.6', '7.7'].map((code): [string, 'policy'] => [code, 'policy']),
  ['0.0', null],
];

test.each(registered)('X.%s is about the %s, lasting or not by its class (RFC 3463, 2)', (code, trouble) => {
  expect(enhancedCode(`5.${code}`)).toEqual({ code: `5.${code}`, lasting: 'hard', trouble });
  expect(enhancedCode(`451 4.${code} try again`)).toEqual({ code: `4.${code}`, lasting: 'soft', trouble });
  expect(enhancedCode(`250 2.${code} fine`)).toEqual({ code: `2.${code}`, lasting: 'success', trouble });
});

/** Replies as servers write them (shapes of RFC 2034, 4 and RFC 3464, 2.3.4; the words are invented). */
test.each<[string, string | null]>([
  ['550 5.1.1 <ada@example.org>: no such user', '5.1.1'],
  ['550-5.7.1 Our system has found that this\r\n550 5.7.1 message is not wanted', '5.7.1'],
  ['Status: 4.4.7 (delivery time expired)', '4.4.7'],
  ['smtp; 552 5.2.2 mailbox full', '5.2.2'],
  ['host 192.0.2.25 refused', null],
  ['host 5.1.1.20 refused', null],
  ['version 3.5.1 of the server', null],
  ['5.1234.1', null],
  ['550 no such user', null],
  ['', null],
])('%j tells the code %s', (text, code) => expect(enhancedCode(text)?.code ?? null).toBe(code));

test('what a code says in words does not hang on its class', () => {
  for (const [code] of registered) expect(troubleWords(`4.${code}`)).toBe(troubleWords(`5.${code}`));
  expect(troubleWords('5.1.1')).toBe('there is no such mailbox');
  expect(troubleWords('5.9.9')).toBeNull();
});

describe('the way back', () => {
  test('a token comes back from its own path, however servers change its case, and survives in a longer text', () => {
    for (let seed = 0; seed < 200; seed++) {
      const token = newReturnToken(Uint8Array.from({ length: 20 }, (_, at) => (seed * 31 + at * 17) % 256));
      expect(token).toMatch(/^[0-9a-v]{20}$/);
      const path = returnPath('bounces@larkmere.example', token);
      expect(path).toBe(`bounces+${token}@larkmere.example`);
      // RFC 5321, 4.5.3.1.1: a local part has at most 64 octets.
      expect(path.indexOf('@')).toBeLessThanOrEqual(64);
      expect(returnToken(path.toUpperCase())).toBe(token);
      expect(returnToken(`Final-Recipient: rfc822; <${path}> was not there`)).toBe(token);
    }
  });
  test('other addresses with a plus carry none', () => {
    expect(returnToken('ada+plots@example.org')).toBeNull();
    expect(returnToken(`ada+${'a'.repeat(21)}@example.org`)).toBeNull();
    expect(returnToken(`ada+${'w'.repeat(20)}@example.org`)).toBeNull();
  });
});

describe('headers that tell machines what a mail is', () => {
  const headers = (list: string, from = 'office@larkmere.example', replyTo = ''): Record<string, string> =>
    deliveryHeaders({ list, number: 7, from, replyTo });
  test.each([
    ['Plot agreements 2027', 'plot-agreements-2027'],
    ['Übersicht', 'u-bersicht'],
    ['許可', 'mailing'],
    ['—', 'mailing'],
    [`${'a'.repeat(60)}`, 'a'.repeat(40)],
    ['a\r\nBcc: x@example.org', 'a-bcc-x-example-org'],
  ])('the list of “%s” is named %s (RFC 2919, 2)', (list, label) => {
    expect(headers(list)['List-ID']).toBe(`<${label}.7.larkmere.example>`);
  });
  test('no header can be broken in two, and answers go where they are meant', () => {
    for (const value of Object.values(headers('a\r\nX: y'))) expect(value).not.toMatch(/[\r\n]/);
    expect(headers('a')['List-Owner']).toBe('<mailto:office@larkmere.example>');
    expect(headers('a', 'office@larkmere.example', 'plots@larkmere.example')['List-Owner']).toBe('<mailto:plots@larkmere.example>');
    expect(headers('a')['Auto-Submitted']).toBe('auto-generated');
  });
});
