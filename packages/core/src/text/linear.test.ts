import { readReport } from '../mail/report.js';
import { addressesIn } from '../mail/recipients.js';
import { replaceTags } from '../patterns/tags.js';
import { parameterNames } from '../patterns/query-parameters.js';
import { safeName } from '../copies/file-name.js';
import { slugOf } from '../tables/headings.js';
import { trimEnds } from './trim.js';
import { leastProcessorTime } from '../../../../testing/processor-time.js';

/** What a stranger can make long is gone through once: ten times as much takes about ten times as long, never a hundred times. */
const attacks: [what: string, run: (length: number) => unknown][] = [
  [
    'a report full of @',
    (length) => readReport({ headers: { from: 'MAILER-DAEMON' }, to: [], text: 'a@'.repeat(length), status: null, returned: null }),
  ],
  [
    'a report full of dots',
    (length) => readReport({ headers: { 'return-path': '<>' }, to: [], text: `a@${'a.'.repeat(length)}`, status: null, returned: null }),
  ],
  [
    'a status full of spaces',
    (length) =>
      readReport({
        headers: {},
        to: [],
        text: '',
        status: `Final-Recipient: rfc822;${'( '.repeat(length)}x\nAction: failed`,
        returned: null,
      }),
  ],
  ['a status full of empty lines', (length) => readReport({ headers: {}, to: [], text: '', status: ' \n'.repeat(length), returned: null })],
  [
    'a returned message full of headers',
    (length) => readReport({ headers: {}, to: [], text: '', status: null, returned: 'message-id: <'.repeat(length) }),
  ],
  [
    'references full of brackets',
    (length) => readReport({ headers: { references: '<'.repeat(length) }, to: [], text: '', status: null, returned: null }),
  ],
  ['addresses full of spaces', (length) => addressesIn(`${' '.repeat(length)}"${' '.repeat(length)}<`, true)],
  ['open braces', (length) => replaceTags('{{'.repeat(length), (tag) => tag)],
  ['open percent braces', (length) => replaceTags('{%{{'.repeat(length), (tag) => tag)],
  ['open quotes of a query', (length) => parameterNames(`"'\\'`.repeat(length))],
  ['open comments of a query', (length) => parameterNames('/*'.repeat(length))],
  ['dollar quotes of a query', (length) => parameterNames('$a$ $b'.repeat(length))],
  ['a name full of dots', (length) => safeName(`a${'. '.repeat(length)}b`)],
  ['a heading full of lines', (length) => slugOf(`a${'_'.repeat(length)}b${'_'.repeat(length)}`)],
];
test.each(attacks)('%s takes time in proportion to its length', (_, run) => {
  run(1000);
  // The larger text would take minutes where time grows with the square; a proportional one takes milliseconds.
  expect(leastProcessorTime(() => run(200_000), 2000)).toBeLessThan(2000);
});

test('tags are found as they stand, whatever is not closed', () => {
  const marked = (text: string): string => replaceTags(text, (tag) => `[${tag}]`);
  expect(marked('a {{ b }} c {% if d %}e{% endif %}')).toBe('a [{{ b }}] c [{% if d %}]e[{% endif %}]');
  expect(marked('{ {{ a }} {{ b')).toBe('{ [{{ a }}] {{ b');
  expect(marked('{{ {% a }} %}')).toBe('[{{ {% a }}] %}');
  expect(marked('{% a {{ b }}')).toBe('{% a [{{ b }}]');
  expect(marked('{{{ a }}}')).toBe('[{{{ a }}]}');
});
test('ends are trimmed of the characters given', () => {
  expect(trimEnds(' .a. .b. ', /[\s.]/)).toBe('a. .b');
  expect(trimEnds('--a--', /-/, 'end')).toBe('--a');
  expect(trimEnds('---', /-/)).toBe('');
});
