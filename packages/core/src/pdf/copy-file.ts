import { ByteWriter, joined } from './byte-writer.js';
import type { CompiledTemplate } from './compile.js';
import type { FillNote } from './fill-options.js';
import { fingerprint } from './fingerprint.js';

/** An object that varies from copy to copy. Text is ASCII; `dict` of a stream is open: its length and closing `>>` follow. */
export interface TailObject {
  number: number;
  dict: string;
  stream: string | Uint8Array | null;
}

const scratch = new ByteWriter();

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

/** Tails are cut from blocks of this size: one allocation for some dozen copies instead of one for each. */
const SLAB = 1 << 20;
let slab = new Uint8Array(0);
let used = 0;

/** A copy of bytes that stays as it is. */
function kept(bytes: Uint8Array): Uint8Array {
  if (bytes.length > SLAB / 8) return bytes.slice();
  if (used + bytes.length > slab.length) {
    slab = new Uint8Array(SLAB);
    used = 0;
  }
  const part = slab.subarray(used, (used += bytes.length));
  part.set(bytes);
  return part;
}

/** A filled copy: the part that all copies of its template share, and its own part after it. */
export class FilledCopy {
  private constructor(
    /** To be written one after the other. */
    readonly parts: readonly Uint8Array[],
    readonly notes: FillNote[],
  ) {}

  static of(compiled: CompiledTemplate, objects: readonly TailObject[], next: number, notes: FillNote[]): FilledCopy {
    const writer = scratch.clear();
    const start = compiled.base.length;
    const offsets = objects.map((object) => {
      const offset = start + writer.length;
      writeObject(writer, object);
      return offset;
    });
    const id = fingerprint(writer.view());
    const at = start + writer.length;
    writer.ascii('xref\n0 ').number(next).byte(0x0a).bytes(compiled.xref);
    for (const offset of offsets) writer.xref(offset);
    writer
      .ascii('trailer\n<</Size ')
      .number(next)
      .ascii(compiled.trailer)
      .ascii(id)
      .ascii('>]>>\nstartxref\n')
      .ascii(String(at))
      .ascii('\n%%EOF\n');
    return new FilledCopy([compiled.base, kept(writer.view())], notes);
  }

  /** A copy that shares nothing with others. */
  static whole(parts: readonly Uint8Array[], notes: FillNote[]): FilledCopy {
    return new FilledCopy(parts, notes);
  }

  /** The whole file. */
  get bytes(): Uint8Array {
    return joined(...this.parts);
  }
}
