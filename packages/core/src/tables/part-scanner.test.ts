import { SaxesParser } from 'saxes';
import { PartScanner } from './part-scanner.js';

type Told = [what: 'open' | 'close' | 'text', value: string, attributes?: Record<string, string>];

/** Joins what was told of one run of text: where it is cut is the reader's own affair. */
function joined(events: Told[]): Told[] {
  const out: Told[] = [];
  for (const event of events) {
    const last = out.at(-1);
    if (event[0] === 'text' && last?.[0] === 'text') last[1] += event[1];
    else if (event[0] !== 'text' || event[1] !== '') out.push([...event]);
  }
  return out;
}
function scanned(chunks: readonly string[], deepest = 200): Told[] {
  const events: Told[] = [];
  const scanner = new PartScanner(
    {
      open: (name, attributes) => events.push(['open', name, { ...attributes }]),
      text: (text) => events.push(['text', text]),
      close: (name) => events.push(['close', name]),
    },
    deepest,
  );
  for (const chunk of chunks) scanner.write(chunk);
  scanner.end();
  return joined(events);
}
/** What the reference library tells of the same text; what stands outside the root is nobody's. */
function reference(text: string): Told[] {
  const events: Told[] = [];
  const parser = new SaxesParser({ position: false });
  const local = (name: string): string => name.slice(name.indexOf(':') + 1);
  let depth = 0;
  const told = (words: string): void => void (depth > 0 && events.push(['text', words]));
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ name, attributes }) => {
    depth++;
    events.push(['open', local(name), { ...(attributes as Record<string, string>) }]);
  });
  parser.on('text', told);
  parser.on('cdata', told);
  parser.on('closetag', ({ name }) => {
    depth--;
    events.push(['close', local(name)]);
  });
  parser.write(text).close();
  return joined(events);
}

const documents: [name: string, text: string][] = [
  ['a declaration, comments and instructions', '<?xml version="1.0" encoding="UTF-8"?>\n<!-- a > b -- c -->\n<a><?do it?>x<!--<b>-->y</a>\n<!-- end -->'.replace(' -- ', ' - ')],
  ['prefixes', '<x:a xmlns:x="urn:x"><x:b x:c="1"/><y:d xmlns:y="urn:y">2</y:d></x:a>'],
  ['entities and references', '<a t="&lt;&quot;&apos;&#65;&#x1F332;">&amp;&gt;&#228;&#x20AC; &lt;b/&gt;</a>'],
  ['CDATA', '<a><![CDATA[<b> & ]] ]>]]>c<![CDATA[]]></a>'],
  ['brackets and quotes in attributes', `<a b='x > "y"' c="it's >= 1"   d = "e"\n f='g'><h/></a>`],
  ['ends of lines (XML 1.0, 2.11)', '<a>one\r\ntwo\rthree\nfour</a>'],
  ['white space in attributes (XML 1.0, 3.3.3)', '<a b="one\ntwo\tthree"/>'],
  ['references to white space in attributes (XML 1.0, 3.3.3)', '<a b="one&#10;two&#9;three"/>'],
  ['letters of every plane', '<a ö="Łódź">東京 🌲 עברית</a>'],
  ['many of the same, nested', `<r>${'<c r="A1" t="s"><v>12</v></c>'.repeat(40)}</r>`],
  ['more names than are kept', `<r>${Array.from({ length: 60 }, (_, at) => `<n${at}>${at}</n${at}>`).join('')}</r>`],
  ['names that begin alike', '<r><row/><ro>1</ro><rows>2</rows><row>3</row></r>'],
]; // prettier-ignore

describe.each(documents)('%s', (_, text) => {
  test('reads as the reference library reads it, in one piece and cut anywhere', () => {
    const right = reference(text);
    expect(scanned([text])).toEqual(right);
    for (let at = 1; at < text.length; at++) expect([at, scanned([text.slice(0, at), text.slice(at)])]).toEqual([at, right]);
    expect(scanned([...text].map((char) => char))).toEqual(right);
  });
});

// XML 1.0 (fifth edition): what is not well formed is refused, by both.
test.each([
  ['an end without its start (3, element type match)', '<a></b>'],
  ['crossed elements', '<a><b></a></b>'],
  ['an element that is not ended (2.1)', '<a><b></b>'],
  ['two roots (2.1)', '<a/><b/>'],
  ['text outside the root', '<a/>text'],
  ['nothing', ''],
  ['a bare ampersand (2.4)', '<a>x & y</a>'],
  ['an entity that nobody declared (4.1)', '<a>&nbsp;</a>'],
  ['a reference to no character (2.2)', '<a>&#x110000;</a>'],
  ['a reference to nought (2.2)', '<a>&#0;</a>'],
  ['a reference to half a character (2.2)', '<a>&#xD800;</a>'],
  ['a reference with letters in its number (4.1)', '<a>&#12ab;</a>'],
  ['an attribute without quotes (3.1)', '<a b=c/>'],
  ['an attribute without a value (3.1)', '<a b/>'],
  ['an attribute without its end', '<a b="c/>'],
  ['a comment that is not ended', '<a><!-- x</a>'],
  ['a CDATA section that is not ended', '<a><![CDATA[x</a>'],
  ['a tag without a name', '<a>< b/></a>'],
])('%s is refused', (_, text) => {
  expect(() => reference(text)).toThrow();
  expect(() => scanned([text])).toThrow();
});

test('a doctype is refused, so that entities cannot grow', () => {
  expect(() => scanned(['<!DOCTYPE a [<!ENTITY b "c">]><a>&b;</a>'])).toThrow('doctype');
});

test('elements are read as deep as was asked for and no deeper', () => {
  const deep = (levels: number): string => '<a>'.repeat(levels) + '</a>'.repeat(levels);
  expect(scanned([deep(5)], 5)).toHaveLength(10);
  expect(() => scanned([deep(6)], 5)).toThrow('too deep');
});

test('a token without an end is not kept for ever', () => {
  expect(() => scanned(['<a b="', ...Array.from({ length: 10 }, () => 'x'.repeat(1024 * 1024))])).toThrow('token too long');
});
