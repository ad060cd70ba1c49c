import { t } from '../../words/words.js';
import type { CheckKind } from '../check.js';
import { aboutValue, columnsWith } from '../check.js';

/** Values that must be there before a shape can stand out, and the share that the usual shapes have. */
const FEWEST = 20;
const USUAL = 0.95;
const RARE = 0.01;

/** The shape of a value: runs of letters as A, runs of digits as 9, everything else as it stands. */
export const shapeOf = (text: string): string =>
  text
    .trim()
    .replace(/\p{L}+/gu, 'A')
    .replace(/\d+/g, '9')
    .replace(/\s+/g, ' ');

/** Values of codes and numbers that are made up otherwise than those around them. */
export const shape: CheckKind = {
  order: 160,
  column: {
    switch: 'shape',
    says: t`looks like its neighbours`,
    proposed: ({ kind }) => kind === 'phone' || kind === 'postal-code' || kind === 'key',
  },
  findings: {
    'odd-shape': {
      title: t`Looks unlike its neighbours`,
      sentence: ({ value, details }) => t`“${value}” is written differently from the others, such as “${details.why}”.`,
    },
  },
  begin: (setup) => {
    const watched = columnsWith(setup, 'shape').map(({ column }) => ({
      column: column.name,
      filled: 0,
      shapes: new Map<string, { count: number; example: string; places: { row: number; value: string }[] }>(),
    }));
    if (watched.length === 0) return null;
    return {
      compares: watched.map(({ column }) => column),
      see({ row }) {
        for (const one of watched) {
          const { text } = row.cell(one.column);
          if (text.trim() === '') continue;
          one.filled++;
          const found = shapeOf(text);
          const known = one.shapes.get(found);
          if (!known) one.shapes.set(found, { count: 1, example: text.trim(), places: [{ row: row.row, value: text }] });
          else if (++known.count <= 100) known.places.push({ row: row.row, value: text });
        }
      },
      end(say) {
        for (const { column, filled, shapes } of watched) {
          if (filled < FEWEST) continue;
          const all = [...shapes.entries()].sort((a, b) => b[1].count - a[1].count);
          const usual = all.filter(([, { count }]) => count > filled * RARE);
          // Free text has digits nowhere in particular and no usual shape.
          if (!usual.every(([found]) => found.includes('9')) || usual.reduce((sum, [, { count }]) => sum + count, 0) < filled * USUAL)
            continue;
          for (const [, { count, places }] of all) {
            if (count > filled * RARE) continue;
            for (const { row, value } of places)
              say({ ...aboutValue(row, column, value), code: 'odd-shape', severity: 'look', details: { why: usual[0]![1].example } });
          }
        }
      },
    };
  },
};
