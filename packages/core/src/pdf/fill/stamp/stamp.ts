import qrcode from 'qrcode/lib/core/qrcode.js';
import { num } from '../appearance/number.js';
import { standardFace } from '../appearance/coded-face.js';

export type Symbology = 'qr' | 'datamatrix' | 'code128';

/** Where a copy code is stamped, in points from the lower left corner of the page as it is seen. */
export interface StampPlace {
  /** 1-based. */
  page: number;
  symbology: Symbology;
  x: number;
  y: number;
  /** Square symbols are as high as they are wide. */
  width: number;
  /** Of the bars of a linear symbol. */
  height: number;
  /** The code in print below the symbol. */
  inPrint: boolean;
  /** The symbol holds the personal link of the copy, where there is one, in place of the code. */
  holdsLink?: boolean;
}

type Bwip = Pick<typeof import('bwip-js'), 'raw'>;
let bwip: Bwip | null = null;

/** Loads what some symbols need and others do not: the library for Data Matrix and Code 128 is large. To be awaited before such a symbol is drawn. */
export async function loadSymbols(places: readonly Pick<StampPlace, 'symbology'>[]): Promise<void> {
  // The module has a symbology named "raw" as well; the door that is meant is on its default export.
  if (!bwip && places.some(({ symbology }) => symbology !== 'qr'))
    bwip = ((await import('bwip-js')) as unknown as { default: Bwip }).default;
}

/** A symbol as rows of modules: true is dark. Linear symbols have one row. */
export function symbolModules(symbology: Symbology, code: string): boolean[][] {
  if (symbology === 'qr') {
    // Level M: about 15 % of the symbol may be lost on paper (ISO/IEC 18004).
    const { size, data } = qrcode.create(code, { errorCorrectionLevel: 'M' }).modules;
    return Array.from({ length: size }, (_, row) => Array.from({ length: size }, (_, column) => data[row * size + column] === 1));
  }
  if (!bwip) throw new Error('loadSymbols was not awaited');
  if (symbology === 'code128') {
    // Widths of bars and spaces in turn.
    const [{ sbs }] = bwip.raw({ bcid: 'code128', text: code }) as unknown as [{ sbs: number[] }];
    return [sbs.flatMap((width, index) => Array.from({ length: width }, () => index % 2 === 0))];
  }
  const [symbol] = bwip.raw({ bcid: 'datamatrix', text: code }) as { pixs: number[]; pixx: number; pixy: number }[];
  return Array.from({ length: symbol!.pixy }, (_, row) =>
    Array.from({ length: symbol!.pixx }, (_, column) => symbol!.pixs[row * symbol!.pixx + column] === 1),
  );
}

const SIZE_IN_PRINT = 7;

/**
 * Operators that draw a stamp on the page as it is seen, with the quiet zone around it white. Dark modules are vector rectangles.
 * @param link the personal link of the copy; empty: it has none
 */
export function drawStamp(place: StampPlace, code: string, link = ''): string {
  const rows = symbolModules(place.symbology, (place.holdsLink && link) || code);
  const isLinear = rows.length === 1;
  /** Quiet zones in modules: 4 around QR (ISO/IEC 18004), 1 around Data Matrix (ISO/IEC 16022), 10 beside Code 128 (ISO/IEC 15417). */
  const quiet = { qr: 4, datamatrix: 1, code128: 10 }[place.symbology];
  const module = place.width / (rows[0]!.length + 2 * quiet);
  const side = isLinear ? place.height : place.width;
  const print = place.inPrint ? SIZE_IN_PRINT + 2 : 0;
  let out = `q 1 g ${num(place.x)} ${num(place.y - print)} ${num(place.width)} ${num(side + print)} re f 0 g\n`;
  rows.forEach((row, index) => {
    const height = isLinear ? side : module;
    const bottom = isLinear ? place.y : place.y + side - (quiet + index + 1) * module;
    for (let from = 0; from < row.length; from++) {
      if (!row[from]) continue;
      let to = from;
      while (row[to + 1]) to++;
      out += `${num(place.x + (quiet + from) * module)} ${num(bottom)} ${num((to - from + 1) * module)} ${num(height)} re\n`;
      from = to;
    }
  });
  out += 'f\n';
  if (place.inPrint) {
    const face = standardFace('Helvetica');
    const width = face.measure(code);
    const size = Math.min(SIZE_IN_PRINT, (place.width * 1000) / Math.max(1, width));
    const x = place.x + (place.width - (width * size) / 1000) / 2;
    // Copy codes have letters, digits and hyphens only.
    if (width > 0)
      out += `BT 0 g /${face.resource} ${num(size)} Tf 1 0 0 1 ${num(x)} ${num(place.y - SIZE_IN_PRINT)} Tm (${code.replace(/[\\()]/g, '\\$&')}) Tj ET\n`;
  }
  return `${out}Q\n`;
}
