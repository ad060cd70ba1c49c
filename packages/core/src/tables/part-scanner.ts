import type { Attributes, Handlers } from './xml-handlers.js';

/** A token of a part may be this long, UTF-16 units; longer ones are meant to break their reader. */
const LONGEST_TOKEN = 8 * 1024 * 1024;

const MOST_NAMES = 24;

interface ElementName {
  whole: string;
  local: string;
}

const ENTITIES: Record<string, string> = { lt: '<', gt: '>', amp: '&', quot: '"', apos: "'" };

const isSpace = (code: number): boolean => code === 32 || code === 10 || code === 13 || code === 9;

/** A reference to a character, without its ends (XML 1.0, 4.1). */
const REFERENCE = /^#(?:\d+|x[\dA-Fa-f]+)$/;
/** What XML may hold (XML 1.0, 2.2). */
const isCharacter = (point: number): boolean =>
  point >= 0x20 ? point <= 0xd7ff || (point >= 0xe000 && point <= 0xfffd) || (point >= 0x10000 && point <= 0x10ffff) : isSpace(point);

/** @throws Error for an entity that XML does not have by itself */
function decoded(text: string): string {
  if (!text.includes('&')) return text;
  return text.replace(/&([^;&]{0,12});?/g, (whole, name: string) => {
    if (!whole.endsWith(';')) throw new Error('bare ampersand');
    if (REFERENCE.test(name)) {
      const point = name[1] === 'x' ? Number.parseInt(name.slice(2), 16) : Number(name.slice(1));
      if (isCharacter(point)) return String.fromCodePoint(point);
    }
    const char = Object.hasOwn(ENTITIES, name) ? ENTITIES[name] : undefined;
    if (char === undefined) throw new Error(`entity ${name}`);
    return char;
  });
}

const LESS_THAN = 0x3c;
const NONE: Attributes = Object.freeze({});

/** White space of an attribute is spaces, unless it stands as a reference (XML 1.0, 3.3.3). */
const spaced = (value: string): string => (/[\t\n\r]/.test(value) ? value.replace(/\r\n|[\t\n\r]/g, ' ') : value);

/** Attributes of a start tag, after its name. */
function attributesIn(tag: string, from: number, end: number): Attributes {
  if (from >= end) return NONE;
  const attributes: Attributes = {};
  for (let at = from; at < end;) {
    while (at < end && isSpace(tag.charCodeAt(at))) at++;
    if (at >= end) break;
    const equals = tag.indexOf('=', at);
    if (equals < 0 || equals >= end) throw new Error('attribute without a value');
    const name = tag.slice(at, equals).trimEnd();
    let quote = equals + 1;
    while (quote < end && isSpace(tag.charCodeAt(quote))) quote++;
    const mark = tag[quote];
    if (mark !== '"' && mark !== "'") throw new Error('attribute without quotes');
    const close = tag.indexOf(mark, quote + 1);
    if (close < 0 || close >= end) throw new Error('attribute without an end');
    attributes[name] = decoded(spaced(tag.slice(quote + 1, close)));
    at = close + 1;
  }
  return attributes;
}

/**
 * Reads the XML of office parts piece by piece: elements, attributes, text, CDATA; comments and instructions are passed over. A doctype is
 * refused. It checks nesting and entities but not every production of XML 1.0, and is several times quicker than a full parser, which is
 * what most of the time of a large sheet goes into.
 * @throws Error from `write` and `end` for what is not well formed
 */
export class PartScanner {
  private rest = '';
  /** Up to where the end of the text or token that `rest` begins with was looked for, and the quote that was open there; 0: none. */
  private searched = 0;
  private mark = 0;
  private readonly open: ElementName[] = [];
  /** Names that were seen: a sheet has a handful, which come again millions of times. */
  private readonly known: ElementName[] = [];
  private isInside = false;

  constructor(
    private readonly handlers: Handlers,
    private readonly deepest: number,
  ) {}

  write(chunk: string): void {
    const text = this.rest + chunk;
    let at = 0;
    for (;;) {
      if (text.charCodeAt(at) !== LESS_THAN) {
        const start = text.indexOf('<', Math.max(at, this.searched));
        if (start < 0) {
          this.searched = text.length;
          break;
        }
        this.text(text.slice(at, start), false);
        this.searched = at = start;
      }
      const end = this.endOf(text, at);
      if (end < 0) break;
      this.token(text, at, end);
      this.searched = at = end;
      this.mark = 0;
    }
    this.rest = at === 0 ? text : text.slice(at);
    this.searched -= at;
    if (this.rest.length > LONGEST_TOKEN) throw new Error('token too long');
  }

  end(): void {
    if (this.rest.trim() !== '' || this.open.length > 0 || !this.isInside) throw new Error('cut off');
  }

  private nameAt(text: string, from: number, to: number): ElementName {
    const length = to - from;
    for (const one of this.known) if (one.whole.length === length && text.startsWith(one.whole, from)) return one;
    const whole = text.slice(from, to);
    const name = { whole, local: whole.slice(whole.indexOf(':') + 1) };
    if (this.known.length < MOST_NAMES) this.known.push(name);
    return name;
  }

  private text(text: string, isVerbatim: boolean): void {
    if (this.open.length === 0) {
      if (text.replace(/^\ufeff/, '').trim() !== '') throw new Error('text outside');
      return;
    }
    const plain = isVerbatim ? text : decoded(text.includes('\r') ? text.replace(/\r\n?/g, '\n') : text);
    this.handlers.text?.(plain);
  }

  /** One past the token that begins at `start`; -1: its end has not come yet. No part of it is gone through twice, however it is cut into chunks. */
  private endOf(text: string, start: number): number {
    const second = text.charCodeAt(start + 1);
    if (Number.isNaN(second)) return -1;
    if (second === 0x21) {
      const until = text.startsWith('<!--', start) ? '-->' : text.startsWith('<![CDATA[', start) ? ']]>' : '>';
      if (until === '>' && text.length - start < 9) return -1;
      return this.endAfter(text, until, start + (until === '>' ? 2 : 4));
    }
    if (second === 0x3f) return this.endAfter(text, '?>', start);
    let at = Math.max(start + 1, this.searched);
    for (;;) {
      const close = text.indexOf('>', at);
      const through = close < 0 ? text.length : close;
      // A bracket may stand in the quotes of an attribute.
      for (; at < through; at++) {
        const code = text.charCodeAt(at);
        if (this.mark === 0) {
          if (code === 34 || code === 39) this.mark = code;
        } else if (code === this.mark) this.mark = 0;
      }
      this.searched = at;
      if (close < 0) return -1;
      if (this.mark === 0) return close + 1;
      at = close + 1;
    }
  }

  private endAfter(text: string, until: string, from: number): number {
    const found = text.indexOf(until, Math.max(from, this.searched - until.length));
    if (found < 0) this.searched = text.length;
    return found < 0 ? -1 : found + until.length;
  }

  private token(text: string, start: number, end: number): void {
    const second = text.charCodeAt(start + 1);
    if (second === 0x3f) return;
    if (second === 0x21) {
      if (text.startsWith('<![CDATA[', start)) this.text(text.slice(start + 9, end - 3), true);
      else if (!text.startsWith('<!--', start)) throw new Error('doctype');
      return;
    }
    if (second === 0x2f) {
      const last = this.open.pop();
      const isRight =
        last !== undefined && text.startsWith(last.whole, start + 2) && text.slice(start + 2 + last.whole.length, end - 1).trim() === '';
      if (!isRight) throw new Error('an end without its start');
      this.handlers.close?.(last.local);
      return;
    }
    const isEmpty = text.charCodeAt(end - 2) === 0x2f;
    const last = isEmpty ? end - 2 : end - 1;
    let at = start + 1;
    while (at < last && !isSpace(text.charCodeAt(at))) at++;
    if (at === start + 1) throw new Error('tag without a name');
    const name = this.nameAt(text, start + 1, at);
    if (this.open.length === 0 && this.isInside) throw new Error('two roots');
    this.isInside = true;
    if (this.open.length >= this.deepest) throw new Error('too deep');
    this.handlers.open?.(name.local, attributesIn(text, at, last));
    if (isEmpty) this.handlers.close?.(name.local);
    else this.open.push(name);
  }
}
