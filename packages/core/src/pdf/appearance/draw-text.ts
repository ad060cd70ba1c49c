import type { ByteWriter } from '../byte-writer.js';
import type { CodedFace } from './coded-face.js';
import { loaded } from './coded-face.js';
import type { TextBox, TextLayout, UnitLines } from './text-layout.js';
import { lineStart } from './text-layout.js';
import type { ExtraFace, TextRun } from './text-run.js';

type ShapedRun = Extract<TextRun, { kind: 'shaped' }>;

/** A character code of a copy: the glyph it draws, the text it stands for, its width of 1000 to the em. */
export interface UsedCode {
  glyph: number;
  text: string;
  width: number;
}

/**
 * What one copy uses of the bundled faces, with character codes of its own. One glyph can stand for several texts
 * (a dotless Arabic base, for example), so each pair of glyph and text has its code, counted from 1.
 */
export type FaceUse = Map<number, { extra: ExtraFace; codes: UsedCode[]; byKey: Map<string, number> }>;

export const newFaceUse = (): FaceUse => new Map();

const hex4 = (value: number): string => value.toString(16).padStart(4, '0');

/** The glyphs of a run with the text that each tells: of the glyphs of one cluster the one that advances tells its text, the others none. */
function tellers(run: ShapedRun): string[] {
  const starts = [...new Set(run.glyphs.map((glyph) => glyph.cluster))].sort((a, b) => a - b);
  const ends = new Map(starts.map((start, index) => [start, starts[index + 1] ?? run.text.length]));
  const teller = new Map<number, number>();
  run.glyphs.forEach((glyph, index) => {
    const known = teller.get(glyph.cluster);
    if (known === undefined || (run.glyphs[known]!.advance === 0 && glyph.advance > 0)) teller.set(glyph.cluster, index);
  });
  return run.glyphs.map(({ cluster }, index) => (teller.get(cluster) === index ? run.text.slice(cluster, ends.get(cluster)) : ''));
}

const SHOW = new TextEncoder().encode(' Tj\n');

/** Text operators of one text object (ISO 32000-2, 9.4.1), written one after the other; font and colour are set only where they change. */
export class TextObject {
  private resource = '';
  private size = -1;
  private colour = '';
  private readonly from: number;

  constructor(
    private readonly ink: ByteWriter,
    private readonly use: FaceUse,
  ) {
    this.from = ink.length;
  }

  /** The loaded text at a point. @param at operands and operator of Tm, ready to be written */
  line(face: CodedFace, size: number, colour: string, at: Uint8Array, length: number): void {
    this.style(face.resource, size, colour);
    this.ink.stretch(at, 0, at.length);
    face.put(this.ink, 0, length);
    this.ink.stretch(SHOW, 0, SHOW.length);
  }
  /** The loaded text in the cells of a comb: what lies between two characters is said in thousandths of the type size (ISO 32000-2, 9.4.3, TJ). */
  cells(face: CodedFace, size: number, colour: string, length: number, at: { left: number; y: number; cell: number; first: number }): void {
    if (length === 0) return;
    this.style(face.resource, size, colour);
    const { advances } = loaded;
    const scale = 1000 / size;
    this.moveTo(at.left + (at.first + 0.5) * at.cell - advances[0]! / scale / 2, at.y).byte(0x5b);
    for (let index = 0; index < length; index++) {
      if (index > 0) this.ink.number((advances[index - 1]! + advances[index]!) / 2 - at.cell * scale);
      face.put(this.ink, index, index + 1);
    }
    this.ink.ascii('] TJ\n');
  }
  /** Wrapped lines of the loaded text. */
  block(face: CodedFace, block: UnitLines, colour: string, box: TextBox, left: number, bottom: number): void {
    this.style(face.resource, block.size, colour);
    const { lines, size } = block;
    let y = bottom + block.top;
    for (let index = 0; index < lines.length; index += 3, y -= block.lead) {
      if (lines[index] === lines[index + 1]) continue;
      this.moveTo(left + lineStart(box, (lines[index + 2]! * size) / 1000), y);
      face.put(this.ink, lines[index]!, lines[index + 1]!);
      this.ink.stretch(SHOW, 0, SHOW.length);
    }
  }
  private style(resource: string, size: number, colour: string): void {
    if (this.ink.length === this.from) this.ink.ascii('BT\n');
    if (colour !== this.colour) this.ink.ascii(colour).byte(0x0a);
    if (resource !== this.resource || size !== this.size) this.ink.byte(0x2f).ascii(resource).byte(0x20).number(size).ascii(' Tf\n');
    this.colour = colour;
    this.resource = resource;
    this.size = size;
  }
  private moveTo(x: number, y: number): ByteWriter {
    return this.ink.ascii('1 0 0 1 ').number(x).byte(0x20).number(y).ascii(' Tm\n');
  }
  /** A layout whose box has its lower left corner at `left`, `bottom`. */
  layout(layout: TextLayout, colour: string, left: number, bottom: number): void {
    const { size } = layout;
    if (layout.comb && this.comb(layout, colour, left, bottom)) return;
    for (const line of layout.lines) {
      let x = left + line.x;
      const y = bottom + line.y;
      for (const run of line.runs) {
        if (run.kind === 'coded') {
          this.style(run.face.resource, size, colour);
          this.moveTo(x, y);
          run.face.write(this.ink, run.text);
          this.ink.ascii(' Tj\n');
        } else this.shaped(run, size, colour, x, y);
        x += (run.width * size) / 1000;
      }
    }
  }
  /** Characters of a comb in one go: what lies between two of them is said in thousandths of the type size (ISO 32000-2, 9.4.3, TJ). */
  private comb({ lines, size }: TextLayout, colour: string, left: number, bottom: number): boolean {
    const first = lines[0]?.runs[0];
    if (first?.kind !== 'coded') return false;
    if (!lines.every(({ runs: [run, ...more] }) => run?.kind === 'coded' && run.face === first.face && more.length === 0)) return false;
    this.style(first.face.resource, size, colour);
    this.moveTo(left + lines[0]!.x, bottom + lines[0]!.y).byte(0x5b);
    let end = lines[0]!.x;
    for (const line of lines) {
      const run = line.runs[0]!;
      if (line !== lines[0]) this.ink.number(((end - line.x) * 1000) / size);
      first.face.write(this.ink, run.text);
      end = line.x + (run.width * size) / 1000;
    }
    this.ink.ascii('] TJ\n');
    return true;
  }
  private shaped(run: ShapedRun, size: number, colour: string, x: number, y: number): void {
    const key = run.extra.index;
    let used = this.use.get(key);
    if (!used) this.use.set(key, (used = { extra: run.extra, codes: [], byKey: new Map() }));
    const { codes, byKey } = used;
    const scale = 1000 / run.extra.face.unitsPerEm;
    const { glyphs } = run;
    const texts = tellers(run);
    const marks: [code: number, x: number, y: number][] = [];
    let at = 0;
    let drawn = 0;
    this.style(`MbX${key}`, size, colour);
    this.moveTo(x, y).byte(0x5b);
    for (let index = 0; index < glyphs.length; index++) {
      const glyph = glyphs[index]!;
      const text = texts[index]!;
      const name = `${glyph.glyph} ${text}`;
      let code = byKey.get(name);
      if (code === undefined) {
        code = codes.push({ glyph: glyph.glyph, text, width: Math.round(glyph.advance * scale) });
        byKey.set(name, code);
      }
      const place = at + glyph.dx * scale;
      if (glyph.dy !== 0 || (text === '' && glyph.advance === 0)) {
        // Marks are drawn after the run, so that its text comes out in one piece.
        marks.push([code, x + (place * size) / 1000, y + (glyph.dy * scale * size) / 1000]);
      } else {
        const gap = place - drawn;
        if (Math.abs(gap) > 0.5) this.ink.number(-gap);
        this.ink.byte(0x3c).ascii(hex4(code)).byte(0x3e);
        drawn = (Math.abs(gap) > 0.5 ? place : drawn) + codes[code - 1]!.width;
      }
      at += glyph.advance * scale;
    }
    this.ink.ascii('] TJ\n');
    for (const [code, markX, markY] of marks) this.moveTo(markX, markY).byte(0x3c).ascii(hex4(code)).ascii('> Tj\n');
  }
  /** Ends the object; nothing is written when nothing is in it. */
  done(): void {
    if (this.ink.length > this.from) this.ink.ascii('ET\n');
  }
}

/** A layout as a text object of its own, in its box. */
export function drawText(ink: ByteWriter, layout: TextLayout, colour: string, use: FaceUse): void {
  const text = new TextObject(ink, use);
  text.layout(layout, colour, 0, 0);
  text.done();
}
