/** Texts that character codes of one length stand for. */
export interface CodeTexts {
  /** Bytes of a code. */
  length: number;
  texts: Map<number, string>;
}

const latin1 = (bytes: Uint8Array): string => {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return text;
};
const utf16 = (hex: string): string => {
  let text = '';
  for (let index = 0; index + 4 <= hex.length; index += 4) text += String.fromCharCode(Number.parseInt(hex.slice(index, index + 4), 16));
  return text;
};
/** Codes of one range; larger ones are damage. */
const MOST = 0x10000;

/** Reads a ToUnicode CMap (ISO 32000-2, 9.10.3). What it says wrongly is left out. */
export function readToUnicode(bytes: Uint8Array): CodeTexts {
  const cmap = latin1(bytes.subarray(0, 4_000_000));
  const texts = new Map<number, string>();
  const space = /begincodespacerange\s*<([0-9a-fA-F]+)>/.exec(cmap);
  const length = space ? Math.max(1, Math.ceil(space[1]!.length / 2)) : 2;
  for (const [, body] of cmap.matchAll(/beginbfchar([\s\S]*?)endbfchar/g)) {
    for (const [, code, text] of body!.matchAll(/<([0-9a-fA-F\s]+)>\s*<([0-9a-fA-F\s]*)>/g)) {
      texts.set(Number.parseInt(code!.replace(/\s/g, ''), 16), utf16(text!.replace(/\s/g, '')));
    }
  }
  for (const [, body] of cmap.matchAll(/beginbfrange([\s\S]*?)endbfrange/g)) {
    for (const [, from, to, text, list] of body!.matchAll(/<([0-9a-fA-F]+)>\s*<([0-9a-fA-F]+)>\s*(?:<([0-9a-fA-F]+)>|\[([^\]]*)\])/g)) {
      const [first, last] = [Number.parseInt(from!, 16), Number.parseInt(to!, 16)];
      if (last < first || last - first > MOST) continue;
      if (list !== undefined) {
        [...list.matchAll(/<([0-9a-fA-F]*)>/g)].forEach(([, one], index) => first + index <= last && texts.set(first + index, utf16(one!)));
      } else {
        const start = utf16(text!);
        const unit = start.charCodeAt(start.length - 1);
        for (let code = first; code <= last; code++) texts.set(code, start.slice(0, -1) + String.fromCharCode(unit + code - first));
      }
    }
  }
  return { length, texts };
}
