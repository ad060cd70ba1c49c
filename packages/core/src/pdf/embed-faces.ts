import type { PDFDocument } from '@cantoo/pdf-lib';
import type { FaceFile, FontEngine, ShapingFace } from '../platform/ports.js';
import { inWinAnsi } from './appearance/coded-face.js';
import { num } from './appearance/number.js';
import type { ExtraFace } from './appearance/text-run.js';
import type { ByteWriter } from './byte-writer.js';
import { fingerprint } from './fingerprint.js';
import type { BaseObject } from './serialise.js';

/** A bundled face embedded in the base block. */
export interface EmbeddedFace extends ExtraFace {
  /** Object number of its descriptor. */
  descriptor: number;
}

/** A bundled face cut down to the characters of a batch. */
export interface NeededFace {
  extra: ExtraFace;
  file: Uint8Array;
  points: number[];
}

/** Objects that an embedded face takes: the font program and its descriptor. */
export const OBJECTS_PER_FACE = 2;

const opened = new WeakMap<FaceFile, ShapingFace>();

function openFace(fonts: FontEngine, file: FaceFile): ShapingFace {
  let face = opened.get(file);
  if (!face) opened.set(file, (face = fonts.openFace(file.bytes)));
  return face;
}

/** The faces needed for the characters, each cut down to them. */
export function neededFaces(fonts: FontEngine, faces: readonly FaceFile[], characters: Iterable<string>): NeededFace[] {
  const wanted = new Set<number>();
  for (const text of characters) for (const char of text.normalize('NFC')) wanted.add(char.codePointAt(0)!);
  const points = [...wanted].sort((a, b) => a - b);
  const foreign = points.filter((point) => point >= 0x20 && !inWinAnsi(point));
  if (foreign.length === 0) return [];
  return faces.flatMap((file, index) => {
    const face = openFace(fonts, file);
    if (!foreign.some((point) => face.covers(point))) return [];
    const covered = new Set([0x20, ...points].filter((point) => face.covers(point)));
    const limited: ShapingFace = {
      unitsPerEm: face.unitsPerEm,
      ascender: face.ascender,
      descender: face.descender,
      covers: (point) => covered.has(point),
      shape: (text, direction) => face.shape(text, direction),
    };
    return [{ extra: { index, name: file.name, face: limited }, file: fonts.subset(file.bytes, covered), points: [...covered] }];
  });
}

/** Six letters that mark a subset (ISO 32000-2, 9.9.2), from the characters in it. */
function subsetTag(points: readonly number[]): string {
  const digest = fingerprint(points.join(','));
  return Array.from({ length: 6 }, (_, index) =>
    String.fromCharCode(65 + (Number.parseInt(digest.slice(index * 4, index * 4 + 4), 16) % 26)),
  ).join('');
}

/** Writes the faces after the base's own objects. */
export function embedFaces(doc: PDFDocument, needed: readonly NeededFace[], writer: ByteWriter, objects: BaseObject[]): EmbeddedFace[] {
  return needed.map(({ extra, file, points }) => {
    const packed = doc.context.flateStream(file).getContents();
    const name = `${subsetTag(points)}+${extra.name}`;
    const up = (value: number): string => num((value * 1000) / extra.face.unitsPerEm);
    const [program, descriptor] = [objects.length + 1, objects.length + 2];
    let from = writer.length;
    writer.text(`${program} 0 obj\n<</Filter/FlateDecode/Length1 ${file.length}/Length ${packed.length}>>\nstream\n`);
    const start = writer.length;
    writer.bytes(packed).text('\nendstream\nendobj\n');
    objects.push({ number: program, from, to: writer.length, stream: [start, start + packed.length] });
    from = writer.length;
    writer.text(
      `${descriptor} 0 obj\n<</Type/FontDescriptor/FontName/${name}/Flags 4/FontBBox[-1000 ${up(extra.face.descender)} 2000 ${up(extra.face.ascender)}]` +
        `/ItalicAngle 0/Ascent ${up(extra.face.ascender)}/Descent ${up(extra.face.descender)}/CapHeight 714/StemV 80/FontFile2 ${program} 0 R>>\nendobj\n`,
    );
    objects.push({ number: descriptor, from, to: writer.length, stream: null });
    return { ...extra, name, descriptor };
  });
}
