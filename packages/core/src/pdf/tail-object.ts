import type { ByteWriter } from './byte-writer.js';

/** An object that varies from copy to copy. Text is ASCII; `dict` of a stream is open: its length and closing `>>` follow. */
export interface TailObject {
  number: number;
  dict: string;
  stream: string | Uint8Array | null;
}

/** Writes one object; streams get their length. */
export function writeObject(writer: ByteWriter, { number, dict, stream }: TailObject): void {
  writer.number(number).ascii(' 0 obj\n').text(dict);
  if (stream !== null) {
    writer.ascii('/Length ').number(stream.length).ascii('>>\nstream\n');
    if (typeof stream === 'string') writer.text(stream);
    else writer.bytes(stream);
    writer.ascii('\nendstream');
  }
  writer.ascii('\nendobj\n');
}
