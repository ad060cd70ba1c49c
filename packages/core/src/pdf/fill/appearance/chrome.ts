import type { PDFDict } from '@cantoo/pdf-lib';
import { PDFArray } from '@cantoo/pdf-lib';
import { arrayEntry, dictEntry, nameEntry, numberEntry, numbersOf } from '../../read/document.js';
import { circle } from './mark.js';
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
    round
      ? circle(width / 2, height / 2, Math.max(0.1, Math.min(width, height) / 2 - inset))
      : `${num(inset)} ${num(inset)} ${num(width - 2 * inset)} ${num(height - 2 * inset)} re\n`;
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
