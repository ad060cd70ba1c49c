import { num } from './number.js';
import type { TextLayout } from './text-layout.js';
import type { ExtraFace, TextRun } from './text-run.js';

/** A character code of a copy: the glyph it draws, the text it stands for, its width of 1000 to the em. */
export interface UsedCode {
  glyph: number;
  text: string;
  width: number;
}

/**
 * What one copy uses of the faces: standard fonts by name, bundled ones with character codes of their own. One glyph can stand for
 * several texts (a dotless Arabic base, for example), so each pair of glyph and text has its code, counted from 1.
 */
export interface FaceUse {
  standard: Map<string, string>;
  extra: Map<number, { extra: ExtraFace; codes: UsedCode[]; byKey: Map<string, number> }>;
}

export const newFaceUse = (): FaceUse => ({ standard: new Map(), extra: new Map() });

const escaped: string[] = Array.from({ length: 256 }, (_, code) => {
  if (code === 0x28 || code === 0x29 || code === 0x5c) return `\\${String.fromCharCode(code)}`;
  return code < 32 || code > 126 ? `\\${code.toString(8).padStart(3, '0')}` : String.fromCharCode(code);
});

const hex4 = (value: number): string => value.toString(16).padStart(4, '0');

/** Characters (UTF-16) that one cluster stands for. */
function clusterText(run: Extract<TextRun, { kind: 'extra' }>, cluster: number, starts: readonly number[]): string {
  const next = starts.find((start) => start > cluster) ?? run.text.length;
  return run.text.slice(cluster, next);
}

function drawExtra(run: Extract<TextRun, { kind: 'extra' }>, size: number, x: number, y: number, use: FaceUse): string {
  const key = run.extra.index;
  let used = use.extra.get(key);
  if (!used) use.extra.set(key, (used = { extra: run.extra, codes: [], byKey: new Map() }));
  const { codes, byKey } = used;
  const codeFor = (glyph: number, text: string, width: number): number => {
    const name = `${glyph} ${text}`;
    let code = byKey.get(name);
    if (code === undefined) {
      code = codes.push({ glyph, text, width });
      byKey.set(name, code);
    }
    return code;
  };
  const scale = 1000 / run.extra.face.unitsPerEm;
  const starts = [...new Set(run.glyphs.map((glyph) => glyph.cluster))].sort((a, b) => a - b);
  const told = new Set<number>();
  // Of the glyphs of one cluster the one that advances tells the text.
  const tellers = new Map<number, number>();
  run.glyphs.forEach((glyph, index) => {
    const known = tellers.get(glyph.cluster);
    if (known === undefined || (run.glyphs[known]!.advance === 0 && glyph.advance > 0)) tellers.set(glyph.cluster, index);
  });
  let out = `/MbX${key} ${num(size)} Tf\n[`;
  let marks = '';
  let at = 0;
  let drawn = 0;
  run.glyphs.forEach((glyph, index) => {
    const isTeller = tellers.get(glyph.cluster) === index && !told.has(glyph.cluster);
    const text = isTeller ? clusterText(run, glyph.cluster, starts) : '';
    if (isTeller) told.add(glyph.cluster);
    const width = Math.round(glyph.advance * scale);
    const code = codeFor(glyph.glyph, text, width);
    const place = at + glyph.dx * scale;
    if (glyph.dy !== 0 || (text === '' && glyph.advance === 0)) {
      // Marks are drawn after the run, so that its text comes out in one piece.
      marks += `1 0 0 1 ${num(x + (place * size) / 1000)} ${num(y + (glyph.dy * scale * size) / 1000)} Tm\n<${hex4(code)}> Tj\n`;
    } else {
      const gap = place - drawn;
      if (Math.abs(gap) > 0.5) out += num(-gap);
      out += `<${hex4(code)}>`;
      drawn = (Math.abs(gap) > 0.5 ? place : drawn) + codes[code - 1]!.width;
    }
    at += glyph.advance * scale;
  });
  return `${out}] TJ\n${marks}`;
}

/** Text operators of a layout, without BT and ET. Positions are absolute within the box. */
export function drawText(layout: TextLayout, colour: string, use: FaceUse): string {
  let out = `BT\n${colour}\n`;
  for (const line of layout.lines) {
    let x = line.x;
    for (const run of line.runs) {
      out += `1 0 0 1 ${num(x)} ${num(line.y)} Tm\n`;
      if (run.kind === 'standard') {
        let key = use.standard.get(run.face.baseFont);
        if (!key) use.standard.set(run.face.baseFont, (key = `MbS${use.standard.size}`));
        let shown = '';
        for (const code of run.codes) shown += escaped[code];
        out += `/${key} ${num(layout.size)} Tf\n(${shown}) Tj\n`;
      } else out += drawExtra(run, layout.size, x, line.y, use);
      x += (run.width * layout.size) / 1000;
    }
  }
  return `${out}ET\n`;
}
