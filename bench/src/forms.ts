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

/** Four pages with 38 fields each and some thousand lines of drawing a page: text, multi-line, comb, ticks, radios and menus. */
export function denseForm(): Uint8Array {
  const form = new FormWriter('Dense form');
  for (let page = 0; page < 4; page++) {
    form.page().text(56, 50, `A dense form, page ${page + 1}`, { size: 16, bold: true });
    for (let line = 0; line < 1200; line++)
      form.rule(30 + (line % 40) * 13.4, 60 + ((line * 7.31 + page * 3.7) % 760), 9.25, 0.1 + (line % 7) / 20);
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
