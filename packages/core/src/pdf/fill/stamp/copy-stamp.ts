import type { StampPlace, Symbology } from './stamp.js';

export const symbologies = ['qr', 'datamatrix', 'code128'] as const satisfies readonly Symbology[];
export const stampCorners = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;
export type StampCorner = (typeof stampCorners)[number];
export const stampedPages = ['first', 'last', 'all'] as const;

/** The copy code as a symbol on the paper, as a person says it: for pages of any size. Lengths in millimetres. */
export interface CopyStamp {
  symbology: Symbology;
  pages: (typeof stampedPages)[number];
  corner: StampCorner;
  /** From the corner's edges to the white around the symbol. */
  fromSide: number;
  fromEnd: number;
  /** With the white around it. Bars of Code 128 are a quarter as high, but never lower than 8 mm. */
  width: number;
  /** The code in print below the symbol. */
  inPrint: boolean;
  /** What the symbol holds; the copy code where nothing is said. A linear symbol always holds the code. */
  holds?: 'code' | 'link';
}

/** What a symbol can hold. */
export const stampHoldings = ['code', 'link'] as const;

/** What a new stamp is. 22 mm hold a copy code in modules of 0.7 mm, which telephones read without trouble (common practice, no source). */
export const usualStamp: CopyStamp = {
  symbology: 'qr',
  pages: 'first',
  corner: 'top-right',
  fromSide: 8,
  fromEnd: 8,
  width: 22,
  inPrint: true,
};

/** Widths in millimetres that people and readers can do with. */
export const stampWidths = { minimum: 8, maximum: 120 };

const POINTS = 72 / 25.4;
/** Points of the line of print below a symbol. */
const PRINT = 9;

/** Places of a stamp on pages. @param pages their sizes as they are seen, in points */
export function stampPlaces(stamp: CopyStamp, pages: readonly { width: number; height: number }[]): StampPlace[] {
  const [vertical, horizontal] = stamp.corner.split('-');
  const width = stamp.width * POINTS;
  const height = stamp.symbology === 'code128' ? Math.max(8 * POINTS, width / 4) : width;
  const print = stamp.inPrint ? PRINT : 0;
  const holdsLink = stamp.holds === 'link' && stamp.symbology !== 'code128';
  const chosen = { first: [0], last: [pages.length - 1], all: pages.map((_, index) => index) }[stamp.pages];
  return chosen.flatMap((index) => {
    const page = pages[index];
    if (!page) return [];
    // What would lie outside of the page is pushed back onto it.
    const within = (at: number, size: number, room: number): number => Math.max(0, Math.min(at, room - size));
    const side = stamp.fromSide * POINTS;
    const end = stamp.fromEnd * POINTS;
    const x = within(horizontal === 'left' ? side : page.width - side - width, width, page.width);
    const y = within(vertical === 'bottom' ? end + print : page.height - end - height, height, page.height);
    return [{ page: index + 1, symbology: stamp.symbology, x, y, width, height, inPrint: stamp.inPrint, ...(holdsLink && { holdsLink }) }];
  });
}
