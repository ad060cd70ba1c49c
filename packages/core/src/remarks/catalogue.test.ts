import { storedDetail, parseDetail, remark, remarks, detailText } from './catalogue.js';

test('a remark is kept with its code and fields and comes back as it was; words of others stay words', () => {
  const corrected = remark('address-corrected', { from: 'a@example.org', to: 'b@example.org' });
  for (const detail of [corrected, remark('due-again'), '550 5.1.1 no such mailbox', '["due-again",{}]', '', null]) {
    expect(parseDetail(storedDetail(detail))).toEqual(detail);
  }
  expect(detailText(parseDetail(storedDetail(corrected)))).toBe('Address corrected from a@example.org to b@example.org');
  expect(detailText('250 OK')).toBe('250 OK');
});

test('one message and several; a remark of a version that is not known here says its code', () => {
  expect(detailText(remark('mailbox-read', { messages: 1 }))).toBe('1 new message was read.');
  expect(detailText(remark('mailbox-read', { messages: 1200 }))).toBe('1,200 new messages were read.');
  expect(detailText({ code: 'of-tomorrow' as 'due-again', fields: {} })).toBe('of-tomorrow');
});

test.each(Object.entries(remarks))('“%s” says what it is in whole words, with all that it carries', (code, sentence) => {
  const given = new Proxy(
    {},
    {
      get: (_, name) =>
        /^(messages|attempts|run|port)$/.test(String(name))
          ? 7
          : name === 'at' || name === 'until'
            ? '2027-01-15T08:00:00Z'
            : `‹${String(name)}›`,
    },
  );
  const text = (sentence as (fields: object) => string)(given);
  expect(text).toMatch(/^[“‹A-Z0-9]/);
  expect(text).not.toMatch(/undefined|null|NaN|\[object|Invalid| {2}/);
  expect(code).toMatch(/^[a-z]+(-[a-z]+)*$/);
});
