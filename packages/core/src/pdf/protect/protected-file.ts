import { ByteWriter } from '../byte-writer.js';
import type { CompiledTemplate } from '../compile.js';
import type { TailObject } from '../copy-file.js';
import { writeObject } from '../copy-file.js';
import { fingerprint } from '../fingerprint.js';
import { hexOf } from '../hex.js';
import { XREF_HEAD } from '../serialise.js';
import type { Protection } from './protection.js';
import { copyKey } from './protection.js';

/** Strings stand in hexadecimal wherever Mailbag writes; `<<` begins a dictionary and is none. */
const STRING = /(?<!<)<([0-9a-f]*)>/g;
const LENGTH = /\/Length \d+>>\s*$/;

const bytesOf = (hex: string): Uint8Array => {
  const bytes = new Uint8Array(hex.length >> 1);
  for (let index = 0; index < bytes.length; index++) bytes[index] = Number.parseInt(hex.slice(index * 2, index * 2 + 2), 16);
  return bytes;
};

const baseObjects = new WeakMap<CompiledTemplate, (TailObject | { number: number; plain: Uint8Array })[]>();

/** The objects of the base: those with nothing to encrypt as bytes, the others taken apart. Worked out once a template. */
function objectsOf(compiled: CompiledTemplate): (TailObject | { number: number; plain: Uint8Array })[] {
  let known = baseObjects.get(compiled);
  if (!known) {
    known = compiled.objects.map(({ number, from, to, stream }) => {
      const end = stream ? stream[0] : to;
      let text = '';
      for (let at = from; at < end; at++) text += String.fromCharCode(compiled.base[at]!);
      STRING.lastIndex = 0;
      if (!stream && !STRING.test(text)) return { number, plain: compiled.base.subarray(from, to) };
      const dict = text.slice(text.indexOf(' obj\n') + 5);
      return stream
        ? { number, dict: dict.slice(0, dict.lastIndexOf('stream\n')).replace(LENGTH, ''), stream: compiled.base.subarray(...stream) }
        : { number, dict: dict.slice(0, dict.lastIndexOf('\nendobj')), stream: null };
    });
    baseObjects.set(compiled, known);
  }
  return known;
}

/** Vectors made at a time. */
const VECTORS = 64;

/** Initialisation vectors that cannot be foretold: a counter encrypted (NIST SP 800-38A, appendix C). */
function initialisationVectors({ ciphers }: Protection, key: Uint8Array): () => Uint8Array {
  let count = 0;
  let block = new Uint8Array();
  return () => {
    if (count % VECTORS === 0) {
      const counters = new Uint8Array(VECTORS * 16);
      const view = new DataView(counters.buffer);
      for (let index = 0; index < VECTORS; index++) view.setUint32(index * 16, count + index + 1);
      block = new Uint8Array(ciphers.encryptBlock(key, counters));
    }
    const at = (count++ % VECTORS) * 16;
    return block.subarray(at, at + 16);
  };
}

const ascii = new TextEncoder();
/** Encrypted data from this size on is not copied once more, bytes. */
const WORTH_A_PART = 16_384;
const writer = new ByteWriter();

/**
 * Writes a whole copy with AES-256 (ISO 32000-2, 7.6.5, AESV3): every string and stream encrypted under the copy's own key.
 * @param copy tells the copies of one protection apart
 * @returns what stands one after the other in the file
 */
export function protectedFile(
  compiled: CompiledTemplate,
  tail: readonly TailObject[],
  next: number,
  protection: Protection,
  copy: string,
): Uint8Array[] {
  const { ciphers } = protection;
  const { key, dict } = copyKey(protection, copy);
  const vectors = initialisationVectors(protection, key);
  const encrypted = (data: Uint8Array): Uint8Array[] => {
    const iv = vectors();
    return [iv, ...ciphers.encryptPadded(key, iv, data)];
  };
  const strings = (text: string): string => text.replace(STRING, (_, hex: string) => `<${encrypted(bytesOf(hex)).map(hexOf).join('')}>`);
  const parts: Uint8Array[] = [];
  /** Bytes in `parts`; `writer` holds what comes after them. */
  let before = 0;
  const part = (bytes: Uint8Array): void => {
    parts.push(bytes);
    before += bytes.length;
  };
  const flush = (): void => {
    if (writer.length > 0) part(writer.done());
    writer.clear();
  };
  writer.clear();
  // Revision 6 belongs to PDF 2.0; the header has the same length.
  writer.text('%PDF-2.0\n').bytes(compiled.base.subarray(9, compiled.objects[0]?.from ?? compiled.base.length));
  const offsets: number[] = [];
  for (const object of [...objectsOf(compiled), ...tail]) {
    offsets.push(before + writer.length);
    if ('plain' in object) writer.bytes(object.plain);
    else {
      const stream = typeof object.stream === 'string' ? ascii.encode(object.stream) : object.stream;
      if (stream === null) writeObject(writer, { number: object.number, dict: strings(object.dict), stream });
      else {
        const dict = strings(object.dict);
        const pieces = encrypted(stream);
        writer.text(`${object.number} 0 obj\n${dict}/Length ${pieces.reduce((sum, one) => sum + one.length, 0)}>>\nstream\n`);
        for (const piece of pieces) {
          if (piece.length < WORTH_A_PART) writer.bytes(piece);
          else {
            flush();
            part(piece);
          }
        }
        writer.text('\nendstream\nendobj\n');
      }
    }
  }
  offsets.push(before + writer.length);
  writeObject(writer, { number: next, dict, stream: null });
  const at = before + writer.length;
  const info = compiled.info ? `/Info ${compiled.info} 0 R` : '';
  const id = `/ID[<${compiled.baseId}><${fingerprint(copy + compiled.baseId)}>]`;
  writer.text(`xref\n0 ${next + 1}\n${XREF_HEAD}`);
  for (const offset of offsets) writer.xref(offset);
  writer.text(`trailer\n<</Size ${next + 1}/Root ${compiled.root} 0 R${info}${id}/Encrypt ${next} 0 R>>\nstartxref\n${at}\n%%EOF\n`);
  flush();
  return parts;
}
