import type { ByteWriter } from '../../byte-writer.js';
import type { ShapedGlyph } from '../../../platform/ports.js';
import { CodeTable, hex4 } from '../composite-font.js';
import { num } from './number.js';
import type { CodedFace } from './coded-face.js';
import { advances } from './coded-face.js';
import type { TextBox, TextLayout, UnitLines } from './text-layout.js';
import { lineStart } from './text-layout.js';
import type { ExtraFace, TextRun } from './text-run.js';
import { RTL, traitsOf } from './unit-traits.js';

type ShapedRun = Extract<TextRun, { kind: 'shaped' }>;

/** Codes that one copy needs of the bundled faces beyond those that stand in every copy, by the face's number. */
export type FaceUse = Map<number, { extra: ExtraFace; table: CodeTable }>;

export const newFaceUse = (): FaceUse => new Map();

/**
 * What a glyph tells: text of its cluster, and how wide that is from here on (of 1000 to the em); or nothing. `lead` is what the face's silent glyph tells
 * before it, `LEAD` wide: a common reader places no word whose first code stands for a mark too, since it takes such a code for the mark alone.
 */
interface Told {
  text: string;
  width: number;
  lead: string;
}

/** Of 1000 to the em. */
export const LEAD = 1;
const HAS_MARK = /^(?!\p{Mn}).+\p{Mn}/u;

/**
 * What so many glyphs tell of a text, one after the other: one character each, the first all that is left over. Readers put the characters of glyphs together
 * from left to right, so it comes out as it went in, though a vowel that is drawn before its consonant tells the consonant. Where glyphs are more than
 * characters, a vowel of two parts is told as two, if that helps (Unicode Standard Annex #15, NFD), or the last glyphs tell nothing.
 */
function portions(text: string, glyphs: number): string[] {
  let chars = Array.from(text);
  if (chars.length < glyphs) {
    const parts = Array.from(text.normalize('NFD'));
    if (parts.length === glyphs) chars = parts;
  }
  const rest = Math.max(1, chars.length - glyphs + 1);
  return [chars.slice(0, rest).join(''), ...chars.slice(rest)];
}

/**
 * The glyphs of a run with what each tells. In a cluster those that advance tell its text; from right to left, where that would turn it round, only the first
 * of them does. One that is told for more than itself is as wide as they are together, so that no reader takes what follows for a gap.
 */
export function tellers(run: ShapedRun): Told[] {
  const scale = 1000 / run.extra.face.unitsPerEm;
  const starts = [...new Set(run.glyphs.map((glyph) => glyph.cluster))].sort((a, b) => a - b);
  const ends = new Map(starts.map((start, index) => [start, starts[index + 1] ?? run.text.length]));
  const told = run.glyphs.map((): Told => ({ text: '', width: 0, lead: '' }));
  for (let from = 0, to = 0; from < run.glyphs.length; from = to) {
    const { cluster } = run.glyphs[from]!;
    while (run.glyphs[to]?.cluster === cluster) to++;
    const text = run.text.slice(cluster, ends.get(cluster));
    const members = Array.from({ length: to - from }, (_, index) => from + index);
    const advancing = members.filter((index) => run.glyphs[index]!.advance > 0);
    const drawn = advancing.length > 0 ? advancing : [from];
    const isRtl = (traitsOf(text) & RTL) !== 0;
    const texts = isRtl ? [text] : portions(text, drawn.length);
    const isFirst = from === 0 || told[from - 1]!.text.trim() === '';
    const lead = isFirst && !isRtl && run.extra.face.silent !== undefined && HAS_MARK.test(texts[0]!) ? Array.from(texts[0]!)[0]! : '';
    texts.forEach((portion, index) => {
      const last = index === texts.length - 1 ? to : drawn[index + 1]!;
      const width = run.glyphs.slice(drawn[index], last).reduce((sum, { advance }) => sum + advance, 0);
      told[drawn[index]!] =
        index === 0
          ? { text: portion.slice(lead.length), width: width * scale - (lead ? LEAD : 0), lead }
          : { text: portion, width: width * scale, lead: '' };
    });
  }
  return told;
}

/** What is written for a run, whatever its size and place. Tellers that are raised are drawn after the run, so that its text comes out in one piece. */
interface Operand {
  shown: Uint8Array;
  /** Thousandths of the type size from the start of the run. */
  marks: { code: number; x: number; y: number }[];
  /**
   * Glyphs that tell no text: dots of a letter, marks, parts of a syllable. Readers take every code of a font for some character, whatever the font says, so
   * they are drawn as paths. In font units from the start of the run; empty: there are none.
   */
  paths: Uint8Array;
  /** Some pair of glyph and text has no code. */
  isPartial: boolean;
}

/** By the shaped glyphs, which are remembered and come again with the same words. */
const operands = new WeakMap<readonly ShapedGlyph[], Operand>();
const asciiBytes = new TextEncoder();

/** A path with all its points moved. */
function moved(path: string, dx: number, dy: number): string {
  let isX = false;
  return path.replace(/-?\d[\d.]*/g, (number) => {
    isX = !isX;
    return String(Math.round(Number(number) + (isX ? dx : dy)));
  });
}

function operandOf(run: ShapedRun, codeOf: (glyph: number, text: string, width: number) => number | undefined): Operand {
  const scale = 1000 / run.extra.face.unitsPerEm;
  const texts = tellers(run);
  const marks: Operand['marks'] = [];
  let paths = '';
  let isPartial = false;
  let shown = '[';
  let at = 0;
  let drawn = 0;
  run.glyphs.forEach(({ glyph, advance, dx, dy }, index) => {
    const { text, width, lead } = texts[index]!;
    const place = at + dx * scale;
    at += advance * scale;
    if (text === '') {
      const path = run.extra.face.outline(glyph);
      if (path !== '') paths += moved(path, place / scale, dy);
      return;
    }
    const code = codeOf(glyph, text, width);
    const leadCode = lead ? codeOf(run.extra.face.silent!, lead, LEAD) : 0;
    if (code === undefined || leadCode === undefined) isPartial = true;
    const leading = lead ? hex4(leadCode ?? 0) : '';
    if (dy !== 0) marks.push({ code: code ?? 0, x: place, y: dy * scale });
    else {
      const gap = place - drawn;
      if (Math.abs(gap) > 0.5) shown += num(-gap);
      shown += `<${leading}${hex4(code ?? 0)}>`;
      drawn = (Math.abs(gap) > 0.5 ? place : drawn) + Math.round(width) + (lead ? LEAD : 0);
    }
  });
  // The point ends where the run does, whatever its last glyphs were.
  if (Math.abs(at - drawn) > 0.5) shown += num(drawn - at);
  return { shown: asciiBytes.encode(`${shown}] TJ\n`), marks, paths: asciiBytes.encode(paths === '' ? '' : `${paths}f\nQ\n`), isPartial };
}

const num6 = (value: number): string => String(Math.round(value * 1e6) / 1e6);

const SHOW = new TextEncoder().encode(' Tj\n');

/** Text operators of one text object (ISO 32000-2, 9.4.1), written one after the other; font and colour are set only where they change. */
export class TextObject {
  private resource = '';
  private size = -1;
  private colour = '';
  private readonly from: number;
  /** Operators of paths, which cannot stand within the text object. */
  private readonly paths: { begin: string; paths: Uint8Array }[] = [];

  constructor(
    private readonly ink: ByteWriter,
    private readonly use: FaceUse,
  ) {
    this.from = ink.length;
  }

  /** One line at a point, if it is not wider than `room`. @param at operands and operator of Tm, ready to be written @returns whether it was written */
  line(face: CodedFace, size: number, colour: string, at: Uint8Array, text: string, room: number): boolean {
    const { length } = this.ink;
    const before = [this.resource, this.size, this.colour] as const;
    this.style(face.resource, size, colour);
    this.ink.stretch(at, 0, at.length);
    if (face.writeWithin(this.ink, text, room)) {
      this.ink.stretch(SHOW, 0, SHOW.length);
      return true;
    }
    this.ink.length = length;
    [this.resource, this.size, this.colour] = before;
    return false;
  }
  /** The loaded text in the cells of a comb: what lies between two characters is said in thousandths of the type size (ISO 32000-2, 9.4.3, TJ). */
  cells(face: CodedFace, size: number, colour: string, length: number, at: { left: number; y: number; cell: number; first: number }): void {
    if (length === 0) return;
    this.style(face.resource, size, colour);
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
      let isPlaced = false;
      for (const run of line.runs) {
        if (run.kind === 'coded') {
          this.style(run.face.resource, size, colour);
          if (!isPlaced) this.moveTo(x, y);
          run.face.write(this.ink, run.text);
          this.ink.stretch(SHOW, 0, SHOW.length);
          isPlaced = true;
        } else isPlaced = this.shaped(run, size, colour, x, y, isPlaced);
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
  /** @param isPlaced whether the point is where the run before ended @returns whether it is at the end of this one */
  private shaped(run: ShapedRun, size: number, colour: string, x: number, y: number, isPlaced: boolean): boolean {
    let operand = operands.get(run.glyphs);
    if (!operand) operands.set(run.glyphs, (operand = operandOf(run, (glyph, text, width) => run.extra.table.find(glyph, text, width))));
    let resource = `MbX${run.extra.index}`;
    if (operand.isPartial) {
      let used = this.use.get(run.extra.index);
      if (!used) this.use.set(run.extra.index, (used = { extra: run.extra, table: new CodeTable() }));
      operand = operandOf(run, (glyph, text, width) => used.table.add(glyph, text, width));
      resource = `MbY${run.extra.index}`;
    }
    this.style(resource, size, colour);
    if (!isPlaced) this.moveTo(x, y);
    this.ink.bytes(operand.shown);
    for (const mark of operand.marks)
      this.moveTo(x + (mark.x * size) / 1000, y + (mark.y * size) / 1000)
        .byte(0x3c)
        .ascii(hex4(mark.code))
        .ascii('> Tj\n');
    if (operand.paths.length > 0) {
      const scale = num6(size / run.extra.face.unitsPerEm);
      this.paths.push({ begin: `q ${colour}\n${scale} 0 0 ${scale} ${num(x)} ${num(y)} cm\n`, paths: operand.paths });
    }
    return operand.marks.length === 0;
  }
  /** What `work` writes, as the content of a structure element (ISO 32000-2, 14.6); nothing when it writes nothing. @param mark the operator that begins it */
  marked(mark: string, work: () => void): void {
    if (this.ink.length === this.from) this.ink.ascii('BT\n');
    const before = this.ink.length;
    this.ink.ascii(mark);
    const begun = this.ink.length;
    work();
    if (this.ink.length === begun) this.ink.length = before;
    else this.ink.ascii('EMC\n');
  }
  /** Ends the object; nothing is written when nothing is in it. */
  done(): void {
    if (this.ink.length > this.from) this.ink.ascii('ET\n');
    for (const { begin, paths } of this.paths) this.ink.ascii(begin).bytes(paths);
  }
}

/** A layout as a text object of its own, in its box. */
export function drawText(ink: ByteWriter, layout: TextLayout, colour: string, use: FaceUse): void {
  const text = new TextObject(ink, use);
  text.layout(layout, colour, 0, 0);
  text.done();
}
