import type { PDFDict, PDFPage } from '@cantoo/pdf-lib';
import { PDFStream } from '@cantoo/pdf-lib';
import { arrayEntry, dictEntry, entry, nameEntry, numbersOf } from '../document.js';
import { contentsOf, resourcesOf, streamBytes } from '../../plan/overlay.js';
import type { TextFont } from './text-font.js';
import { textFont } from './text-font.js';
import { contentTokens } from './tokens.js';
import type { PageMarks, Segment, Shape, TextPiece } from '../../../page/page-marks.js';

type Point = readonly [x: number, y: number];
type Matrix = [number, number, number, number, number, number];
const times = ([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix => [
  a * g + b * i, a * h + b * j, c * g + d * i, c * h + d * j, e * g + f * i + k, e * h + f * j + l,
]; // prettier-ignore

/** Tokens read of a page, and forms within forms: enough for any form, little enough for damage. */
const MOST_TOKENS = 400_000;
const DEEPEST = 4;

/** Lines shorter than this are no rules, points; and those of a page that are kept. */
const [SHORTEST, MOST_SEGMENTS] = [4, 20_000];
/** Dots and dashes are no higher than this, and stand no further apart in a dotted line, points; how many make one, and how long it is at least. */
const [SPECK, SPECK_GAP, FEWEST_SPECKS, SHORTEST_DOTTED] = [2, 5, 8, 18];
/** Filled boxes that are no higher, or no wider, than this are lines. */
const THIN = 2.5;

interface State {
  ctm: Matrix;
  font: TextFont | null;
  size: number;
  leading: number;
  charSpace: number;
  wordSpace: number;
  scale: number;
  /** How light what is filled comes out, from 0, black, to 1, white. */
  fill: number;
}

/** Characters that may be places to write on or to tick; see page/writing-places. */
const PLACES = /[_.…·□☐▢❏❐❑❒◻◯○❍[(]|[ \u00a0]{3}|^[ \u00a0]|[ \u00a0]$/;

/** A part of a path: its corners, how far it reaches, and how many of its sides are curves. */
interface Outline {
  points: Point[];
  curves: number;
  box: [left: number, bottom: number, right: number, top: number];
}
const outlineAt = (point: Point): Outline => ({ points: [point], curves: 0, box: [point[0], point[1], point[0], point[1]] });
function reach(outline: Outline | undefined, ...points: Point[]): void {
  if (!outline) return;
  for (const [x, y] of points) {
    const { box } = outline;
    outline.box = [Math.min(box[0], x), Math.min(box[1], y), Math.max(box[2], x), Math.max(box[3], y)];
  }
}

/** Where the characters of a text end, points, stretched to how wide it was set. */
const endsOf = (text: string, ends: readonly number[], width: number, set: number): number[] =>
  [...Array(text.length).keys()].map((at) => (width > 0 ? ((ends[at] ?? width) / width) * set : set));

/** How light a colour of 1 (grey), 3 (red, green, blue) or 4 (cyan, magenta, yellow, black) numbers is; in between where it cannot be told. */
function lightness(numbers: readonly (number | string)[]): number {
  const [a = 0, b = 0, c = 0, d = 0] = numbers.map((one) => (typeof one === 'number' ? Math.min(1, Math.max(0, one)) : 0.5));
  if (numbers.length === 3) return 0.3 * a + 0.59 * b + 0.11 * c;
  return numbers.length === 4
    ? Math.max(0, 1 - (0.3 * a + 0.59 * b + 0.11 * c) - d)
    : numbers.length === 1 && typeof numbers[0] === 'number'
      ? a
      : 0.5;
}

/** The quarter turn that is nearest to a direction, degrees counter-clockwise; null: it is askew. */
function directionOf(a: number, b: number): TextPiece['direction'] | null {
  if (Math.abs(b) < Math.abs(a) * 0.1) return a > 0 ? 0 : 180;
  return Math.abs(a) < Math.abs(b) * 0.1 ? (b > 0 ? 90 : 270) : null;
}

class Reader {
  readonly pieces: TextPiece[] = [];
  readonly segments: Segment[] = [];
  readonly shapes: Shape[] = [];
  /** What is too short for a line, level: from, to, height. */
  private readonly specks: [number, number, number][] = [];
  readonly pictures: Shape['box'][] = [];
  /** Strings of which no letter is known. */
  unread = 0;
  private left = MOST_TOKENS;
  private readonly fonts = new Map<string, TextFont>();

  constructor(private readonly seesLines: boolean) {}

  /** Keeps what is level or upright of a line. */
  private line([x1, y1]: Point, [x2, y2]: Point): void {
    if (this.segments.length >= MOST_SEGMENTS) return;
    if (Math.hypot(x2 - x1, y2 - y1) < SHORTEST) {
      if (Math.abs(y1 - y2) <= SPECK && this.specks.length < MOST_SEGMENTS)
        this.specks.push([Math.min(x1, x2), Math.max(x1, x2), (y1 + y2) / 2]);
      return;
    }
    if (Math.abs(y1 - y2) < 0.5 || Math.abs(x1 - x2) < 0.5)
      this.segments.push({ x1: Math.min(x1, x2), y1: Math.min(y1, y2), x2: Math.max(x1, x2), y2: Math.max(y1, y2) });
  }
  /** Keeps the lines of a path: all of its edges where they are drawn, those of thin shapes where they are filled. */
  private draw(path: readonly Outline[], isStroked: boolean, fill: number | null): void {
    for (const outline of path) {
      this.shape(outline, isStroked, fill);
      const { points } = outline;
      // Curves bound no cells.
      if (isStroked) {
        if (outline.curves === 0 || points.length > outline.curves + 2)
          for (let at = 1; at < points.length; at++) this.line(points[at - 1]!, points[at]!);
      } else if (points.length >= 4) {
        const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
        const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
        if (right - left < SHORTEST && top - bottom <= SPECK) this.line([left, (bottom + top) / 2], [right, (bottom + top) / 2]);
        else if (top - bottom <= THIN) this.line([left, (bottom + top) / 2], [right, (bottom + top) / 2]);
        else if (right - left <= THIN) this.line([(left + right) / 2, bottom], [(left + right) / 2, top]);
      }
    }
  }

  /** Keeps boxes and circles. */
  private shape({ points, curves, box }: Outline, isStroked: boolean, fill: number | null): void {
    const [width, height] = [box[2] - box[0], box[3] - box[1]];
    if (this.shapes.length >= MOST_SEGMENTS || width < SHORTEST || height < SHORTEST) return;
    const isRound = curves >= 2 && points.length <= curves + 2;
    const isEdge = ([x, y]: Point): boolean =>
      (Math.abs(x - box[0]) < 0.6 || Math.abs(x - box[2]) < 0.6) && (Math.abs(y - box[1]) < 0.6 || Math.abs(y - box[3]) < 0.6);
    if (
      isRound
        ? Math.abs(width - height) < 1.5
        : curves > 0
          ? curves === 4
          : points.length >= 4 && points.length <= 6 && points.every(isEdge)
    )
      this.shapes.push({ box, isRound, isStroked, fill });
  }

  /** Dots and dashes that stand in a row are a line. */
  joinSpecks(): void {
    const sorted = this.specks.sort((a, b) => a[2] - b[2] || a[0] - b[0]);
    for (let start = 0; start < sorted.length;) {
      let stop = start + 1;
      while (stop < sorted.length && sorted[stop]![2] - sorted[start]![2] < 0.4) stop++;
      const row = sorted.slice(start, stop).sort((a, b) => a[0] - b[0]);
      for (let from = 0; from < row.length;) {
        let [to, end] = [from + 1, row[from]![1]];
        while (to < row.length && row[to]![0] - end <= SPECK_GAP) end = Math.max(end, row[to++]![1]);
        const left = row[from]![0];
        if (to - from >= FEWEST_SPECKS && end - left >= SHORTEST_DOTTED)
          this.segments.push({ x1: left, y1: row[from]![2], x2: end, y2: row[from]![2] });
        from = to;
      }
      start = stop;
    }
  }

  run(streams: readonly (Uint8Array | null)[], resources: PDFDict | undefined, ctm: Matrix, depth: number): void {
    let state: State = { ctm, font: null, size: 1, leading: 0, charSpace: 0, wordSpace: 0, scale: 1, fill: 0 };
    const stack: State[] = [];
    let text: Matrix = [1, 0, 0, 1, 0, 0];
    let line: Matrix = text;
    let operands: (number | string)[] = [];
    let path: Outline[] = [];
    const pointAt = (x: number, y: number): Point => {
      const [a, b, c, d, e, f] = state.ctm;
      return [a * x + c * y + e, b * x + d * y + f];
    };
    const to = (point: Point): void => {
      path.at(-1)?.points.push(point);
      reach(path.at(-1), point);
    };
    const curve = (...points: Point[]): void => {
      const last = path.at(-1);
      if (!last) return;
      last.curves++;
      last.points.push(points.at(-1)!);
      reach(last, ...points);
    };
    const close = (): void => {
      const first = path.at(-1)?.points[0];
      if (first) to(first);
    };
    const number = (at: number): number => (typeof operands[at] === 'number' ? operands[at] : 0);
    const matrix = (): Matrix => [number(0), number(1), number(2), number(3), number(4), number(5)];
    const newLine = (x: number, y: number): void => void (text = line = times([1, 0, 0, 1, x, y], line));
    const show = (bytes: string): void => {
      const ends: number[] = [];
      const read = state.font?.read(bytes, this.seesLines ? ends : undefined);
      if (!read) return;
      const spaces = bytes.split(' ').length - 1;
      const advance = (read.width / 1000) * state.size + bytes.length * state.charSpace + spaces * state.wordSpace;
      const [a, b, , , x, y] = times(text, state.ctm);
      const stretch = Math.hypot(a, b);
      const direction = directionOf(a, b);
      if (read.text === '' && read.width > 0) this.unread++;
      if (read.text.trim() && direction !== null)
        this.pieces.push({
          text: read.text,
          x,
          y,
          width: advance * state.scale * stretch,
          size: Math.abs(state.size) * stretch,
          direction,
          isBold: state.font?.isBold ?? false,
          ...(this.seesLines && PLACES.test(read.text) && { ends: endsOf(read.text, ends, read.width, advance * state.scale * stretch) }),
        });
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
          case 'm':
            if (this.seesLines) path.push(outlineAt(pointAt(number(0), number(1))));
            break;
          case 'l':
            to(pointAt(number(0), number(1)));
            break;
          case 'c':
            curve(pointAt(number(0), number(1)), pointAt(number(2), number(3)), pointAt(number(4), number(5)));
            break;
          case 'v':
          case 'y':
            curve(pointAt(number(0), number(1)), pointAt(number(2), number(3)));
            break;
          case 'h':
            close();
            break;
          case 're': {
            if (!this.seesLines) break;
            const [x, y, width, height] = [number(0), number(1), number(2), number(3)];
            path.push(outlineAt(pointAt(x, y)));
            for (const [right, up] of [[width, 0], [width, height], [0, height], [0, 0]] as const) to(pointAt(x + right, y + up)); // prettier-ignore
            break;
          }
          case 'S':
          case 's':
          case 'B':
          case 'B*':
          case 'b':
          case 'b*':
            if (/^[sb]/.test(token.text)) close();
            this.draw(path, true, /^[Bb]/.test(token.text) ? state.fill : null);
            path = [];
            break;
          case 'f':
          case 'F':
          case 'f*':
            this.draw(path, false, state.fill);
            path = [];
            break;
          case 'g':
          case 'rg':
          case 'k':
          case 'sc':
          case 'scn':
            state.fill = lightness(operands);
            break;
          case 'cs':
            state.fill = 0;
            break;
          case 'n':
            path = [];
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
    if (form instanceof PDFStream && nameEntry(form.dict, 'Subtype') === 'Image') {
      const [a, b, c, d, e, f] = ctm;
      this.pictures.push([Math.min(e, e + a + c), Math.min(f, f + b + d), Math.max(e, e + a + c), Math.max(f, f + b + d)]);
      return;
    }
    if (!(form instanceof PDFStream) || nameEntry(form.dict, 'Subtype') !== 'Form' || depth >= DEEPEST) return;
    const given = numbersOf(arrayEntry(form.dict, 'Matrix'));
    const own = (given.length === 6 ? given : [1, 0, 0, 1, 0, 0]) as Matrix;
    this.run([streamBytes(form)], dictEntry(form.dict, 'Resources') ?? resources, times(own, ctm), depth + 1);
  }
}

function read(page: PDFPage, seesLines: boolean): Reader {
  const reader = new Reader(seesLines);
  try {
    reader.run(
      contentsOf(page).map(({ object }) => streamBytes(object)),
      resourcesOf(page),
      [1, 0, 0, 1, 0, 0],
      0,
    );
    reader.joinSpecks();
  } catch {
    // A page that cannot be read has no labels; its fields are there all the same.
  }
  return reader;
}

/** The text printed on a page that reads from left to right, in the order of drawing. */
export const pageText = (page: PDFPage): TextPiece[] => read(page, false).pieces.filter(({ direction }) => direction === 0);

/** Everything printed on a page that a reading of it stands on. */
export function pageMarks(page: PDFPage): PageMarks {
  const { pieces, segments, shapes, pictures, unread } = read(page, true);
  return { pieces, segments, shapes, pictures, unread };
}
