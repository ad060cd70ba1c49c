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
}

/** A level or upright line, in the page's own space, points; the lower left end first. */
export interface Segment {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
}

/** What is printed on a page. */
export interface PageMarks {
  pieces: TextPiece[];
  segments: Segment[];
}
