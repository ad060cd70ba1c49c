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

export function chromeOf(widget: PDFDict, width: number, height: number, round: boolean): Chrome {
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
    if (kind === 'U') draw += `${line}\n${num(border)} w\n0 ${num(border / 2)} m ${num(width)} ${num(border / 2)} l S\n`;
    else {
      const dash =
        kind === 'D'
          ? `[${
              numbersOf(style && arrayEntry(style, 'D'))
                .map(num)
                .join(' ') || '3'
            }] 0 d\n`
          : '';
      draw += `${line}\n${num(border)} w\n${dash}${shape(border / 2)}S\n${dash ? '[] 0 d\n' : ''}`;
    }
  }
  return { border, draw };
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

/** The mark of a tick box or radio button that has no appearance of its own: a cross for boxes, a dot for rounds. */
export function stateMark(width: number, height: number, round: boolean): string {
  const side = Math.min(width, height);
  const [cx, cy] = [width / 2, height / 2];
  if (round) return `0 g\n${ellipse(width, height, side * 0.28)}f\n`;
  const arm = side * 0.3;
  return `0 G ${num(Math.max(0.8, side * 0.1))} w 1 J\n${num(cx - arm)} ${num(cy - arm)} m ${num(cx + arm)} ${num(cy + arm)} l S\n${num(cx - arm)} ${num(cy + arm)} m ${num(cx + arm)} ${num(cy - arm)} l S\n`;
}
