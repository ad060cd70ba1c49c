import { ByteWriter } from '../../byte-writer.js';
import type { CompiledTemplate } from '../../plan/compile.js';
import type { TailObject } from '../../tail-object.js';
import { writeObject } from '../../tail-object.js';
import { fingerprint } from '../../fingerprint.js';
import { hexOf } from '../../hex.js';
import { XREF_HEAD } from '../../plan/serialise.js';
import type { Protection } from './protection.js';

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

/** Encrypts strings and streams one after the other (ISO 32000-2, 7.6.5, AESV3), each under a vector of its own. */
class Encryption {
  private count = 0;
  private block = new Uint8Array();
  private readonly nonce: Uint8Array;

  /** @param label tells what is encrypted from everything else under the same key */
  constructor(
    private readonly protection: Protection,
    label: string,
  ) {
    this.nonce = protection.nonce(label);
  }
  /** A vector that cannot be foretold: a nonce and a counter encrypted (NIST SP 800-38A, appendix C). */
  private vector(): Uint8Array {
    const { ciphers, key } = this.protection;
    if (this.count % VECTORS === 0) {
      const blocks = new Uint8Array(VECTORS * 16);
      const view = new DataView(blocks.buffer);
      for (let index = 0; index < VECTORS; index++) {
        blocks.set(this.nonce, index * 16);
        view.setUint32(index * 16 + 12, this.count + index);
      }
      this.block = new Uint8Array(ciphers.encryptBlock(key, blocks));
    }
    const at = (this.count++ % VECTORS) * 16;
    return this.block.subarray(at, at + 16);
  }
  /** @returns what stands one after the other */
  private encrypted(data: Uint8Array): Uint8Array[] {
    const vector = this.vector();
    return [vector, ...this.protection.ciphers.encryptPadded(this.protection.key, vector, data)];
  }
  private strings(text: string): string {
    return text.replace(STRING, (_, hex: string) => `<${this.encrypted(bytesOf(hex)).map(hexOf).join('')}>`);
  }
  write(into: ByteWriter, { number, dict, stream }: TailObject): void {
    if (stream === null) return writeObject(into, { number, dict: this.strings(dict), stream });
    const open = this.strings(dict);
    const pieces = this.encrypted(typeof stream === 'string' ? ascii.encode(stream) : stream);
    into.text(`${number} 0 obj\n${open}/Length ${pieces.reduce((sum, one) => sum + one.length, 0)}>>\nstream\n`);
    for (const piece of pieces) into.bytes(piece);
    into.text('\nendstream\nendobj\n');
  }
}

const ascii = new TextEncoder();
const writer = new ByteWriter();

/** What all copies with the same passwords have in common, encrypted, and its cross-reference. */
interface ProtectedBase {
  bytes: Uint8Array;
  xref: Uint8Array;
}
const bases = new WeakMap<Protection, WeakMap<CompiledTemplate, ProtectedBase>>();

function baseOf(compiled: CompiledTemplate, protection: Protection): ProtectedBase {
  let mine = bases.get(protection);
  if (!mine) bases.set(protection, (mine = new WeakMap()));
  let known = mine.get(compiled);
  if (!known) {
    const encryption = new Encryption(protection, `base ${compiled.baseId}`);
    // Revision 6 belongs to PDF 2.0; the header has the same length.
    writer
      .clear()
      .text('%PDF-2.0\n')
      .bytes(compiled.base.subarray(9, compiled.objects[0]?.from ?? compiled.base.length));
    const xref = new ByteWriter(1024).text(XREF_HEAD);
    for (const object of objectsOf(compiled)) {
      xref.xref(writer.length);
      if ('plain' in object) writer.bytes(object.plain);
      else encryption.write(writer, object);
    }
    mine.set(compiled, (known = { bytes: writer.done(), xref: xref.done() }));
  }
  return known;
}

/**
 * Writes a copy with AES-256 (ISO 32000-2, 7.6.5, AESV3). What copies with the same passwords share is encrypted once.
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
  const base = baseOf(compiled, protection);
  const encryption = new Encryption(protection, `copy ${copy} ${compiled.baseId}`);
  writer.clear();
  const offsets: number[] = [];
  for (const object of tail) {
    offsets.push(base.bytes.length + writer.length);
    encryption.write(writer, object);
  }
  offsets.push(base.bytes.length + writer.length);
  writeObject(writer, { number: next, dict: protection.dict, stream: null });
  const at = base.bytes.length + writer.length;
  writer.text(`xref\n0 ${next + 1}\n`).bytes(base.xref);
  for (const offset of offsets) writer.xref(offset);
  const id = fingerprint(copy + compiled.baseId);
  writer.text(`trailer\n<</Size ${next + 1}${compiled.trailer}${id}>]/Encrypt ${next} 0 R>>\nstartxref\n${at}\n%%EOF\n`);
  return [base.bytes, writer.done()];
}
