import { t } from '../../../words/words.js';
import { standardFace } from '../appearance/coded-face.js';
import { num } from '../appearance/number.js';
import type { ByteWriter } from '../../byte-writer.js';

/** A line of text on every copy, such as “Copy {{ number }} of {{ count }}”, in points from the lower left corner of the page as it is seen. */
export interface LineStamp {
  /** 1-based. */
  page: number;
  x: number;
  /** Of its baseline. */
  y: number;
  width: number;
  /** Points of type; less where the line is wider than its place. */
  size: number;
  align: 'left' | 'centre' | 'right';
  /** A pattern that knows `stampLineNames`. */
  text: string;
}

/** What a line of text on copies may tell. */
export const stampLineNames = ['number', 'count', 'code', 'batch', 'today'] as const;

const face = () => standardFace('Helvetica');

/** Why a line cannot be drawn as it is, as part of a sentence; null: it can. */
export function lineFault(text: string): string | null {
  if (text.trim() === '') return 'its line of text is empty';
  const strange = [...text].find((char) => !face().has(char.codePointAt(0)!));
  return strange === undefined ? null : t`its line of text holds “${strange}”, and lines on copies are written in Latin letters only`;
}

/** Draws a line; characters that its face lacks are left out. */
export function drawLine({ x, y, width, size, align }: LineStamp, text: string, ink: ByteWriter): void {
  const drawn = [...text].filter((char) => face().has(char.codePointAt(0)!)).join('');
  const wide = face().measure(drawn);
  if (wide <= 0) return;
  const fits = Math.min(size, (width * 1000) / wide);
  const free = width - (wide * fits) / 1000;
  const from = x + { left: 0, centre: free / 2, right: free }[align];
  ink.ascii(`BT 0 g /${face().resource} ${num(fits)} Tf 1 0 0 1 ${num(from)} ${num(y)} Tm `);
  face().write(ink, drawn);
  ink.ascii(' Tj ET\n');
}
