import type { Box } from '@mailbag/demo/dist/forms/form-writer.js';
import { FormWriter } from '@mailbag/demo/dist/forms/form-writer.js';

const box = (x: number, y: number, w: number, h = 16): Box => ({ x, y, w, h });

/** One page with 12 fields. */
export function simpleForm(): Uint8Array {
  const form = new FormWriter('Simple form').page().text(56, 70, 'A simple form', { size: 20, bold: true });
  for (let index = 0; index < 10; index++) {
    form.field({ kind: 'text', name: `line${index}`, boxes: [[0, box(56, 110 + index * 34, 300)]] }, `Line ${index + 1}`);
  }
  form.field({ kind: 'tick', name: 'tick0', boxes: [[0, box(56, 470, 12, 12)]] }, 'Tick');
  form.field({ kind: 'menu', name: 'menu0', boxes: [[0, box(120, 466, 160)]], options: MENU }, 'Menu');
  return form.bytes();
}

const MENU: [string, string][] = [
  ['a', 'Alder'],
  ['b', 'Birch'],
  ['c', 'Cherry'],
];

/** Numbers that follow no pattern, the same each time (a linear congruential generator). */
function scatter(): () => number {
  let state = 1;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** Lines of drawing a page: a form with rules and boxes, and one with a plan of the site behind its fields. */
export const LIGHT_ART = 1200;
export const HEAVY_ART = 2200;

/** Four pages with 38 fields each: text, multi-line, comb, ticks and menus. @param lines of drawing a page */
export function denseForm(lines = LIGHT_ART): Uint8Array {
  const random = scatter();
  const form = new FormWriter('Dense form');
  for (let page = 0; page < 4; page++) {
    form.page().text(56, 50, `A dense form, page ${page + 1}`, { size: 16, bold: true });
    for (let line = 0; line < lines; line++) form.rule(20 + random() * 540, 60 + random() * 760, 2 + random() * 20, 0.1 + random() * 0.3);
    for (let index = 0; index < 38; index++) {
      const [x, y] = [56 + (index % 2) * 250, 80 + Math.floor(index / 2) * 38];
      const name = `p${page}.f${index}`;
      if (index % 9 === 8) form.field({ kind: 'tick', name, boxes: [[page, box(x, y, 12, 12)]] }, 'Tick');
      else if (index % 9 === 7) form.field({ kind: 'menu', name, boxes: [[page, box(x, y, 200)]], options: MENU }, 'Menu');
      else if (index % 9 === 6) form.field({ kind: 'text', name, comb: true, maxLength: 12, boxes: [[page, box(x, y, 200)]] }, 'Comb');
      else if (index % 9 === 5) form.field({ kind: 'text', name, multiline: true, size: 7, boxes: [[page, box(x, y, 200, 26)]] }, 'Lines');
      else form.field({ kind: 'text', name, boxes: [[page, box(x, y, 200)]] }, 'Text');
    }
  }
  return form.bytes();
}
