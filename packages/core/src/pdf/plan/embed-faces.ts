import type { PDFDocument } from '@cantoo/pdf-lib';
import type { FaceFile, FontEngine, ShapingFace } from '../../platform/ports.js';
import { inWinAnsi, standardFace } from '../fill/appearance/coded-face.js';
import { LEAD, tellers } from '../fill/appearance/draw-text.js';
import { num } from '../fill/appearance/number.js';
import type { ExtraFace, FaceChoice, TextRun } from '../fill/appearance/text-run.js';
import { drawerOf, isExtra, shapeLine } from '../fill/appearance/text-run.js';
import type { ByteWriter } from '../byte-writer.js';
import { CodeTable, compositeFont, descendantFont, glyphMap, toUnicode } from '../fill/composite-font.js';
import type { TailObject } from '../tail-object.js';
import { writeObject } from '../tail-object.js';
import { fingerprint } from '../fingerprint.js';
import type { BaseObject } from './serialise.js';

/** A bundled face embedded in the base block. */
export interface EmbeddedFace extends ExtraFace {
  /** Object numbers of its descriptor, and of the font with the codes that stand in every copy. */
  descriptor: number;
  font: number;
}

/** A bundled face cut down to the characters of a batch. */
export interface NeededFace {
  extra: ExtraFace;
  file: Uint8Array;
  points: number[];
}

/** Objects that an embedded face takes: program, descriptor, ToUnicode, glyph map, CIDFont and font. */
export const OBJECTS_PER_FACE = 6;
/** Words whose glyphs get codes in every copy; further ones get theirs in the copies that need them. */
const MOST_WORDS = 20_000;

const opened = new WeakMap<FaceFile, ShapingFace>();

function openFace(fonts: FontEngine, file: FaceFile): ShapingFace {
  let face = opened.get(file);
  if (!face) opened.set(file, (face = fonts.openFace(file.bytes)));
  return face;
}

/** Characters and words of a batch, composed (NFC). `isWhole`: every word is among them; a character by itself may be of words that are not. */
interface Wanted {
  points: number[];
  words: Set<string>;
  isWhole: boolean;
}

function wantedOf(characters: Iterable<string>): Wanted {
  const points = new Set<number>();
  const words = new Set<string>();
  let isWhole = true;
  for (const raw of characters) {
    const text = raw.normalize('NFC');
    for (const char of text) points.add(char.codePointAt(0)!);
    if (!/[^\u0000-\u007f]/.test(text)) continue;
    if (pointsOf(text).length === 1) isWhole = false;
    if (words.size < MOST_WORDS) for (const word of text.split(/\s+/)) words.add(word);
    else isWhole = false;
  }
  return { points: [...points].sort((a, b) => a - b), words, isWhole };
}

/** U+200B, whose glyph is silent. */
const NO_SPACE = 0x200b;

/**
 * What each face is to draw: characters of which it is the first face, and all those of the words that keep to it.
 * A face that nothing comes to would only make every copy larger.
 */
function shareOut({ points, words, isWhole }: Wanted, faces: readonly ExtraFace[]): Map<ExtraFace, Set<number>> {
  const shares = new Map<ExtraFace, Set<number>>();
  const give = (face: ExtraFace, text: Iterable<number>): void => {
    const share = shares.get(face) ?? new Set([0x20, NO_SPACE]);
    for (const point of text) share.add(point);
    shares.set(face, share);
  };
  for (const point of beyondStandard(points)) {
    const first = faces.find(({ face }) => face.covers(point));
    if (first) give(first, [point]);
  }
  const choice: FaceChoice = { coded: [standardFace('Helvetica')], extras: faces };
  for (const word of words) {
    const drawer = drawerOf(word, choice);
    if (drawer && isExtra(drawer)) give(drawer, pointsOf(word));
  }
  // Words that nobody has seen may be of any of the characters.
  if (!isWhole) for (const face of shares.keys()) give(face, points);
  return shares;
}

const pointsOf = (text: string): number[] => Array.from(text, (char) => char.codePointAt(0)!);

/** Characters that no standard font has, composed (NFC). */
const beyondStandard = (points: readonly number[]): Set<number> => new Set(points.filter((point) => point >= 0x20 && !inWinAnsi(point)));

/** Takes away the characters that a face covers. */
function coverWith(face: ShapingFace, missing: Set<number>): void {
  for (const point of missing) if (face.covers(point)) missing.delete(point);
}

/**
 * The faces that `neededFaces` looks at for the characters, for hosts that fetch them: none after all the characters are covered.
 * @param faceAt fetches a face by its place in the order of preference; null: there are no more
 */
export async function facesFor(
  fonts: FontEngine,
  characters: Iterable<string>,
  faceAt: (place: number) => Promise<FaceFile | null>,
): Promise<FaceFile[]> {
  const missing = beyondStandard(wantedOf(characters).points);
  const files: FaceFile[] = [];
  while (missing.size > 0) {
    const file = await faceAt(files.length);
    if (!file) break;
    coverWith(openFace(fonts, file), missing);
    files.push(file);
  }
  return files;
}

/** Whether the standard fonts do not do for a text. */
export const isBeyondStandard = (text: string): boolean => beyondStandard(pointsOf(text.normalize('NFC'))).size > 0;

/** The faces needed for the characters, each cut down to what it draws of them. */
export function neededFaces(fonts: FontEngine, files: readonly FaceFile[], characters: Iterable<string>): NeededFace[] {
  const wanted = wantedOf(characters);
  const missing = beyondStandard(wanted.points);
  if (missing.size === 0) return [];
  const faces: ExtraFace[] = [];
  // Later faces are opened only for what the earlier ones lack: those for ideographs are large.
  for (const [index, file] of files.entries()) {
    if (missing.size === 0) break;
    const face = openFace(fonts, file);
    coverWith(face, missing);
    faces.push({ index, name: file.name, face, table: new CodeTable() });
  }
  const shares = shareOut(wanted, faces);
  const needed = faces.flatMap((whole) => {
    const share = shares.get(whole);
    if (!share) return [];
    const { face, name, index, table } = whole;
    const covered = new Set([...share].filter((point) => face.covers(point)).sort((a, b) => a - b));
    const limited: ShapingFace = {
      unitsPerEm: face.unitsPerEm,
      ascender: face.ascender,
      descender: face.descender,
      silent: face.silent,
      covers: (point) => covered.has(point),
      ink: (glyph) => face.ink(glyph),
      outline: (glyph) => face.outline(glyph),
      shape: (text, direction) => face.shape(text, direction),
    };
    return [{ extra: { index, name, face: limited, table }, file: fonts.subset(files[index]!.bytes, covered), points: [...covered] }];
  });
  giveCodes(needed, wanted.words);
  return needed;
}

/** Gives codes to the characters of the batch by themselves, and to the glyphs into which its words are shaped. */
function giveCodes(needed: readonly NeededFace[], words: ReadonlySet<string>): void {
  const take = (run: TextRun): void => {
    if (run.kind !== 'shaped') return;
    tellers(run).forEach(({ text, width, lead }, index) => {
      if (lead) run.extra.table.add(run.extra.face.silent!, lead, LEAD);
      if (text) run.extra.table.add(run.glyphs[index]!.glyph, text, width);
    });
  };
  for (const { extra, points } of needed) {
    for (const point of points) {
      const text = String.fromCodePoint(point);
      const glyphs = extra.face.shape(text, 'ltr');
      take({ kind: 'shaped', text, width: 0, extra, glyphs });
    }
  }
  const choice: FaceChoice = { coded: [standardFace('Helvetica')], extras: needed.map(({ extra }) => extra) };
  for (const word of words) shapeLine(word, choice).forEach(take);
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
    const { codes } = extra.table;
    const first = objects.length + 1;
    const [program, descriptor, map, glyphs, descendant, font] = [first, first + 1, first + 2, first + 3, first + 4, first + 5];
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
    const put = (object: TailObject): void => {
      const start = writer.length;
      writeObject(writer, object);
      const end = writer.length - '\nendstream\nendobj\n'.length;
      const stream: BaseObject['stream'] = object.stream === null ? null : [end - object.stream.length, end];
      objects.push({ number: object.number, from: start, to: writer.length, stream });
    };
    const flated = (bytes: Uint8Array): Uint8Array => doc.context.flateStream(bytes).getContents();
    const pairs = glyphMap(codes);
    const binary = Uint8Array.from({ length: pairs.length / 2 }, (_, index) => Number.parseInt(pairs.slice(index * 2, index * 2 + 2), 16));
    put({ number: map, dict: '<</Filter/FlateDecode', stream: flated(new TextEncoder().encode(toUnicode(codes))) });
    put({ number: glyphs, dict: '<</Filter/FlateDecode', stream: flated(binary) });
    put({ number: descendant, dict: descendantFont({ name, descriptor }, codes, glyphs), stream: null });
    put({ number: font, dict: compositeFont({ name }, descendant, map), stream: null });
    return { ...extra, name, descriptor, font };
  });
}
