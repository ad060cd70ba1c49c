/** One piece of a content stream (ISO 32000-2, 7.8.2). Strings as bytes, one character each; `inline` is an inline image, skipped. */
export type Token =
  | { kind: 'number'; value: number }
  | { kind: 'name' | 'string' | 'operator'; text: string }
  | { kind: 'open' | 'close' }
  | { kind: 'inline' };

const isSpace = (byte: number): boolean => byte === 32 || byte === 10 || byte === 13 || byte === 9 || byte === 12 || byte === 0;
const isDelimiter = (byte: number): boolean =>
  byte === 0x28 ||
  byte === 0x29 ||
  byte === 0x3c ||
  byte === 0x3e ||
  byte === 0x5b ||
  byte === 0x5d ||
  byte === 0x7b ||
  byte === 0x7d ||
  byte === 0x2f ||
  byte === 0x25;

/** Cuts a content stream into tokens; damage is passed over, never thrown. */
export function* contentTokens(bytes: Uint8Array): Generator<Token> {
  let at = 0;
  const end = bytes.length;
  while (at < end) {
    const byte = bytes[at]!;
    if (isSpace(byte)) {
      at++;
    } else if (byte === 0x25) {
      while (at < end && bytes[at] !== 10 && bytes[at] !== 13) at++;
    } else if (byte === 0x28) {
      let text = '';
      let depth = 1;
      at++;
      while (at < end && depth > 0) {
        let char = bytes[at++]!;
        if (char === 0x5c) {
          char = bytes[at++] ?? 0;
          if (char >= 0x30 && char <= 0x37) {
            let code = char - 0x30;
            for (let digit = 0; digit < 2 && bytes[at]! >= 0x30 && bytes[at]! <= 0x37; digit++) code = code * 8 + bytes[at++]! - 0x30;
            text += String.fromCharCode(code & 255);
          } else if (char === 13 || char === 10) {
            if (char === 13 && bytes[at] === 10) at++;
          } else text += { n: '\n', r: '\r', t: '\t', b: '\b', f: '\f' }[String.fromCharCode(char)] ?? String.fromCharCode(char);
          continue;
        }
        if (char === 0x28) depth++;
        if (char === 0x29) depth--;
        if (depth > 0) text += String.fromCharCode(char);
      }
      yield { kind: 'string', text };
    } else if (byte === 0x3c && bytes[at + 1] !== 0x3c) {
      let hex = '';
      at++;
      while (at < end && bytes[at] !== 0x3e) {
        const char = String.fromCharCode(bytes[at++]!);
        if (/[0-9a-f]/i.test(char)) hex += char;
      }
      at++;
      let text = '';
      for (let index = 0; index < hex.length; index += 2)
        text += String.fromCharCode(Number.parseInt(hex.slice(index, index + 2).padEnd(2, '0'), 16));
      yield { kind: 'string', text };
    } else if (byte === 0x3c || byte === 0x3e) {
      yield { kind: byte === 0x3c ? 'open' : 'close' };
      at += bytes[at + 1] === byte ? 2 : 1;
    } else if (byte === 0x5b || byte === 0x5d) {
      yield { kind: byte === 0x5b ? 'open' : 'close' };
      at++;
    } else if (isDelimiter(byte) && byte !== 0x2f) {
      at++;
    } else {
      const from = at++;
      while (at < end && !isSpace(bytes[at]!) && !isDelimiter(bytes[at]!)) at++;
      let word = '';
      for (let index = from; index < at; index++) word += String.fromCharCode(bytes[index]!);
      if (byte === 0x2f)
        yield {
          kind: 'name',
          text: word.slice(1).replace(/#([0-9a-f]{2})/gi, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16))),
        };
      else if (/^[+-]?(\d+\.?\d*|\.\d+)/.test(word)) yield { kind: 'number', value: Number.parseFloat(word) };
      else if (word === 'ID') {
        // Inline image data ends at EI that stands by itself (ISO 32000-2, 8.9.7).
        while (
          at < end &&
          !(bytes[at] === 0x45 && bytes[at + 1] === 0x49 && isSpace(bytes[at - 1]!) && (at + 2 >= end || isSpace(bytes[at + 2]!)))
        )
          at++;
        at += 2;
        yield { kind: 'inline' };
      } else yield { kind: 'operator', text: word };
    }
  }
}
