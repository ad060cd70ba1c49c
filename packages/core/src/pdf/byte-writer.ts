/** Collects bytes in one growing buffer. */
export class ByteWriter {
  private buffer = new Uint8Array(64 * 1024);
  length = 0;

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
  /** One byte a character; characters above U+00FF are not allowed. */
  text(text: string): this {
    this.room(text.length);
    for (let index = 0; index < text.length; index++) this.buffer[this.length++] = text.charCodeAt(index);
    return this;
  }
  /** Leaves room for `size` bytes, which `write` fills at the offset it is given. */
  reserve(size: number, write: (buffer: Uint8Array, offset: number) => void): this {
    this.room(size);
    write(this.buffer, this.length);
    this.length += size;
    return this;
  }
  done(): Uint8Array {
    return this.buffer.slice(0, this.length);
  }
}
