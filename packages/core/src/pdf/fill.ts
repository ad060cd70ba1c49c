import { num } from './appearance/number.js';
import { drawText, newFaceUse } from './appearance/draw-text.js';
import type { FaceUse, UsedCode } from './appearance/draw-text.js';
import { layoutText } from './appearance/text-layout.js';
import type { FaceChoice } from './appearance/text-run.js';
import { undrawable } from './appearance/text-run.js';
import type { CompiledTemplate, PagePlan } from './compile.js';
import { fingerprint } from './compile.js';
import type { Field } from './field.js';
import { xrefEntry } from './serialise.js';
import type { FieldValue, FieldValues, Fit } from './value.js';
import type { WidgetPlan } from './widget-plan.js';

/** What is to be known of one value in a copy. `characters`: those that no face can draw. */
export interface FillNote {
  field: string;
  fit: Fit;
  characters: string[];
}

export interface FilledCopy {
  bytes: Uint8Array;
  notes: FillNote[];
}

/** The on-value that a value of a button stands for; null: off. A value which the field does not know is off too. */
export function stateFor(field: Field, value: FieldValue | null): string | null {
  if (value === true) return field.onValues[0] ?? null;
  if (value === false || value === null || Array.isArray(value) || value === '' || value === 'Off') return null;
  if (field.onValues.includes(value)) return value;
  const option = field.options.findIndex((one) => one.value === value || one.label === value);
  return option >= 0 ? (field.onValues[option] ?? null) : null;
}

/** The text shown for a value: an option's display value for its export value. */
function shownText(field: Field, value: FieldValue | null): string {
  const text = Array.isArray(value) ? value.join(', ') : value === null || typeof value === 'boolean' ? '' : value;
  if (field.kind !== 'combo') return text;
  return (field.options.find((option) => option.value === text) ?? field.options.find((option) => option.label === text))?.label ?? text;
}

function worse(a: Fit, b: Fit): Fit {
  return a === 'overflows' || b === 'overflows' ? 'overflows' : a === 'tight' || b === 'tight' ? 'tight' : 'fits';
}

/** Height of a line of a list box over its type size; common practice, no source. */
const LIST_LEADING = 1.25;

function drawList(plan: WidgetPlan, value: FieldValue | null, choice: FaceChoice, use: FaceUse): string {
  const chosen = new Set(Array.isArray(value) ? value : typeof value === 'string' ? [value] : []);
  const size = plan.box.size || 10;
  const lead = size * LIST_LEADING;
  const rows = Math.max(1, Math.floor(plan.box.height / lead));
  const isChosen = (option: { value: string; label: string }): boolean => chosen.has(option.value) || chosen.has(option.label);
  const first = Math.max(0, plan.field.options.findIndex(isChosen));
  const from = first < rows ? 0 : first;
  let out = '';
  plan.field.options.slice(from, from + rows).forEach((option, index) => {
    const bottom = plan.box.height - plan.box.border - (index + 1) * lead;
    if (isChosen(option)) out += `0.6 0.76 0.86 rg 0 ${num(bottom)} ${num(plan.box.width)} ${num(lead)} re f\n`;
    const line = { ...plan.box, height: lead, multiline: false, comb: 0, size, border: 0 };
    const layout = layoutText(option.label, line, choice);
    out += drawText({ ...layout, lines: layout.lines.map((one) => ({ ...one, y: one.y + bottom })) }, plan.appearance.colour, use);
  });
  return out;
}

function drawWidget(
  plan: WidgetPlan,
  value: FieldValue | null,
  compiled: CompiledTemplate,
  use: FaceUse,
  note: (fit: Fit, missing: string[]) => void,
): string {
  const choice: FaceChoice = { standard: plan.standard, extras: compiled.faces };
  if (plan.onValue !== null) return stateFor(plan.field, value) === plan.onValue ? plan.on : plan.off;
  if (plan.field.kind === 'list') return plan.open + drawList(plan, value, choice, use) + plan.close;
  const text = plan.field.flags.includes('password') ? '*'.repeat([...shownText(plan.field, value)].length) : shownText(plan.field, value);
  if (text === '') return plan.open + plan.close;
  const layout = layoutText(text, plan.box, choice);
  note(layout.fit, undrawable(text, choice));
  return plan.open + drawText(layout, plan.appearance.colour, use) + plan.close;
}

function drawPage(page: PagePlan, values: FieldValues, compiled: CompiledTemplate, use: FaceUse, notes: Map<string, FillNote>): string {
  let out = '';
  for (const plan of page.widgets) {
    const given = Object.hasOwn(values, plan.field.name) ? values[plan.field.name]! : undefined;
    if (given === undefined && plan.untouched !== null) {
      out += plan.untouched;
      continue;
    }
    out += drawWidget(plan, given ?? plan.field.value, compiled, use, (fit, missing) => {
      if (fit === 'fits' && missing.length === 0) return;
      const known = notes.get(plan.field.name);
      notes.set(plan.field.name, {
        field: plan.field.name,
        fit: known ? worse(known.fit, fit) : fit,
        characters: [...new Set([...(known?.characters ?? []), ...missing])],
      });
    });
  }
  return out;
}

const hex4 = (value: number): string => value.toString(16).padStart(4, '0');
/** UTF-16BE in hexadecimal, for ToUnicode. */
const utf16 = (text: string): string => Array.from({ length: text.length }, (_, index) => hex4(text.charCodeAt(index))).join('');

/** ToUnicode (ISO 32000-2, 9.10.3): what each character code stands for, at most 100 lines a section. */
function toUnicode(codes: readonly UsedCode[]): string {
  const lines = codes.flatMap(({ text }, index) => (text ? [`<${hex4(index + 1)}><${utf16(text)}>`] : []));
  let body = '';
  for (let from = 0; from < lines.length; from += 100) {
    const part = lines.slice(from, from + 100);
    body += `${part.length} beginbfchar\n${part.join('\n')}\nendbfchar\n`;
  }
  return (
    '/CIDInit/ProcSet findresource begin\n12 dict begin\nbegincmap\n/CIDSystemInfo<</Registry(Adobe)/Ordering(UCS)/Supplement 0>>def\n' +
    `/CMapName/Adobe-Identity-UCS def\n/CMapType 2 def\n1 begincodespacerange\n<0000><ffff>\nendcodespacerange\n${body}endcmap\nCMapName currentdict /CMap defineresource pop\nend\nend`
  );
}

/** Lays out the values without making a copy. Notes only for values that do not simply fit. */
export function measureCopy(compiled: CompiledTemplate, values: FieldValues): FillNote[] {
  const notes = new Map<string, FillNote>();
  const use = newFaceUse();
  for (const page of compiled.pages) drawPage(page, values, compiled, use, notes);
  return [...notes.values()];
}

/**
 * Makes one flattened copy. Fields without a value keep the look they have in the template.
 * The same template and values give the same bytes.
 */
export function fillCopy(compiled: CompiledTemplate, values: FieldValues): FilledCopy {
  const notes = new Map<string, FillNote>();
  const use = newFaceUse();
  const drawn = compiled.pages.map((page) => drawPage(page, values, compiled, use, notes));
  let next = compiled.nextObject;
  let fonts = '';
  for (const [baseFont, key] of use.standard) fonts += `/${key}<</Type/Font/Subtype/Type1/BaseFont/${baseFont}/Encoding/WinAnsiEncoding>>`;
  const objects: string[] = [];
  for (const [index, { codes }] of use.extra) {
    const face = compiled.faces.find((one) => one.index === index)!;
    const [map, descendant, glyphs] = [next++, next++, next++];
    const cmap = toUnicode(codes);
    const glyphMap = `0000${codes.map(({ glyph }) => hex4(glyph)).join('')}>`;
    objects.push(
      `${map} 0 obj\n<</Length ${cmap.length}>>\nstream\n${cmap}\nendstream\nendobj\n`,
      `${descendant} 0 obj\n<</Type/Font/Subtype/CIDFontType2/BaseFont/${face.name}/CIDSystemInfo<</Registry(Adobe)/Ordering(Identity)/Supplement 0>>` +
        `/FontDescriptor ${face.descriptor} 0 R/DW 1000/W[1[${codes.map(({ width }) => width).join(' ')}]]/CIDToGIDMap ${glyphs} 0 R>>\nendobj\n`,
      `${glyphs} 0 obj\n<</Filter/ASCIIHexDecode/Length ${glyphMap.length}>>\nstream\n${glyphMap}\nendstream\nendobj\n`,
    );
    fonts += `/MbX${index}<</Type/Font/Subtype/Type0/BaseFont/${face.name}/Encoding/Identity-H/DescendantFonts[${descendant} 0 R]/ToUnicode ${map} 0 R>>`;
  }
  let out = '';
  const place = (object: string): string => {
    const line = xrefEntry(compiled.base.length + out.length);
    out += object;
    return line;
  };
  let xref = compiled.xref[0];
  compiled.pages.forEach((page, index) => {
    const content = drawn[index]!;
    xref += place(
      `${page.overlay} 0 obj\n<</Type/XObject/Subtype/Form/BBox[${page.bbox}]/Resources<</Font<<${fonts}>>/XObject<<${page.appearances}>>>>/Length ${content.length}>>\nstream\n${content}\nendstream\nendobj\n`,
    );
  });
  xref += compiled.xref[1];
  for (const object of objects) xref += place(object);
  const start = compiled.base.length + out.length;
  out += `xref\n0 ${next}\n${xref}trailer\n<</Size ${next}/Root ${compiled.root} 0 R${compiled.info ? `/Info ${compiled.info} 0 R` : ''}/ID[<${compiled.baseId}><${fingerprint(out)}>]>>\nstartxref\n${start}\n%%EOF\n`;
  const bytes = new Uint8Array(compiled.base.length + out.length);
  bytes.set(compiled.base);
  for (let index = 0, at = compiled.base.length; index < out.length; index++) bytes[at++] = out.charCodeAt(index);
  return { bytes, notes: [...notes.values()] };
}
