import type { PDFDict } from '@cantoo/pdf-lib';
import { PDFArray } from '@cantoo/pdf-lib';
import { arrayEntry, dictEntry, nameEntry, numberEntry, numbersOf } from '../document.js';
import { num } from './number.js';

/** Border and background of a widget (ISO 32000-2, tables 168 and 192). */
export interface Chrome {
  /** Points; 0 when there is none. */
  border: number;
  /** Operators that draw background and border in a box of the given size, origin lower left. */
  draw: string;
}

const colour = (numbers: number[], stroke: boolean): string | null => {
  const operator = { 1: 'g', 3: 'rg', 4: 'k' }[numbers.length];
  return operator ? `${numbers.map(num).join(' ')} ${stroke ? operator.toUpperCase() : operator}` : null;
};

/** @param cells of a comb, between which lines are drawn as viewers do (common practice, no source); 0: no comb */
export function chromeOf(widget: PDFDict, width: number, height: number, round: boolean, cells = 0): Chrome {
  const look = dictEntry(widget, 'MK');
  const style = dictEntry(widget, 'BS');
  const legacy = arrayEntry(widget, 'Border');
  const background = look && colour(numbersOf(arrayEntry(look, 'BG')), false);
  const line = look && colour(numbersOf(arrayEntry(look, 'BC')), true);
  const asked = (style && numberEntry(style, 'W')) ?? (legacy instanceof PDFArray ? numbersOf(legacy)[2] : undefined) ?? 1;
  const border = line ? Math.max(0, Math.min(asked, width / 2, height / 2)) : 0;
  const shape = (inset: number): string =>
    round ? ellipse(width, height, inset) : `${num(inset)} ${num(inset)} ${num(width - 2 * inset)} ${num(height - 2 * inset)} re\n`;
  let draw = background ? `${background}\n${shape(0)}f\n` : '';
  if (line && border > 0) {
    const kind = (style && nameEntry(style, 'S')) ?? 'S';
    if ((kind === 'B' || kind === 'I') && !round) draw += bevel(width, height, border, line, background, kind === 'I');
    else if (kind === 'U') draw += `${line}\n${num(border)} w\n0 ${num(border / 2)} m ${num(width)} ${num(border / 2)} l S\n`;
    else {
      const dash =
        kind === 'D'
          ? `[${
              numbersOf(style && arrayEntry(style, 'D'))
                .map(num)
                .join(' ') || '3'
            }] 0 d\n`
          : '';
      let between = '';
      for (let cell = 1; cell < cells; cell++)
        between += `${num((cell * width) / cells)} ${num(border)} m ${num((cell * width) / cells)} ${num(height - border)} l\n`;
      draw += `${line}\n${num(border)} w\n${dash}${shape(border / 2)}${between}S\n${dash ? '[] 0 d\n' : ''}`;
    }
  }
  const kind = (style && nameEntry(style, 'S')) ?? 'S';
  return { border: border > 0 && (kind === 'B' || kind === 'I') ? 2 * border : border, draw };
}

/** Beveled and inset borders (ISO 32000-2, table 168): a line, and within it two corners that let the box stand out or lie deep. Shades are common practice, no source. */
function bevel(
  width: number,
  height: number,
  border: number,
  line: string,
  background: string | null | undefined,
  isInset: boolean,
): string {
  const p = (...values: number[]): string => values.map(num).join(' ');
  const [inner, outer] = [2 * border, border];
  const upper = `${p(outer, outer)} m ${p(outer, height - outer)} l ${p(width - outer, height - outer)} l ${p(width - inner, height - inner)} l ${p(inner, height - inner)} l ${p(inner, inner)} l f\n`;
  const lower = `${p(width - outer, height - outer)} m ${p(width - outer, outer)} l ${p(outer, outer)} l ${p(inner, inner)} l ${p(width - inner, inner)} l ${p(width - inner, height - inner)} l f\n`;
  const shades = isInset ? ['0.5 g', '0.75 g'] : ['1 g', background ? '0.6 g' : '0.75 g'];
  return `${shades[0]}\n${upper}${shades[1]}\n${lower}${line}\n${num(border)} w\n${p(border / 2, border / 2, width - border, height - border)} re S\n`;
}

/** Factor by which Bézier arms approach a circle: 4/3 (sqrt 2 - 1). */
const ARM = 0.5523;

function ellipse(width: number, height: number, inset: number): string {
  const [cx, cy] = [width / 2, height / 2];
  const radius = Math.max(0.1, Math.min(width, height) / 2 - inset);
  const arm = radius * ARM;
  const p = (...values: number[]): string => values.map(num).join(' ');
  return (
    `${p(cx + radius, cy)} m\n${p(cx + radius, cy + arm, cx + arm, cy + radius, cx, cy + radius)} c\n` +
    `${p(cx - arm, cy + radius, cx - radius, cy + arm, cx - radius, cy)} c\n${p(cx - radius, cy - arm, cx - arm, cy - radius, cx, cy - radius)} c\n` +
    `${p(cx + arm, cy - radius, cx + radius, cy - arm, cx + radius, cy)} c\nh\n`
  );
}

/**
 * The mark of a tick box or radio button that has no appearance of its own, by its caption in ZapfDingbats (ISO 32000-2, table 192, CA):
 * 4 a tick, l a dot, n a square, u a diamond, others a cross. Without a caption a cross for boxes and a dot for rounds.
 */
export function stateMark(width: number, height: number, round: boolean, caption?: string): string {
  const side = Math.min(width, height);
  const [cx, cy] = [width / 2, height / 2];
  const p = (x: number, y: number): string => `${num(cx + x * side)} ${num(cy + y * side)}`;
  const stroke = `0 G ${num(Math.max(0.8, side * 0.1))} w 1 J\n`;
  if (round || caption === 'l') return `0 g\n${ellipse(width, height, side * 0.28)}f\n`;
  if (caption === '4') return `${stroke}${p(-0.28, -0.02)} m ${p(-0.08, -0.26)} l ${p(0.3, 0.28)} l S\n`;
  if (caption === 'n') return `0 g\n${p(-0.25, -0.25)} m ${p(0.25, -0.25)} l ${p(0.25, 0.25)} l ${p(-0.25, 0.25)} l f\n`;
  if (caption === 'u') return `0 g\n${p(0, -0.32)} m ${p(0.32, 0)} l ${p(0, 0.32)} l ${p(-0.32, 0)} l f\n`;
  return `${stroke}${p(-0.3, -0.3)} m ${p(0.3, 0.3)} l S\n${p(-0.3, 0.3)} m ${p(0.3, -0.3)} l S\n`;
}
