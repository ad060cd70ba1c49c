import type { PDFDict, PDFRef } from '@cantoo/pdf-lib';
import { PDFDict as Dict, PDFName, PDFRef as Ref, PDFStream } from '@cantoo/pdf-lib';
import { chromeOf, stateMark } from './appearance/chrome.js';
import type { DefaultAppearance } from './appearance/default-appearance.js';
import { parseDefaultAppearance } from './appearance/default-appearance.js';
import { num } from './appearance/number.js';
import { nearestStandardFace } from './appearance/standard-face.js';
import type { StandardFace } from './appearance/standard-face.js';
import type { TextBox } from './appearance/text-layout.js';
import { arrayEntry, dictEntry, entry, nameEntry, nameText, numbersOf, textOf } from './document.js';
import type { Field } from './field.js';
import { inheritedEntry } from './field-tree.js';
import type { RawField, RawWidget } from './field-tree.js';
import { onValueOf, rectOf } from './inspect.js';

/** How one widget is drawn, worked out once a template. */
export interface WidgetPlan {
  field: Field;
  /** 0-based. */
  page: number;
  box: TextBox;
  appearance: DefaultAppearance;
  standard: StandardFace;
  /** Operators before a value: the turned box, border and background, the clip. */
  open: string;
  close: string;
  /** On-value of this button; null for other kinds. */
  onValue: string | null;
  /** Operators for each state of a button. */
  on: string;
  off: string;
  /** Operators when no value is given: the look that the template itself has. Null: laid out from the field's own value. */
  untouched: string | null;
}

/** Gives an appearance stream a resource name on its page. */
export type NameAppearance = (stream: PDFRef) => string;

const rotationMatrix = (rotation: number, [left, bottom, right, top]: readonly number[]): string => {
  const [l, b, r, t] = [left!, bottom!, right!, top!].map(num);
  return { 90: `0 1 -1 0 ${r} ${b}`, 180: `-1 0 0 -1 ${r} ${t}`, 270: `0 -1 1 0 ${l} ${t}` }[rotation] ?? `1 0 0 1 ${l} ${b}`;
};

/** Draws an appearance stream into its rectangle (ISO 32000-2, 12.5.5, algorithm of appearance streams). */
function drawStream(ref: PDFRef, stream: PDFStream, rect: readonly number[], nameOf: NameAppearance): string {
  const [x0 = 0, y0 = 0, x1 = 0, y1 = 0] = numbersOf(arrayEntry(stream.dict, 'BBox'));
  const given = numbersOf(arrayEntry(stream.dict, 'Matrix'));
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = given.length === 6 ? given : [];
  const corners = [
    [x0, y0],
    [x1, y0],
    [x0, y1],
    [x1, y1],
  ].map(([x, y]) => [a * x! + c * y! + e, b * x! + d * y! + f] as const);
  const left = Math.min(...corners.map(([x]) => x));
  const right = Math.max(...corners.map(([x]) => x));
  const bottom = Math.min(...corners.map(([, y]) => y));
  const top = Math.max(...corners.map(([, y]) => y));
  if (right - left <= 0 || top - bottom <= 0) return '';
  const sx = (rect[2]! - rect[0]!) / (right - left);
  const sy = (rect[3]! - rect[1]!) / (top - bottom);
  return `q ${num6(sx)} 0 0 ${num6(sy)} ${num(rect[0]! - left * sx)} ${num(rect[1]! - bottom * sy)} cm /${nameOf(ref)} Do Q\n`;
}

const num6 = (value: number): string => String(Math.round(value * 1e6) / 1e6);

function appearanceOf(widget: PDFDict, state: string | null): { ref: PDFRef; stream: PDFStream } | null {
  const appearances = dictEntry(widget, 'AP');
  if (!appearances) return null;
  let raw = appearances.get(PDFName.of('N'));
  let normal = entry(appearances, 'N');
  if (normal instanceof Dict && state !== null) {
    const key = normal.keys().find((one) => nameText(one) === state);
    raw = key && normal.get(key);
    normal = key && normal.lookup(key);
  }
  return normal instanceof PDFStream && raw instanceof Ref ? { ref: raw, stream: normal } : null;
}

function fontNameOf(acroForm: PDFDict | undefined, resourceName: string): string {
  const resources = acroForm && dictEntry(acroForm, 'DR');
  const fonts = resources && dictEntry(resources, 'Font');
  const font = fonts && dictEntry(fonts, resourceName);
  return (font && nameEntry(font, 'BaseFont')) ?? resourceName;
}

/** Print flag: ISO 32000-2, table 167, bit position 3. */
const isPrinted = (annotFlags: number): boolean => (annotFlags & 4) !== 0;

/** The plan of one widget; null when nothing of it is ever seen. */
export function planWidget(
  acroForm: PDFDict | undefined,
  raw: RawField,
  field: Field,
  widget: RawWidget,
  index: number,
  nameOf: NameAppearance,
): WidgetPlan | null {
  const described = field.widgets[index]!;
  const rect = rectOf(widget.dict);
  if (widget.page < 0 || described.hidden || rect[2] - rect[0] <= 0 || rect[3] - rect[1] <= 0) return null;
  if (field.kind === 'button' && !isPrinted(described.annotFlags)) return null;
  const turned = described.rotation % 180 !== 0;
  const width = turned ? rect[3] - rect[1] : rect[2] - rect[0];
  const height = turned ? rect[2] - rect[0] : rect[3] - rect[1];
  const look = dictEntry(widget.dict, 'MK');
  const isButton = field.kind === 'checkbox' || field.kind === 'radio';
  const caption = look && textOf(entry(look, 'CA'));
  /** ZapfDingbats “l” is the filled circle; a radio button without a caption is round. */
  const round = field.kind === 'radio' && (caption === undefined || caption === 'l');
  const chrome = chromeOf(widget.dict, width, height, round);
  const matrix = rotationMatrix(described.rotation, rect);
  const appearance = parseDefaultAppearance(
    textOf(entry(widget.dict, 'DA')) ?? textOf(inheritedEntry(raw, 'DA')) ?? textOf(acroForm && entry(acroForm, 'DA')),
  );
  const quadding = inheritedEntry(raw, 'Q') ?? (acroForm && entry(acroForm, 'Q'));
  const q = quadding && 'asNumber' in quadding ? (quadding as { asNumber(): number }).asNumber() : 0;
  const needsAppearances = String(acroForm && entry(acroForm, 'NeedAppearances')) === 'true';
  const drawState = (state: string): string | null => {
    const found = appearanceOf(widget.dict, state);
    return found && drawStream(found.ref, found.stream, rect, nameOf);
  };
  const framed = (inner: string): string => `q ${matrix} cm\n${chrome.draw}${inner}Q\n`;
  const onValue = isButton ? (onValueOf(widget) ?? field.onValues[0] ?? 'Yes') : null;
  const state = nameEntry(widget.dict, 'AS');
  const still = appearanceOf(widget.dict, null);
  const inset = chrome.border;
  return {
    field,
    page: widget.page,
    box: {
      width,
      height,
      border: chrome.border,
      multiline: field.flags.includes('multiline'),
      comb: field.flags.includes('comb') && field.maxLength && !field.flags.includes('multiline') ? field.maxLength : 0,
      quadding: q === 1 || q === 2 ? q : 0,
      size: appearance.size,
    },
    appearance,
    standard: nearestStandardFace(fontNameOf(acroForm, appearance.font)),
    open: `q ${matrix} cm\n${chrome.draw}${num(inset)} ${num(inset)} ${num(width - 2 * inset)} ${num(height - 2 * inset)} re W n\n`,
    close: 'Q\n',
    onValue,
    on: onValue === null ? '' : (drawState(onValue) ?? framed(stateMark(width, height, round))),
    off: onValue === null ? '' : (drawState('Off') ?? (appearanceOf(widget.dict, onValue) ? '' : framed(''))),
    untouched: isButton
      ? state !== undefined
        ? (drawState(state) ?? null)
        : null
      : still && (!needsAppearances || field.kind === 'button' || field.kind === 'signature')
        ? drawStream(still.ref, still.stream, rect, nameOf)
        : field.kind === 'button' || field.kind === 'signature'
          ? framed('')
          : null,
  };
}
