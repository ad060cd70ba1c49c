import { toldOf } from '../../testing/findings.js';

const usual = (count: number, domain = 'larkmere.example'): string[] => Array.from({ length: count }, (_, at) => `t${at}@${domain}`);
const told = (texts: readonly string[]): [string, string | null][] => toldOf('email', texts, 'domain-typo');

test.each([
  ['a letter left out', 'larkmer.example'],
  ['a letter too many', 'larkmeere.example'],
  ['two letters wrong', 'larkmare.exemple'],
  ['two letters that changed places', 'larkmeer.example'],
])('%s amid ten that are right', (_, domain) => {
  expect(told([...usual(10), `ada@${domain}`])).toEqual([[`ada@${domain}`, 'ada@larkmere.example']]);
});

test('nine are not enough to say what is meant', () => expect(told([...usual(9), 'ada@larkmer.example'])).toEqual([]));

test('a domain that stands there a tenth as often may be another one; less often it is told each time', () => {
  expect(told([...usual(19), 'a@larkmer.example', 'b@larkmer.example'])).toEqual([]);
  expect(told([...usual(20), 'a@larkmer.example', 'b@larkmer.example']).map(([text]) => text)).toEqual([
    'a@larkmer.example',
    'b@larkmer.example',
  ]);
});

test('short domains may differ by one letter only', () => {
  expect(told([...usual(20, 'elm.de'), 'a@eml.de'])).toEqual([]);
  expect(told([...usual(20, 'elm.de'), 'a@el.de'])).toEqual([['a@el.de', 'a@elm.de']]);
});

test.each([
  ['ada@example.con', 'ada@example.com'],
  ['ada@example.ogr', 'ada@example.org'],
  ['ada@example.cmo ', 'ada@example.com'],
  ['ada@mail.example.dee', 'ada@mail.example.de'],
])('the ending of “%s” is a slip, however many there are', (text, mend) => expect(told([text])).toEqual([[text, mend]]));

test('one address is enough where a provider that many have is meant, unless several of its people are there', () => {
  expect(told(['ada@gmial.com', 'bea@gmail.com', 'cleo@gmx.ne'])).toEqual([
    ['ada@gmial.com', 'ada@gmail.com'],
    ['cleo@gmx.ne', 'cleo@gmx.net'],
  ]);
  expect(told([...usual(4, 'gmal.com'), ...usual(3, 'gmail.com')])).toEqual([]);
});

test('what is no address at all is another check’s business', () =>
  expect(told([...usual(20), 'ada@@larkmer.example', 'ada', ''])).toEqual([]));

test('a lot of rare domains far from the usual one are people’s own', () => {
  expect(told([...usual(50), 'a@orchard.example', 'b@post.example', 'c@quist.example'])).toEqual([]);
});
