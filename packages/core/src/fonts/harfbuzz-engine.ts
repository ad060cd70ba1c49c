import type * as HarfBuzz from 'harfbuzzjs';
import type { FontEngine, ShapingFace } from '../platform/ports.js';

/** Exports of harfbuzz-subset.wasm that are used here. */
interface SubsetExports {
  memory: { buffer: ArrayBuffer };
  malloc(size: number): number;
  free(pointer: number): void;
  hb_blob_create(data: number, length: number, mode: number, user: number, destroy: number): number;
  hb_blob_destroy(blob: number): void;
  hb_blob_get_length(blob: number): number;
  hb_blob_get_data(blob: number, length: number): number;
  hb_face_create(blob: number, index: number): number;
  hb_face_destroy(face: number): void;
  hb_face_reference_blob(face: number): number;
  hb_set_add(set: number, value: number): void;
  hb_set_invert(set: number): void;
  hb_subset_input_create_or_fail(): number;
  hb_subset_input_destroy(input: number): void;
  hb_subset_input_unicode_set(input: number): number;
  hb_subset_input_glyph_set(input: number): number;
  hb_subset_input_set(input: number, kind: number): number;
  hb_subset_input_set_flags(input: number, flags: number): void;
  hb_subset_or_fail(face: number, input: number): number;
}

/** HB_SUBSET_FLAGS_RETAIN_GIDS and HB_SUBSET_FLAGS_NO_HINTING of hb-subset.h. */
const RETAIN_GIDS = 0x2;
const NO_HINTING = 0x1;
/** HB_SUBSET_SETS_DROP_TABLE_TAG of hb-subset.h. */
const DROPPED_TABLES = 3;
/**
 * What an embedded face with a CIDToGIDMap does without (ISO 32000-2, 9.9.1, table 124): the glyphs are shaped before they are written,
 * and codes lead to them by the map.
 */
const NEEDLESS = ['GDEF', 'GPOS', 'GSUB', 'BASE', 'OS/2', 'STAT', 'cmap', 'gasp', 'name', 'post', 'kern'];
const tag = (name: string): number => [...name].reduce((sum, char) => sum * 256 + char.charCodeAt(0), 0);
/** HB_MEMORY_MODE_WRITABLE of hb-blob.h. */
const WRITABLE = 2;

/**
 * The font engine over HarfBuzz's two WebAssembly modules. The host loads them, because each loads files its own way.
 * @param hb the module `harfbuzzjs`
 * @param subsetExports exports of an instance of harfbuzz-subset.wasm
 */
export function harfBuzzEngine(hb: typeof HarfBuzz, subsetExports: unknown): FontEngine {
  const wasm = subsetExports as SubsetExports;
  return {
    openFace(bytes): ShapingFace {
      const copy = new Uint8Array(bytes).buffer;
      const face = new hb.Face(new hb.Blob(copy));
      const font = new hb.Font(face);
      const upem = face.upem;
      font.setScale(upem, upem);
      const covered = new Set<number>(face.collectUnicodes());
      const extents = font.hExtents();
      const inks = new Map<number, { top: number; bottom: number }>();
      return {
        unitsPerEm: upem,
        ascender: extents.ascender,
        descender: extents.descender,
        silent: covered.has(NO_SPACE) ? silentGlyph(hb, font) : undefined,
        covers: (codePoint) => covered.has(codePoint),
        ink(glyph) {
          let ink = inks.get(glyph);
          if (!ink) {
            const box = font.glyphExtents(glyph);
            inks.set(glyph, (ink = box ? { top: box.yBearing, bottom: -(box.yBearing + box.height) } : { top: 0, bottom: 0 }));
          }
          return ink;
        },
        outline: (glyph) => pathOperators(font.glyphToPath(glyph)),
        shape(text, direction) {
          const buffer = new hb.Buffer();
          buffer.addText(text);
          buffer.guessSegmentProperties();
          buffer.setDirection(direction === 'rtl' ? hb.Direction.RTL : hb.Direction.LTR);
          hb.shape(font, buffer);
          const positions = buffer.getGlyphPositions();
          return buffer.getGlyphInfos().map((info, index) => {
            const position = positions[index]!;
            return { glyph: info.codepoint, cluster: info.cluster, advance: position.xAdvance, dx: position.xOffset, dy: position.yOffset };
          });
        },
      };
    },
    subset(bytes, codePoints) {
      const data = wasm.malloc(bytes.length);
      new Uint8Array(wasm.memory.buffer).set(bytes, data);
      const blob = wasm.hb_blob_create(data, bytes.length, WRITABLE, 0, 0);
      const face = wasm.hb_face_create(blob, 0);
      wasm.hb_blob_destroy(blob);
      // The tables for shaping tell which glyphs the characters may turn into; they go in a second round.
      const shapeable = subsetFace(wasm, face, (input) => {
        const set = wasm.hb_subset_input_unicode_set(input);
        for (const codePoint of codePoints) wasm.hb_set_add(set, codePoint);
      });
      const small =
        shapeable &&
        subsetFace(wasm, shapeable, (input) => {
          wasm.hb_set_invert(wasm.hb_subset_input_glyph_set(input));
          const dropped = wasm.hb_subset_input_set(input, DROPPED_TABLES);
          for (const name of NEEDLESS) wasm.hb_set_add(dropped, tag(name));
        });
      try {
        if (small === 0) return bytes;
        const result = wasm.hb_face_reference_blob(small);
        const from = wasm.hb_blob_get_data(result, 0);
        const out = new Uint8Array(wasm.memory.buffer).slice(from, from + wasm.hb_blob_get_length(result));
        wasm.hb_blob_destroy(result);
        return out;
      } finally {
        if (small !== 0) wasm.hb_face_destroy(small);
        if (shapeable !== 0) wasm.hb_face_destroy(shapeable);
        wasm.hb_face_destroy(face);
        wasm.free(data);
      }
    },
  };
}

/** U+200B, ZERO WIDTH SPACE. */
const NO_SPACE = 0x200b;

/** The glyph of the space without width itself, in place of which shaping puts a usual one that does not advance; undefined when it can be seen. */
function silentGlyph(hb: typeof HarfBuzz, font: HarfBuzz.Font): number | undefined {
  const buffer = new hb.Buffer();
  buffer.addText(String.fromCodePoint(NO_SPACE));
  buffer.guessSegmentProperties();
  buffer.setFlags(hb.BufferFlag.PRESERVE_DEFAULT_IGNORABLES);
  hb.shape(font, buffer);
  const [info] = buffer.getGlyphInfos();
  const [position] = buffer.getGlyphPositions();
  return info && position?.xAdvance === 0 && font.glyphToPath(info.codepoint) === '' ? info.codepoint : undefined;
}

/** An SVG path of absolute M, L, Q, C and Z, as HarfBuzz gives it, as operators of PDF, which has cubic curves only. */
function pathOperators(svg: string): string {
  const round = (value: number): number => Math.round(value * 10) / 10;
  let [x, y] = [0, 0];
  let path = '';
  for (const [, command, rest] of svg.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = (rest!.match(/-?[\d.]+/g) ?? []).map(Number);
    const [a = 0, b = 0, c = 0, d = 0] = n;
    if (command === 'Z') path += 'h ';
    else if (command === 'M' || command === 'L') path += `${round(a)} ${round(b)} ${command.toLowerCase()} `;
    else if (command === 'C') path += `${n.map(round).join(' ')} c `;
    else
      path += `${[x + (2 * (a - x)) / 3, y + (2 * (b - y)) / 3, c + (2 * (a - c)) / 3, d + (2 * (b - d)) / 3, c, d].map(round).join(' ')} c `;
    [x, y] = n.length >= 2 ? (n.slice(-2) as [number, number]) : [x, y];
  }
  return path;
}

/** A face cut down as `ask` says, glyph numbers kept; 0: it cannot be. */
function subsetFace(wasm: SubsetExports, face: number, ask: (input: number) => void): number {
  const input = wasm.hb_subset_input_create_or_fail();
  ask(input);
  wasm.hb_subset_input_set_flags(input, RETAIN_GIDS | NO_HINTING);
  const small = wasm.hb_subset_or_fail(face, input);
  wasm.hb_subset_input_destroy(input);
  return small;
}
