import type { ErrorEntry, ErrorFields } from './entry.js';
import { MailbagError, catalogue, isMailbagError } from './catalogue.js';

const entries = Object.entries(catalogue as Record<string, ErrorEntry<ErrorFields>>);
/** Fields of any name: what is counted is a number, what is listed a list, everything else a word. */
const given = new Proxy({} as ErrorFields, {
  get: (_, name) =>
    /^(accepted|sheets|rows|columns|names|senders|sources|mailings|characters)$/.test(String(name))
      ? ['one', 'two']
      : /^(limit|count|seconds|size|times|length|number|left|port|pid|limitMb|limitKb|row)$/.test(String(name))
        ? 7
        : `‹${String(name)}›`,
});

test.each(entries)('%s says what it is in whole sentences, with all of its fields', (code, { sentence, status }) => {
  const text = sentence(given);
  expect(text).toMatch(/^[“‹A-Z0-9]/);
  expect(text).not.toMatch(/undefined|null|NaN|\[object/);
  expect(text.replace('“..” ', '')).not.toMatch(/ {2}|\.\.|!/);
  if (!text.endsWith('›')) expect(text).toMatch(/[.?]$/);
  // RFC 9110, 15.5 and 15.6: an error is the client's or the server's.
  expect(status).toBeGreaterThanOrEqual(400);
  expect(status).toBeLessThan(600);
  expect(code).toMatch(/^[a-z]+(-[a-z]+)*$/);
});

test('an error carries its code, its fields and its status, and says its sentence', () => {
  const error = new MailbagError('source-key-missing', { source: 'tenancies', column: 'Plot' });
  expect(error.message).toBe('“tenancies” has no column “Plot”. Choose another record key.');
  expect(error.toJSON()).toEqual({ code: 'source-key-missing', fields: { source: 'tenancies', column: 'Plot' }, message: error.message });
  expect([error.status, new MailbagError('account-signed-out').status, new MailbagError('disk-full').status]).toEqual([422, 401, 507]);
  expect([isMailbagError(error), isMailbagError(new Error('x')), isMailbagError(null)]).toEqual([true, false, false]);
});

test('an error that was told elsewhere is the same here; one of a version that is not known is unexpected, with what it was called', () => {
  const { code, fields } = new MailbagError('sheet-too-many-rows', { where: 'rows.csv', limit: 1000 });
  const again = MailbagError.from(JSON.parse(JSON.stringify({ code, fields })) as { code: string });
  expect(again.message).toBe('rows.csv has more than 1,000 rows. Split it into several files.');
  expect(MailbagError.from({ code: 'of-tomorrow', fields: null })).toMatchObject({ code: 'unexpected', fields: { trace: 'of-tomorrow' } });
  const cause = new Error('below');
  expect(MailbagError.from({ code: 'disk-full' }, { cause }).cause).toBe(cause);
});
