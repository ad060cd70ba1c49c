import { ByteWriter, joined } from '../byte-writer.js';
import type { TailObject } from '../tail-object.js';
import { writeObject } from '../tail-object.js';
import type { CompiledTemplate } from '../plan/compile.js';
import type { FillNote } from '../value.js';
import { fingerprint } from '../fingerprint.js';

const scratch = new ByteWriter();

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
