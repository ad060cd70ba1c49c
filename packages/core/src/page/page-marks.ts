/** Text as it was shown in one go, in the page's own space, points. `x`, `y`: its baseline's start. */
export interface TextPiece {
  text: string;
  x: number;
  y: number;
  width: number;
  size: number;
  /** In which it runs, degrees counter-clockwise. */
  direction: 0 | 90 | 180 | 270;
  isBold: boolean;
  /** Where each of its characters ends, points from `x`; only where something in it may be a place to write on. */
  ends?: readonly number[];
}

/** A level or upright line, in the page's own space, points; the lower left end first. */
export interface Segment {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** A box or a circle that is drawn in one go, in the page's own space, points. */
export interface Shape {
  box: readonly [left: number, bottom: number, right: number, top: number];
  isRound: boolean;
  isStroked: boolean;
  /** How light it is filled, from 0, black, to 1, white; null: it is not. */
  fill: number | null;
}

/** What is printed on a page. */
export interface PageMarks {
  pieces: TextPiece[];
  segments: Segment[];
  /** In the order of drawing. */
  shapes: Shape[];
  /** Pictures: where they lie. */
  pictures: Shape['box'][];
  /** Strings that a font draws without saying which letters they are. Left out: none. */
  unread?: number;
}
