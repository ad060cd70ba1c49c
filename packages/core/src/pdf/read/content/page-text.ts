import type { PDFDict, PDFPage } from '@cantoo/pdf-lib';
import { PDFStream } from '@cantoo/pdf-lib';
import { arrayEntry, dictEntry, entry, nameEntry, numbersOf } from '../document.js';
import { contentsOf, resourcesOf, streamBytes } from '../../plan/overlay.js';
import type { TextFont } from './text-font.js';
import { textFont } from './text-font.js';
import { contentTokens } from './tokens.js';

/** Text as it was shown in one go, in the page's own space, points. `x`, `y`: its baseline's start. */
export interface TextPiece {
  text: string;
  x: number;
  y: number;
  width: number;
  size: number;
}

type Matrix = [number, number, number, number, number, number];
const times = ([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix => [
  a * g + b * i, a * h + b * j, c * g + d * i, c * h + d * j, e * g + f * i + k, e * h + f * j + l,
]; // prettier-ignore

/** Tokens read of a page, and forms within forms: enough for any form, little enough for damage. */
const MOST_TOKENS = 400_000;
const DEEPEST = 4;

interface State {
  ctm: Matrix;
  font: TextFont | null;
  size: number;
  leading: number;
  charSpace: number;
  wordSpace: number;
  scale: number;
}

class Reader {
  readonly pieces: TextPiece[] = [];
  private left = MOST_TOKENS;
  private readonly fonts = new Map<string, TextFont>();

  run(streams: readonly (Uint8Array | null)[], resources: PDFDict | undefined, ctm: Matrix, depth: number): void {
    let state: State = { ctm, font: null, size: 1, leading: 0, charSpace: 0, wordSpace: 0, scale: 1 };
    const stack: State[] = [];
    let text: Matrix = [1, 0, 0, 1, 0, 0];
    let line: Matrix = text;
    let operands: (number | string)[] = [];
    const number = (at: number): number => (typeof operands[at] === 'number' ? operands[at] : 0);
    const matrix = (): Matrix => [number(0), number(1), number(2), number(3), number(4), number(5)];
    const newLine = (x: number, y: number): void => void (text = line = times([1, 0, 0, 1, x, y], line));
    const show = (bytes: string): void => {
      const read = state.font?.read(bytes);
      if (!read) return;
      const spaces = bytes.split(' ').length - 1;
      const advance = (read.width / 1000) * state.size + bytes.length * state.charSpace + spaces * state.wordSpace;
      const [a, b, , , x, y] = times(text, state.ctm);
      const stretch = Math.hypot(a, b);
      // Text that runs upwards or backwards is no label of a box beside it.
      if (read.text.trim() && Math.abs(b) < Math.abs(a) * 0.1 && a > 0)
        this.pieces.push({ text: read.text, x, y, width: advance * state.scale * stretch, size: state.size * stretch });
      text = times([1, 0, 0, 1, advance * state.scale, 0], text);
    };
    for (const bytes of streams) {
      if (!bytes) continue;
      for (const token of contentTokens(bytes)) {
        if (--this.left < 0) return;
        if (token.kind === 'number') operands.push(token.value);
        else if (token.kind === 'name' || token.kind === 'string') operands.push(token.text);
        if (token.kind !== 'operator') continue;
        switch (token.text) {
          case 'q':
            if (stack.length < 256) stack.push({ ...state });
            break;
          case 'Q':
            state = stack.pop() ?? state;
            break;
          case 'cm':
            state.ctm = times(matrix(), state.ctm);
            break;
          case 'BT':
            text = line = [1, 0, 0, 1, 0, 0];
            break;
          case 'Tf':
            state.font = this.font(resources, String(operands[0] ?? ''), depth);
            state.size = number(1);
            break;
          case 'Tm':
            text = line = matrix();
            break;
          case 'Td':
            newLine(number(0), number(1));
            break;
          case 'TD':
            state.leading = -number(1);
            newLine(number(0), number(1));
            break;
          case 'T*':
            newLine(0, -state.leading);
            break;
          case 'TL':
            state.leading = number(0);
            break;
          case 'Tc':
            state.charSpace = number(0);
            break;
          case 'Tw':
            state.wordSpace = number(0);
            break;
          case 'Tz':
            state.scale = number(0) / 100;
            break;
          case 'Tj':
            show(String(operands[0] ?? ''));
            break;
          case "'":
            newLine(0, -state.leading);
            show(String(operands[0] ?? ''));
            break;
          case '"':
            newLine(0, -state.leading);
            show(String(operands[2] ?? ''));
            break;
          case 'TJ':
            for (const one of operands) {
              if (typeof one === 'string') show(one);
              else text = times([1, 0, 0, 1, (-one / 1000) * state.size * state.scale, 0], text);
            }
            break;
          case 'Do':
            this.form(resources, String(operands[0] ?? ''), state.ctm, depth);
            break;
        }
        operands = [];
      }
    }
  }
  private font(resources: PDFDict | undefined, name: string, depth: number): TextFont {
    const key = `${depth} ${name}`;
    const known = depth === 0 ? this.fonts.get(key) : undefined;
    const font = known ?? textFont(resources, name);
    if (depth === 0) this.fonts.set(key, font);
    return font;
  }
  private form(resources: PDFDict | undefined, name: string, ctm: Matrix, depth: number): void {
    const objects = resources && dictEntry(resources, 'XObject');
    const form = objects && entry(objects, name);
    if (!(form instanceof PDFStream) || nameEntry(form.dict, 'Subtype') !== 'Form' || depth >= DEEPEST) return;
    const given = numbersOf(arrayEntry(form.dict, 'Matrix'));
    const own = (given.length === 6 ? given : [1, 0, 0, 1, 0, 0]) as Matrix;
    this.run([streamBytes(form)], dictEntry(form.dict, 'Resources') ?? resources, times(own, ctm), depth + 1);
  }
}

/** The text printed on a page, in the order of drawing. */
export function pageText(page: PDFPage): TextPiece[] {
  const reader = new Reader();
  try {
    reader.run(
      contentsOf(page).map(({ object }) => streamBytes(object)),
      resourcesOf(page),
      [1, 0, 0, 1, 0, 0],
      0,
    );
  } catch {
    // A page that cannot be read has no labels; its fields are there all the same.
  }
  return reader.pieces;
}
