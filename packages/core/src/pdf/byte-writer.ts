const encoder = new TextEncoder();

/** The parts one after the other. */
export function joined(...parts: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

/** Collects bytes in one growing buffer. */
export class ByteWriter {
  private buffer: Uint8Array;
  length = 0;

  constructor(room = 64 * 1024) {
    this.buffer = new Uint8Array(room);
  }
  private room(more: number): void {
    if (this.length + more <= this.buffer.length) return;
    const larger = new Uint8Array(Math.max(this.buffer.length * 2, this.length + more));
    larger.set(this.buffer.subarray(0, this.length));
    this.buffer = larger;
  }
  /** The buffer with room for some bytes more; whoever writes them moves `length` on. */
  open(more: number): Uint8Array {
    this.room(more);
    return this.buffer;
  }
  bytes(bytes: Uint8Array): this {
    this.room(bytes.length);
    this.buffer.set(bytes, this.length);
    this.length += bytes.length;
    return this;
  }
  /** Text of ASCII characters only: everything that Mailbag writes outside of streams is. */
  text(text: string): this {
    this.room(text.length);
    this.length += encoder.encodeInto(text, this.buffer.subarray(this.length)).written;
    return this;
  }
  /** The same for short text, without a detour. */
  ascii(text: string): this {
    const count = text.length;
    this.room(count);
    const { buffer } = this;
    let at = this.length;
    for (let index = 0; index < count; index++) buffer[at++] = text.charCodeAt(index);
    this.length = at;
    return this;
  }
  byte(byte: number): this {
    this.room(1);
    this.buffer[this.length++] = byte;
    return this;
  }
  stretch(bytes: Uint8Array, from: number, to: number): this {
    this.room(to - from);
    const { buffer } = this;
    let at = this.length;
    for (let index = from; index < to; index++) buffer[at++] = bytes[index]!;
    this.length = at;
    return this;
  }
  /** A text as a literal string (ISO 32000-2, 7.3.4.2) in the codes of a table by UTF-16 unit. */
  literal(text: string, codes: Uint8Array): this {
    const { length } = text;
    this.room(length * 2 + 2);
    const { buffer } = this;
    let at = this.length;
    buffer[at++] = 0x28;
    for (let index = 0; index < length; index++) {
      const code = codes[text.charCodeAt(index)]!;
      if (code === 0x28 || code === 0x29 || code === 0x5c) buffer[at++] = 0x5c;
      buffer[at++] = code;
    }
    buffer[at++] = 0x29;
    this.length = at;
    return this;
  }
  /** A number as PDF writes it: at most three decimals, no exponent, no trailing zeros. */
  number(value: number): this {
    const rounded = Math.round(value * 1000);
    if (!(Math.abs(rounded) < 2e9)) return this.ascii(Number.isFinite(value) ? value.toFixed(0) : '0');
    let left = rounded | 0;
    this.room(16);
    const { buffer } = this;
    let at = this.length;
    if (left < 0) {
      buffer[at++] = 0x2d;
      left = -left;
    }
    let whole = (left / 1000) | 0;
    const fraction = left - whole * 1000;
    const from = at;
    do {
      const tenth = (whole / 10) | 0;
      buffer[at++] = 0x30 + whole - tenth * 10;
      whole = tenth;
    } while (whole > 0);
    // The digits came last first.
    for (let low = from, high = at - 1; low < high; low++, high--) {
      const digit = buffer[low]!;
      buffer[low] = buffer[high]!;
      buffer[high] = digit;
    }
    if (fraction > 0) {
      const a = (fraction / 100) | 0;
      const b = ((fraction / 10) | 0) - a * 10;
      const c = fraction - a * 100 - b * 10;
      buffer[at++] = 0x2e;
      buffer[at++] = 0x30 + a;
      if (b > 0 || c > 0) buffer[at++] = 0x30 + b;
      if (c > 0) buffer[at++] = 0x30 + c;
    }
    this.length = at;
    return this;
  }
  /** An entry of a cross-reference section for an object that is in use (ISO 32000-2, 7.5.4). */
  xref(offset: number): this {
    this.room(20);
    const { buffer } = this;
    let left = offset;
    for (let at = this.length + 9; at >= this.length; at--) {
      const tenth = Math.floor(left / 10);
      buffer[at] = 0x30 + left - tenth * 10;
      left = tenth;
    }
    this.length += 10;
    return this.ascii(' 00000 n\r\n');
  }
  /** Leaves room for `size` bytes, which `write` fills at the offset it is given. */
  reserve(size: number, write: (buffer: Uint8Array, offset: number) => void): this {
    this.room(size);
    write(this.buffer, this.length);
    this.length += size;
    return this;
  }
  /** Begins anew in the same buffer; what `view` gave is no longer valid. */
  clear(): this {
    this.length = 0;
    return this;
  }
  view(): Uint8Array {
    return this.buffer.subarray(0, this.length);
  }
  /** What was written between two places; not valid any more once something is written. */
  slice(from: number, to: number): Uint8Array {
    return this.buffer.subarray(from, to);
  }
  done(): Uint8Array {
    return this.buffer.slice(0, this.length);
  }
}
