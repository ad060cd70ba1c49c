const encoder = new TextEncoder();

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
  /** A number as PDF writes it: at most three decimals, no exponent, no trailing zeros. */
  number(value: number): this {
    let left = Math.round(value * 1000);
    if (!(Math.abs(left) < 1e15)) return this.byte(0x30);
    this.room(20);
    const { buffer } = this;
    let at = this.length;
    if (left < 0) {
      buffer[at++] = 0x2d;
      left = -left;
    }
    const whole = Math.floor(left / 1000);
    const fraction = left - whole * 1000;
    let digits = 1;
    for (let bound = 10; whole >= bound; bound *= 10) digits++;
    let rest = whole;
    for (let place = at + digits - 1; place >= at; place--) {
      const tenth = Math.floor(rest / 10);
      buffer[place] = 0x30 + rest - tenth * 10;
      rest = tenth;
    }
    at += digits;
    if (fraction > 0) {
      const [a, b, c] = [Math.floor(fraction / 100), Math.floor(fraction / 10) % 10, fraction % 10];
      buffer[at++] = 0x2e;
      buffer[at++] = 0x30 + a;
      if (b > 0 || c > 0) buffer[at++] = 0x30 + b;
      if (c > 0) buffer[at++] = 0x30 + c;
    }
    this.length = at;
    return this;
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
