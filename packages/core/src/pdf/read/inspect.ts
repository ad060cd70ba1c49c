import { t } from '../../words/words.js';
import type { PDFDict, PDFDocument, PDFPage } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict as Dict, PDFName, PDFStream } from '@cantoo/pdf-lib';
import { isOverBudget } from './decode-budget.js';
import { isStandard } from '../fill/appearance/coded-face.js';
import { parseDefaultAppearance } from '../fill/appearance/default-appearance.js';
import { MailbagError } from '../../errors/catalogue.js';
import {
  arrayEntry,
  dictEntry,
  entry,
  nameEntry,
  nameText,
  numberEntry,
  numbersOf,
  openPdf,
  pageEntry,
  textOf,
  whole,
} from './document.js';
import type { OpenedPdf } from './document.js';
import { nameFields, nameOptions } from './field-labels.js';
import { inheritedEntry, readFieldTree } from './field-tree.js';
import { recogniseCalculation, recogniseFormat } from './scripts/script.js';
import type { FieldTree, RawField, RawWidget } from './field-tree.js';
import type { Field, FieldFlag, FieldKind, FieldOption, FieldWidget, PageSize, TemplateDescription, TemplateNote } from '../field.js';

/** Bit positions of field flags, 1-based: ISO 32000-2, tables 227, 229, 231 and 233. */
const commonFlags: [number, FieldFlag][] = [
  [1, 'readOnly'],
  [2, 'required'],
  [3, 'noExport'],
];
const kindFlags: Record<'Tx' | 'Btn' | 'Ch' | 'Sig', [number, FieldFlag][]> = {
  Tx: [
    [13, 'multiline'],
    [14, 'password'],
    [21, 'fileSelect'],
    [23, 'doNotSpellCheck'],
    [24, 'doNotScroll'],
    [25, 'comb'],
    [26, 'richText'],
  ],
  Btn: [
    [15, 'noToggleToOff'],
    [16, 'radio'],
    [17, 'pushButton'],
    [26, 'radiosInUnison'],
  ],
  Ch: [
    [18, 'combo'],
    [19, 'edit'],
    [20, 'sort'],
    [22, 'multiSelect'],
    [23, 'doNotSpellCheck'],
    [27, 'commitOnSelChange'],
  ],
  Sig: [],
};
const hasBit = (flags: number, position: number): boolean => (flags & (1 << (position - 1))) !== 0;

/** Annotation flags hidden (2) and no view (6): ISO 32000-2, table 167. */
const isHidden = (annotFlags: number): boolean => hasBit(annotFlags, 2) || hasBit(annotFlags, 6);

export const fieldFlagBits = (field: RawField): number => {
  const value = inheritedEntry(field, 'Ff');
  return value && 'asNumber' in value ? (value as { asNumber(): number }).asNumber() | 0 : 0;
};

export function fieldKind(field: RawField): FieldKind | null {
  const type = inheritedEntry(field, 'FT');
  const bits = fieldFlagBits(field);
  switch (type instanceof PDFName ? nameText(type) : '') {
    case 'Tx':
      return 'text';
    case 'Ch':
      return hasBit(bits, 18) ? 'combo' : 'list';
    case 'Btn':
      return hasBit(bits, 17) ? 'button' : hasBit(bits, 16) ? 'radio' : 'checkbox';
    case 'Sig':
      return 'signature';
    default:
      return null;
  }
}

/** The on-value of a tick box or radio button: the name in its normal appearance that is not Off. */
export function onValueOf(widget: RawWidget): string | null {
  const appearance = dictEntry(widget.dict, 'AP');
  const normal = appearance && entry(appearance, 'N');
  if (normal instanceof Dict) {
    for (const key of normal.keys()) if (nameText(key) !== 'Off') return nameText(key);
  }
  const down = appearance && entry(appearance, 'D');
  if (down instanceof Dict) for (const key of down.keys()) if (nameText(key) !== 'Off') return nameText(key);
  const state = nameEntry(widget.dict, 'AS');
  return state && state !== 'Off' ? state : null;
}

function optionsOf(field: RawField): FieldOption[] {
  const array = inheritedEntry(field, 'Opt');
  if (!(array instanceof PDFArray)) return [];
  return Array.from({ length: array.size() }, (_, index) => {
    const option = array.lookup(index);
    if (option instanceof PDFArray) {
      const value = textOf(option.lookup(0)) ?? '';
      return { value, label: textOf(option.lookup(1)) ?? value };
    }
    const value = textOf(option) ?? '';
    return { value, label: value };
  });
}

/** A rectangle with its corners put in order. */
export function rectOf(dict: PDFDict): [number, number, number, number] {
  const [a = 0, b = 0, c = 0, d = 0] = numbersOf(arrayEntry(dict, 'Rect'));
  return [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)];
}

const quarter = (degrees: number): number => (((Math.round(degrees / 90) * 90) % 360) + 360) % 360;

/** Degrees by which a widget that does not say so is turned: as what its producer has drawn for it (ISO 32000-2, 12.5.5, Matrix). */
function drawnRotation(widget: PDFDict): number {
  const looks = dictEntry(widget, 'AP');
  const normal = looks && entry(looks, 'N');
  const first = normal instanceof Dict ? normal.keys().map((key) => normal.lookup(key))[0] : normal;
  if (!(first instanceof PDFStream)) return 0;
  const [a = 1, b = 0, c = 0, d = 1] = numbersOf(arrayEntry(first.dict, 'Matrix'));
  if (Math.abs(a) + Math.abs(d) < 0.01 && b * c < 0) return b > 0 ? 90 : 270;
  return Math.abs(b) + Math.abs(c) < 0.01 && a < 0 && d < 0 ? 180 : 0;
}

/** @param usual on-value of a button to which the file gives none */
function describeWidget(widget: RawWidget, isButton: boolean, usual: string): FieldWidget {
  const look = dictEntry(widget.dict, 'MK');
  const annotFlags = numberEntry(widget.dict, 'F') ?? 0;
  return {
    page: widget.page + 1,
    rect: rectOf(widget.dict),
    rotation: quarter((look && numberEntry(look, 'R')) ?? drawnRotation(widget.dict)),
    annotFlags,
    onValue: isButton ? (onValueOf(widget) ?? usual) : null,
    hasOnValue: isButton && onValueOf(widget) !== null,
    state: nameEntry(widget.dict, 'AS') ?? null,
    hidden: isHidden(annotFlags),
  };
}

function valueOf(field: RawField, key: 'V' | 'DV'): string | string[] | null {
  const value = inheritedEntry(field, key);
  if (value instanceof PDFArray) return Array.from({ length: value.size() }, (_, index) => textOf(value.lookup(index)) ?? '');
  return textOf(value) ?? null;
}

/** The script of a field for a trigger (ISO 32000-2, table 199: K keystroke, F format, V validate, C calculate); '' where there is none. */
function scriptOf(raw: RawField, trigger: 'K' | 'F' | 'V' | 'C'): string {
  for (const dict of [raw.dict, ...raw.widgets.map((widget) => widget.dict)]) {
    const actions = dictEntry(dict, 'AA');
    const action = actions && dictEntry(actions, trigger);
    const script = action && textOf(entry(action, 'JS'));
    if (script) return script;
  }
  return '';
}

/** A field of the file as the rest of Mailbag knows it; null when its kind is none of the standard's. */
export function describeField(raw: RawField): Field | null {
  const kind = fieldKind(raw);
  if (!kind) return null;
  const type = inheritedEntry(raw, 'FT') as PDFName;
  const bits = fieldFlagBits(raw);
  const isButton = kind === 'checkbox' || kind === 'radio';
  // A radio button to which the file gives no on-value is known by its place.
  const widgets = raw.widgets.map((widget, index) => describeWidget(widget, isButton, kind === 'radio' ? String(index) : 'Yes'));
  const onValues = [...new Set(widgets.flatMap((widget) => (widget.onValue === null ? [] : [widget.onValue])))];
  const flags = [...commonFlags, ...kindFlags[nameText(type) as 'Tx']]
    .filter(([position]) => hasBit(bits, position))
    .map(([, flag]) => flag);
  const limit = inheritedEntry(raw, 'MaxLen');
  const maxLength = kind === 'text' && limit && 'asNumber' in limit ? (limit as { asNumber(): number }).asNumber() : null;
  return {
    name: raw.name,
    kind,
    partialName: textOf(entry(raw.dict, 'T')) ?? '',
    label: null,
    tooltip: textOf(entry(raw.dict, 'TU')) ?? null,
    page: widgets.find((widget) => widget.page > 0)?.page ?? 0,
    flags,
    maxLength: maxLength !== null && maxLength > 0 ? maxLength : null,
    options: optionsOf(raw),
    onValues,
    value: kind === 'signature' || kind === 'button' ? null : valueOf(raw, 'V'),
    defaultValue: kind === 'signature' || kind === 'button' ? null : valueOf(raw, 'DV'),
    format: kind === 'text' || kind === 'combo' ? recogniseFormat(scriptOf(raw, 'F')) : null,
    calculation: kind === 'text' ? recogniseCalculation(scriptOf(raw, 'C')) : null,
    isPassword: flags.includes('password'),
    widgets,
  };
}

/** US Letter, for pages that say no size (common practice, no source). */
const USUAL_PAGE = [0, 0, 612, 792];

/** A box of a page, from itself or its tree, with its corners put in order; null when there is none that makes sense. */
function pageBox(page: PDFPage, key: string): { left: number; bottom: number; right: number; top: number } | null {
  const array = pageEntry(page, key);
  const [a = 0, b = 0, c = 0, d = 0] = array instanceof PDFArray ? numbersOf(array) : [];
  const box = { left: Math.min(a, c), bottom: Math.min(b, d), right: Math.max(a, c), top: Math.max(b, d) };
  return box.right > box.left && box.top > box.bottom ? box : null;
}

/** The visible box of a page: CropBox within MediaBox, in the page's own space. */
export function visibleBox(page: PDFPage): { left: number; bottom: number; width: number; height: number } {
  const [l = 0, b = 0, r = 0, t = 0] = USUAL_PAGE;
  const media = pageBox(page, 'MediaBox') ?? { left: l, bottom: b, right: r, top: t };
  const crop = pageBox(page, 'CropBox') ?? media;
  const [left, bottom] = [Math.max(media.left, crop.left), Math.max(media.bottom, crop.bottom)];
  const [width, height] = [Math.min(media.right, crop.right) - left, Math.min(media.top, crop.top) - bottom];
  return width > 0 && height > 0
    ? { left, bottom, width, height }
    : { left: media.left, bottom: media.bottom, width: media.right - media.left, height: media.top - media.bottom };
}

/** Degrees clockwise by which a page is turned: 0, 90, 180, 270. */
export function pageRotation(page: PDFPage): number {
  const value = pageEntry(page, 'Rotate');
  return value && 'asNumber' in value ? quarter((value as { asNumber(): number }).asNumber()) : 0;
}

function pageSize(page: PDFPage): PageSize {
  const box = visibleBox(page);
  const rotation = pageRotation(page);
  const turned = rotation % 180 !== 0;
  return { width: turned ? box.height : box.width, height: turned ? box.width : box.height, rotation, left: box.left, bottom: box.bottom };
}

function hasScripts(doc: PDFDocument): boolean {
  const names = dictEntry(doc.catalog, 'Names');
  if (names && dictEntry(names, 'JavaScript')) return true;
  return doc.context.enumerateIndirectObjects().some(([, object]) => object instanceof Dict && object.has(PDFName.of('JS')));
}

function notesOf(opened: OpenedPdf, tree: FieldTree, fields: Field[]): TemplateNote[] {
  const notes = [...opened.notes];
  if (tree.acroForm && entry(tree.acroForm, 'XFA')) notes.push({ code: 'xfa-dropped', fields: [] });
  const signed = tree.fields.filter((field) => fieldKind(field) === 'signature' && inheritedEntry(field, 'V') instanceof Dict);
  if (signed.length > 0) notes.push({ code: 'signed', fields: signed.map((field) => field.name) });
  if (opened.permissions !== null && !mayFill(opened.permissions)) notes.push({ code: 'filling-forbidden', fields: [] });
  const missing = missingFonts(tree);
  if (missing.length > 0) notes.push({ code: 'fonts-missing', fields: missing });
  const strange = strangeScripts(tree, fields);
  if (strange.length > 0 || hasScripts(opened.doc)) notes.push({ code: 'scripts', fields: strange });
  const known = new Set(fields.map((field) => field.name));
  const stray = tree.strayWidgets.filter((name) => known.has(name));
  if (stray.length > 0) notes.push({ code: 'stray-widgets', fields: stray });
  if (tree.twoKinds.length > 0) notes.push({ code: 'two-kinds', fields: tree.twoKinds });
  return notes;
}

/** Names of fields with a script that is none of those which Mailbag can stand in for. */
function strangeScripts(tree: FieldTree, fields: readonly Field[]): string[] {
  const described = new Map(fields.map((field) => [field.name, field]));
  return tree.fields.flatMap((raw) => {
    const field = described.get(raw.name);
    const isUnknown =
      (scriptOf(raw, 'C') !== '' && !field?.calculation) ||
      (scriptOf(raw, 'F') !== '' && !field?.format) ||
      // What the script API itself offers for keystrokes and for validation goes with the formats.
      [scriptOf(raw, 'K'), scriptOf(raw, 'V')].some(
        (script) => script !== '' && !/^\s*(\/\*[\s\S]*?\*\/\s*)?AF\w+_(Keystroke\w*|Validate)\s*\([^()]*\)[;\s]*$/.test(script),
      );
    return field && isUnknown ? [raw.name] : [];
  });
}

/** Fonts that the DA of text fields names and that neither the form nor Mailbag has. */
function missingFonts(tree: FieldTree): string[] {
  const resources = tree.acroForm && dictEntry(tree.acroForm, 'DR');
  const fonts = resources && dictEntry(resources, 'Font');
  return tree.fields.flatMap((raw) => {
    const kind = fieldKind(raw);
    if (kind !== 'text' && kind !== 'combo' && kind !== 'list') return [];
    const da = textOf(inheritedEntry(raw, 'DA')) ?? textOf(tree.acroForm && entry(tree.acroForm, 'DA'));
    const { font } = parseDefaultAppearance(da);
    const found = fonts && dictEntry(fonts, font);
    const base = found && (nameEntry(found, 'BaseFont') ?? '');
    const isKnown = /^(Helv|HeBo|HeOb|HeBO|TiRo|TiBo|TiIt|TiBI|Cour|CoBo|CoOb|CoBO|ZaDb|Symb)$/.test(font);
    if (!found) return isKnown ? [] : [raw.name];
    if (isStandard(base ?? '') || nameEntry(found, 'Subtype') === 'Type3') return [];
    const descendant = arrayEntry(found, 'DescendantFonts')?.lookup(0);
    const descriptor = dictEntry(descendant instanceof Dict ? descendant : found, 'FontDescriptor');
    return descriptor && ['FontFile', 'FontFile2', 'FontFile3'].some((key) => entry(descriptor, key) !== undefined) ? [] : [raw.name];
  });
}

/** Bits 4, 6 and 9 of P: whether the author's permissions let a form be filled (ISO 32000-2, table 22). */
const mayFill = (permissions: number): boolean => hasBit(permissions, 4) || hasBit(permissions, 6) || hasBit(permissions, 9);

/** Pages of a template. */
const MOST_PAGES = 2000;

/**
 * Describes an opened PDF.
 * @param name gives fields the words of the page; whoever fills needs those of options alone
 * @param mayBeFlat whether a file without fields is described as well
 * @throws MailbagError pdf-no-fields, pdf-xfa-only, pdf-too-many
 */
export function describePdf(
  opened: OpenedPdf,
  file: string,
  name: typeof nameFields | typeof nameOptions = nameOptions,
  mayBeFlat = false,
): TemplateDescription {
  if (opened.doc.getPageCount() > MOST_PAGES) throw new MailbagError('pdf-too-many', { file, limit: MOST_PAGES, what: t`pages` });
  const tree = readFieldTree(opened.doc, file);
  const fields = tree.fields.map(describeField).filter((field) => field !== null);
  const isXfaOnly = fields.length === 0 && tree.acroForm && entry(tree.acroForm, 'XFA') !== undefined;
  if (isXfaOnly) throw new MailbagError('pdf-xfa-only', { file });
  if (fields.length === 0 && !mayBeFlat) throw new MailbagError('pdf-no-fields', { file });
  const named = name(opened.doc, fields);
  const notes = notesOf(opened, tree, fields);
  if (named && named.unread.length > 0) notes.push({ code: 'print-unread', fields: named.unread });
  return { pages: opened.doc.getPages().map(pageSize), fields, notes, ...(named && { answers: named.answers }) };
}

/**
 * Reads a fillable PDF: its pages, its fields with everything inherited resolved, and what is odd about it.
 * @param mayBeFlat whether a file without fields is described as well
 * @throws MailbagError pdf-not-a-pdf, pdf-damaged, pdf-password, pdf-no-fields, pdf-xfa-only, pdf-too-many, pdf-holds-too-much
 */
export async function inspectTemplate(
  bytes: Uint8Array,
  file = 'The file',
  password = '',
  mayBeFlat = false,
): Promise<TemplateDescription> {
  return whole(file, async () => {
    const description = describePdf(await openPdf(bytes, file, password), file, nameFields, mayBeFlat);
    // What could not be read of a page for its size would be mailed all the same.
    if (isOverBudget()) throw new MailbagError('pdf-holds-too-much', { file });
    return description;
  });
}
