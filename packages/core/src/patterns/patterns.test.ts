import { leastProcessorTime } from '../../../../testing/processor-time.js';
import { messagePattern, textToHtml } from './message.js';
import { outputPattern } from './output-path.js';
import { compilePattern } from './pattern.js';
import { someContext } from '../testing/context.js';
import { patternData } from './pattern-data.js';

const code = (work: () => unknown): string => {
  try {
    work();
    return 'no error';
  } catch (error) {
    return (error as { code: string }).code;
  }
};

test('columns stand in patterns by their short names, in any script', () => {
  expect(compilePattern('{{ plot }} {{ φύλλο }}', ['plot', 'φύλλο']).render({ plot: 'B-17', φύλλο: 'α' })).toBe('B-17 α');
});
test('a pattern that names a missing column is refused before anything is made, naming those that are there', () => {
  expect(() => compilePattern('{{ plott }}', ['plot', 'site'])).toThrow(
    'names plott, which is not a column of the records. Columns are “plot”, “site”',
  );
});
test.each(['{{ plot', '{% include "x" %}', '{% if %}', '{{ plot | nofilter }}'])('%p is refused as broken', (pattern) => {
  expect(code(() => compilePattern(pattern, ['plot']).render({ plot: 'x' }))).toBe('pattern-broken');
});
test('a pattern cannot reach what is not its data', () => {
  expect(compilePattern('{{ plot.constructor }}{{ plot.length }}', ['plot']).names).toEqual(['plot']);
  expect(code(() => compilePattern('{{ plot.constructor.name }}', ['plot']).render({ plot: 'x' }))).toBe('pattern-broken');
});
// Each of these came to hundreds of megabytes, or to an answer of that size.
test.each([
  [
    'captured text that is doubled',
    `{% capture a %}{{ plot }}{% endcapture %}${'{% capture a %}{{ a }}{{ a }}{% endcapture %}'.repeat(24)}{{ a }}`,
  ],
  ['assigned text that is doubled', `{% assign a = plot %}${'{% assign a = a | append: a %}'.repeat(28)}{{ a }}`],
  [
    'assigned text whose letters are replaced by all of it',
    `{% assign a = plot %}${'{% assign a = a | replace: "x", a %}'.repeat(12)}{{ a }}`,
  ],
  [
    'a list that is joined with a long text',
    `{% assign a = "x" | split: "" %}${'{% assign a = a | concat: a %}'.repeat(16)}{{ a | join: plot }}`,
  ],
  ['what stands in a loop', `{% for i in (1..900) %}${'a line of text '.repeat(200)}{% endfor %}`],
  ['loops in loops', '{% for i in (1..900) %}{% for j in (1..900) %}{{ plot }}{% endfor %}{% endfor %}'],
  [
    'loops in loops that write nothing',
    '{% for i in (1..900) %}{% for j in (1..900) %}{% for k in (1..900) %}{% endfor %}{% endfor %}{% endfor %}',
  ],
  ['a width of a date', "{{ '2027-01-02' | date: '%999999999d' }}"],
])('%s ends with a sentence, soon and in little room', (_, pattern) => {
  const memory = process.memoryUsage().heapUsed;
  const end = (): string => code(() => compilePattern(pattern, ['plot']).render({ plot: 'x'.repeat(40) }));
  expect(leastProcessorTime(() => expect(end()).toBe('pattern-broken'), 5000)).toBeLessThan(5000);
  expect((process.memoryUsage().heapUsed - memory) / 1048576).toBeLessThan(150);
});
test('a column wins over an extra of the same name', () => {
  expect(
    patternData([{ slug: 'number' }], { row: 2, cells: [{ text: ' 12 ', value: '12' }] }, { ...someContext, template: 'T' }).number,
  ).toBe('12');
});

describe('output', () => {
  test('data cannot open folders or climb out of the archive', () => {
    const { path } = outputPattern('2027/{{ site }}', '{{ name }}', ['site', 'name']);
    expect(path({ site: '../../etc', name: 'a/b' })).toEqual({ folders: ['2027', '-..-etc'], file: 'a-b.pdf' });
  });
  test.each([
    ['../x', 'n', 'pattern-climbs'],
    ['/x', 'n', 'pattern-climbs'],
    ['C:\\x', 'n', 'pattern-climbs'],
    ['', ' ', 'pattern-empty'],
    ['', 'a/b', 'pattern-broken'],
  ])('folders %p and name %p are refused as %s', (folder, file, expected) => {
    expect(code(() => outputPattern(folder, file, []))).toBe(expected);
  });
});

describe('messages', () => {
  test('the subject stays one line whatever the data holds, so that no header can be slipped in (RFC 5322, 2.2)', () => {
    const { subject } = messagePattern({ subject: 'Plot {{ plot }}', text: '', html: null }, ['plot'])({
      plot: 'A\r\nBcc: all@example.org',
    });
    expect(subject).toBe('Plot A Bcc: all@example.org');
  });
  test('HTML in data stays text', () => {
    expect(textToHtml('Dear <b>you</b> & "all"\n\nbye')).toBe('<p>Dear &#60;b&#62;you&#60;/b&#62; &#38; &#34;all&#34;</p>\n<p>bye</p>');
  });
  test('a rich body escapes what data holds, and reads what stands between braces as it was typed', () => {
    const { html } = messagePattern({ subject: '', text: '', html: '<p>{{ name }} from {{ start | day: &quot;d.M.&quot; }}</p>' }, [
      'name',
      'start',
    ])({ name: '<script>alert(1)</script>', start: '2027-01-02' });
    expect(html).toBe('<p>&lt;script&gt;alert(1)&lt;/script&gt; from 2.1.</p>');
  });
  test('data cannot switch its escaping off', () => {
    expect(code(() => messagePattern({ subject: '', text: '', html: '{{ name | raw }}' }, ['name'])({ name: '<b>' }))).toBe(
      'pattern-broken',
    );
  });
});
