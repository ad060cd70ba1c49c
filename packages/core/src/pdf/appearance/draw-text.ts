import { num } from './number.js';
import type { TextLayout } from './text-layout.js';
import type { ExtraFace, TextRun } from './text-run.js';

/** What one copy uses of the faces: standard fonts by name, bundled ones with the glyphs drawn and the text they stand for. */
export interface FaceUse {
  standard: Map<string, string>;
  extra: Map<number, { extra: ExtraFace; glyphs: Map<number, { text: string; width: number }> }>;
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

function drawExtra(run: Extract<TextRun, { kind: 'extra' }>, size: number, use: FaceUse): string {
  const key = run.extra.index;
  let used = use.extra.get(key);
  if (!used) use.extra.set(key, (used = { extra: run.extra, glyphs: new Map() }));
  const scale = 1000 / run.extra.face.unitsPerEm;
  const starts = [...new Set(run.glyphs.map((glyph) => glyph.cluster))].sort((a, b) => a - b);
  const told = new Set<number>();
  let out = `/MbX${key} ${num(size)} Tf\n[`;
  let carried = 0;
  let rise = 0;
  for (const glyph of run.glyphs) {
    const text = told.has(glyph.cluster) ? '' : clusterText(run, glyph.cluster, starts);
    told.add(glyph.cluster);
    const width = Math.round(glyph.advance * scale);
    if (!used.glyphs.has(glyph.glyph) || (text && !used.glyphs.get(glyph.glyph)!.text)) used.glyphs.set(glyph.glyph, { text, width });
    const declared = used.glyphs.get(glyph.glyph)!.width;
    if (glyph.dy !== rise) {
      out += `] TJ ${num((glyph.dy * scale * size) / 1000)} Ts [`;
      rise = glyph.dy;
    }
    const before = carried + glyph.dx * scale;
    if (Math.abs(before) > 0.5) out += num(-before);
    out += `<${hex4(glyph.glyph)}>`;
    carried = glyph.advance * scale - declared - glyph.dx * scale;
  }
  return `${out}] TJ\n${rise !== 0 ? '0 Ts\n' : ''}`;
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
      } else out += drawExtra(run, layout.size, use);
      x += (run.width * layout.size) / 1000;
    }
  }
  return `${out}ET\n`;
}
