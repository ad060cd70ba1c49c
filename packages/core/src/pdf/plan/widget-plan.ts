import type { PDFDict, PDFRef } from '@cantoo/pdf-lib';
import { PDFDict as Dict, PDFHexString, PDFRef as Ref, PDFStream, PDFString } from '@cantoo/pdf-lib';
import { chromeOf } from '../fill/appearance/chrome.js';
import type { CodedFace, LineMetrics } from '../fill/appearance/coded-face.js';
import type { FontTraits } from '../fill/appearance/nearest-face.js';
import { narrowness, nearestStandardFace, noTraits } from '../fill/appearance/nearest-face.js';
import { drawText, newFaceUse } from '../fill/appearance/draw-text.js';
import { parseDefaultAppearance } from '../fill/appearance/default-appearance.js';
import { stateMark } from '../fill/appearance/mark.js';
import { num } from '../fill/appearance/number.js';
import { lineOf } from '../fill/appearance/own-face.js';
import type { TextBox } from '../fill/appearance/text-layout.js';
import { layoutText, middleLine, reachFits } from '../fill/appearance/text-layout.js';
import { ByteWriter } from '../byte-writer.js';
import { arrayEntry, dictEntry, entry, nameEntry, nameText, numberEntry, numbersOf, rawEntry, textOf } from '../read/document.js';
import type { Field } from '../field.js';
import { inheritedEntry } from '../read/field-tree.js';
import type { RawField, RawWidget } from '../read/field-tree.js';
import { rectOf } from '../read/inspect.js';

/** How one widget is drawn, worked out once a template. */
export interface WidgetPlan {
  field: Field;
  /** 0-based. */
  page: number;
  rect: readonly number[];
  /** In which text is laid out: as wide as it is for letters of full width, before they are squeezed. */
  box: TextBox;
  /** Width of the upright box. */
  width: number;
  /** Operator that makes letters narrower, written after the clip; empty: they keep their width. */
  squeeze: string;
  /** Of its text. */
  colour: string;
  /** Its own face where that is usable, and the standard one nearest to it. */
  coded: readonly [CodedFace, ...CodedFace[]];
  /** Degrees counter-clockwise: 0, 90, 180, 270. */
  rotation: number;
  /** Operators that draw border and background in the upright box, and those that clip to its inside. */
  chrome: string;
  clip: string;
  /** Whether border and background are drawn by the page itself, the same in every copy, and not by `open`. */
  isBaked: boolean;
  /** Baked, upright, and no list: its text can stand in the page's own text object. */
  isFlat: boolean;
  /** What is known beforehand of one line of text with a fixed size at the left; null when the field is another kind. */
  line: { room: number; at: Uint8Array; size: number } | null;
  /** Begins the content of its structure element in a tagged form (ISO 32000-2, 14.6); null: it has none. */
  mark: string | null;
  /** Operators around what is drawn into the page: the turned box with its border and background, the clip, optional content. */
  open: string;
  close: string;
  /** On-value of this button; null for other kinds. */
  onValue: string | null;
  /** Operators on the page for each state of a button. */
  on: string;
  off: string;
  /** Operators in the upright box for each state of a button that has no appearance of its own; null: it has one. */
  bare: { on: string | null; off: string | null };
  /** Operators in the upright box for any other field that has no look of its own and no value: border, background, caption. Null: it has a look. */
  still: string | null;
  /** Operators on the page when no value is given: the look that the template itself has. Null: laid out from the field's own value. */
  untouched: string | null;
}

/** What planning a widget needs to know of its document. */
export interface PlanContext {
  acroForm: PDFDict | undefined;
  /** Gives an appearance stream a resource name on its page. */
  nameAppearance(stream: PDFRef): string;
  /** Gives optional content (ISO 32000-2, 8.11.3.2) a resource name on its page. */
  nameContent(group: PDFRef): string;
  /** The face of a font that the form itself carries; null where it is not usable. */
  ownFace(font: PDFDict, ref: PDFRef | null): CodedFace | null;
}

/** Turns the upright box of a widget into its rectangle, whose lower left corner is the origin. */
export function turnedMatrix(rotation: number, width: number, height: number, left = 0, bottom = 0): string {
  const [l, b, r, t] = [left, bottom, left + width, bottom + height].map(num);
  return { 90: `0 1 -1 0 ${r} ${b}`, 180: `-1 0 0 -1 ${r} ${t}`, 270: `0 -1 1 0 ${l} ${t}` }[rotation] ?? `1 0 0 1 ${l} ${b}`;
}

/** Draws an appearance stream into its rectangle (ISO 32000-2, 12.5.5, algorithm of appearance streams). */
export function drawStream(ref: PDFRef, stream: PDFStream, rect: readonly number[], context: PlanContext): string {
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
  return `q ${num6(sx)} 0 0 ${num6(sy)} ${num(rect[0]! - left * sx)} ${num(rect[1]! - bottom * sy)} cm /${context.nameAppearance(ref)} Do Q\n`;
}

const num6 = (value: number): string => String(Math.round(value * 1e6) / 1e6);

/** The normal appearance of a widget (ISO 32000-2, table 170): `state` chooses one of a button's. Streams are always indirect objects. */
export function appearanceOf(widget: PDFDict, state: string | null): { ref: PDFRef; stream: PDFStream } | null {
  const appearances = dictEntry(widget, 'AP');
  if (!appearances) return null;
  let [raw, normal] = [rawEntry(appearances, 'N'), entry(appearances, 'N')];
  if (normal instanceof Dict) {
    const key = state === null ? undefined : normal.keys().find((one) => nameText(one) === state);
    raw = key && normal.get(key);
    normal = key && normal.lookup(key);
  }
  return normal instanceof PDFStream && raw instanceof Ref ? { ref: raw, stream: normal } : null;
}

/** The font that a DA names, from the form's resources. */
function fontOf(acroForm: PDFDict | undefined, name: string): { dict: PDFDict; ref: PDFRef | null } | null {
  const resources = acroForm && dictEntry(acroForm, 'DR');
  const fonts = resources && dictEntry(resources, 'Font');
  const dict = fonts && dictEntry(fonts, name);
  if (!fonts || !dict) return null;
  const raw = rawEntry(fonts, name);
  return { dict, ref: raw instanceof Ref ? raw : null };
}

function descriptorOf(font: PDFDict | undefined): PDFDict | undefined {
  const descendant = font && arrayEntry(font, 'DescendantFonts')?.lookup(0);
  return font && dictEntry(descendant instanceof Dict ? descendant : font, 'FontDescriptor');
}

/** What the form tells of a font (ISO 32000-2, tables 120 and 122). */
function traitsOf(font: PDFDict | undefined): FontTraits {
  const descriptor = descriptorOf(font);
  if (!descriptor) return noTraits;
  const style = dictEntry(descriptor, 'Style');
  const panose = style && entry(style, 'Panose');
  return {
    flags: numberEntry(descriptor, 'Flags') ?? null,
    weight: numberEntry(descriptor, 'FontWeight') ?? null,
    slant: numberEntry(descriptor, 'ItalicAngle') ?? null,
    // Twelve bytes, of which the first two are the family class (ISO 32000-2, 9.8.3.2).
    panose: panose instanceof PDFString || panose instanceof PDFHexString ? [...panose.asBytes().slice(2)] : [],
    stretch: nameEntry(descriptor, 'FontStretch') ?? null,
    widths: letterWidths(font!),
  };
}

/** Widths that a simple font tells of the letters of Basic Latin, which have the same codes in all usual encodings. */
function letterWidths(font: PDFDict): ReadonlyMap<string, number> {
  const given = numbersOf(arrayEntry(font, 'Widths'));
  const first = numberEntry(font, 'FirstChar') ?? 0;
  const codes = Array.from({ length: 58 }, (_, index) => 65 + index).filter((code) => code <= 90 || code >= 97);
  return new Map(codes.flatMap((code) => (given[code - first] ? [[String.fromCharCode(code), given[code - first]!] as const] : [])));
}

/** The line of the font that a DA names and that is not usable itself: as the form describes it, so that values stand where the form's author saw them. */
function lineFor(font: PDFDict | undefined, standard: CodedFace): LineMetrics {
  const descriptor = descriptorOf(font);
  return descriptor ? lineOf(descriptor) : standard.line;
}

/** The caption of a push button, in the middle of its box. What the standard face lacks is left out. */
function drawCaption(caption: string, box: TextBox, face: CodedFace, colour: string): string {
  const text = Array.from(caption, (char) => (face.has(char.codePointAt(0)!) ? char : '')).join('');
  const layout = layoutText(text, { ...box, quadding: 1, multiline: false, comb: 0 }, { coded: [face], extras: [] });
  const ink = new ByteWriter();
  drawText(ink, layout, colour, newFaceUse());
  return String.fromCharCode(...ink.view());
}

/** Print flag: ISO 32000-2, table 167, bit position 3. */
const isPrinted = (annotFlags: number): boolean => (annotFlags & 4) !== 0;

/** The plan of one widget; null when nothing of it is ever seen. */
export function planWidget(context: PlanContext, raw: RawField, field: Field, widget: RawWidget, index: number): WidgetPlan | null {
  const { acroForm } = context;
  const described = field.widgets[index]!;
  const rect = rectOf(widget.dict);
  if (widget.page < 0 || described.hidden || rect[2] - rect[0] <= 0 || rect[3] - rect[1] <= 0) return null;
  if (field.kind === 'button' && !isPrinted(described.annotFlags)) return null;
  const turned = described.rotation % 180 !== 0;
  const [wide, high] = [rect[2] - rect[0], rect[3] - rect[1]];
  const [width, height] = turned ? [high, wide] : [wide, high];
  const look = dictEntry(widget.dict, 'MK');
  const isButton = field.kind === 'checkbox' || field.kind === 'radio';
  const caption = look && textOf(entry(look, 'CA'));
  /** ZapfDingbats “l” is the filled circle; a radio button without a caption is round. */
  const round = field.kind === 'radio' && (caption === undefined || caption === 'l');
  const comb = field.flags.includes('comb') && field.maxLength && !field.flags.includes('multiline') ? field.maxLength : 0;
  const chrome = chromeOf(widget.dict, width, height, round, comb);
  const appearance = parseDefaultAppearance(
    textOf(entry(widget.dict, 'DA')) ?? textOf(inheritedEntry(raw, 'DA')) ?? textOf(acroForm && entry(acroForm, 'DA')),
  );
  const quadding = entry(widget.dict, 'Q') ?? inheritedEntry(raw, 'Q') ?? (acroForm && entry(acroForm, 'Q'));
  const q = quadding && 'asNumber' in quadding ? (quadding as { asNumber(): number }).asNumber() : 0;
  const needsAppearances = String(acroForm && entry(acroForm, 'NeedAppearances')) === 'true';
  const group = entry(widget.dict, 'OC') && rawEntry(widget.dict, 'OC');
  const [begin, end] = group instanceof Ref ? [`/OC /${context.nameContent(group)} BDC\n`, 'EMC\n'] : ['', ''];
  const onPage = (inner: string): string => (inner ? begin + inner + end : '');
  const drawState = (state: string): string | null => {
    const found = appearanceOf(widget.dict, state);
    return found && onPage(drawStream(found.ref, found.stream, rect, context));
  };
  const open = `${begin}q ${turnedMatrix(described.rotation, wide, high, rect[0], rect[1])} cm\n${chrome.draw}`;
  const onValue = isButton ? (described.onValue ?? 'Yes') : null;
  const state = nameEntry(widget.dict, 'AS');
  const still = appearanceOf(widget.dict, null);
  const inset = chrome.border;
  const font = fontOf(acroForm, appearance.font);
  const own = font && context.ownFace(font.dict, font.ref);
  const fontName = (font && nameEntry(font.dict, 'BaseFont')) ?? appearance.font;
  const traits = traitsOf(font?.dict);
  const standard = nearestStandardFace(fontName, traits);
  const isWritten = field.kind === 'text' || field.kind === 'combo' || field.kind === 'list';
  const squeeze = isWritten ? appearance.scale * (own ? 1 : narrowness(fontName, traits, standard)) : 1;
  const padding = comb > 0 ? 0 : Math.max(2, 2 * chrome.border);
  /** What a producer has drawn of a push button or a signature is kept: only they know its icon. */
  const needsDrawing = needsAppearances && field.kind !== 'button' && field.kind !== 'signature';
  const box: TextBox = {
    width: squeeze === 1 ? width : (width - 2 * padding) / squeeze + 2 * padding,
    height,
    border: chrome.border,
    multiline: field.flags.includes('multiline'),
    comb,
    quadding: q === 1 || q === 2 ? q : 0,
    size: appearance.size,
    line: own?.line ?? lineFor(font?.dict, standard),
  };
  const captionText = field.kind === 'button' && caption ? drawCaption(caption, box, standard, appearance.colour) : '';
  const hasOwnLook = isButton && appearanceOf(widget.dict, onValue) !== null;
  const mark = stateMark({ width, height, border: chrome.border }, field.kind === 'radio', caption || undefined, appearance);
  return {
    field,
    page: widget.page,
    rect,
    box,
    width,
    squeeze: squeeze === 1 ? '' : `${num6(squeeze)} 0 0 1 ${num(padding * (1 - squeeze))} 0 cm\n`,
    colour: appearance.colour,
    coded: own ? [own, standard] : [standard],
    rotation: described.rotation,
    chrome: chrome.draw,
    isBaked: false,
    isFlat: false,
    line: null,
    mark: null,
    clip: `${num(inset)} ${num(inset)} ${num(width - 2 * inset)} ${num(height - 2 * inset)} re W n\n`,
    open: `${open}${num(inset)} ${num(inset)} ${num(width - 2 * inset)} ${num(height - 2 * inset)} re W n\n`,
    close: `Q\n${end}`,
    onValue,
    on: onValue === null ? '' : (drawState(onValue) ?? `${open}${mark}Q\n${end}`),
    off: onValue === null ? '' : (drawState('Off') ?? (hasOwnLook && !needsAppearances ? '' : `${open}Q\n${end}`)),
    bare: {
      on: isButton && !hasOwnLook ? chrome.draw + mark : null,
      off: isButton && drawState('Off') === null && (!hasOwnLook || needsAppearances) ? chrome.draw : null,
    },
    still: isButton || field.kind === 'signature' || (still && !needsDrawing) ? null : chrome.draw + captionText,
    untouched: isButton
      ? state !== undefined
        ? (drawState(state) ?? null)
        : null
      : still && !needsDrawing
        ? onPage(drawStream(still.ref, still.stream, rect, context))
        : field.kind === 'button' || field.kind === 'signature'
          ? `${open}${captionText}Q\n${end}`
          : null,
  };
}

/** Lets the page draw border and background of a widget. @returns the operators for it */
export function bake(plan: WidgetPlan): string {
  const [left = 0, bottom = 0, right = 0, top = 0] = plan.rect;
  const turn = `q ${turnedMatrix(plan.rotation, right - left, top - bottom, left, bottom)} cm\n`;
  plan.isBaked = true;
  plan.isFlat = plan.rotation === 0 && plan.field.kind !== 'list' && plan.squeeze === '';
  plan.open = turn + plan.clip;
  const { box, field } = plan;
  const isLine =
    plan.rotation === 0 &&
    plan.squeeze === '' &&
    (field.kind === 'text' || field.kind === 'combo') &&
    !box.multiline &&
    box.comb === 0 &&
    box.quadding === 0 &&
    box.size > 0;
  if (isLine && !field.format && !field.isPassword) {
    const padding = Math.max(2, 2 * box.border);
    const y = middleLine(box, box.size);
    if (reachFits(box, plan.coded[0].reach, box.size, y))
      plan.line = {
        room: ((box.width - 2 * padding) * 1000) / box.size,
        at: new TextEncoder().encode(`1 0 0 1 ${num(left + padding)} ${num(bottom + y)} Tm\n`),
        size: box.size,
      };
  }
  return plan.chrome ? `${turn}${plan.chrome}Q\n` : '';
}
