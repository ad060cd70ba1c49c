import type { FaceUse } from './appearance/draw-text.js';
import { TextObject, drawText, newFaceUse } from './appearance/draw-text.js';
import { num } from './appearance/number.js';
import type { FitRule, TextLayout } from './appearance/text-layout.js';
import { fittingBlock, fittingComb, layoutText, usualFit } from './appearance/text-layout.js';
import type { FaceChoice } from './appearance/text-run.js';
import { undrawable } from './appearance/text-run.js';
import type { CompiledTemplate, PagePlan } from './compile.js';
import { compositeFont, descendantFont, glyphMap, toUnicode, utf16 } from './composite-font.js';
import { ByteWriter } from './byte-writer.js';
import type { TailObject } from './copy-file.js';
import { FilledCopy } from './copy-file.js';
import type { Field } from './field.js';
import type { HolderPlan } from './form-plan.js';
import type { ImageData } from './image.js';
import { placeImage, readImage } from './image.js';
import { protectedFile } from './protect/protected-file.js';
import type { Protection } from './protect/protection.js';
import { calculate } from './scripts/calculation.js';
import { applyFormat } from './scripts/script.js';
import { hexOf } from './hex.js';
import { drawStamp } from './stamp/stamp.js';
import type { FieldValue, FieldValues, Fit } from './value.js';
import type { WidgetPlan } from './widget-plan.js';

/** What is to be known of one value in a copy. `characters`: those that no face can draw. */
export interface FillNote {
  field: string;
  fit: Fit;
  characters: string[];
}

export interface FillOptions {
  /** What is done with text that does not fit; shrunk to 5 points where nothing is said. */
  fit?: FitRule;
  /** Copy code for the stamps of the compiled template. */
  code?: string;
  /** Passwords, and what tells this copy apart from others with the same. */
  protect?: { protection: Protection; copy: string };
  /** PNG or JPEG files by field, drawn into the field's boxes with their aspect kept. */
  images?: Readonly<Record<string, Uint8Array>>;
}

/** The on-value that a value of a button stands for; null: off. A value which the field does not know is off too. */
export function stateFor(field: Field, value: FieldValue | null): string | null {
  if (value === true) return field.onValues[0] ?? null;
  if (value === false || value === null || Array.isArray(value) || value === '' || value === 'Off') return null;
  if (field.onValues.includes(value)) return value;
  const option = field.options.findIndex((one) => one.value === value || one.label === value);
  return option >= 0 ? (field.widgets[option]?.onValue ?? field.onValues[option] ?? null) : null;
}

const optionOf = (field: Field, text: string) =>
  field.options.find((option) => option.value === text) ?? field.options.find((option) => option.label === text);

/** The text shown for a value: an option's display value for its export value. */
function shownText(field: Field, value: FieldValue | null): string {
  const text = Array.isArray(value) ? value.join(', ') : value === null || typeof value === 'boolean' ? '' : value;
  if (field.kind === 'text') return field.isPassword ? '*'.repeat([...text].length) : field.format ? applyFormat(field.format, text) : text;
  const shown = optionOf(field, text)?.label ?? text;
  return field.format ? applyFormat(field.format, shown) : shown;
}

/** The value of a field; undefined where there is none. What every object has from its prototype is none. */
function valueIn(values: FieldValues, name: string): FieldValue | undefined {
  const value = values[name];
  return typeof value === 'string' || typeof value === 'boolean' || Array.isArray(value) ? value : undefined;
}

/** Height of a line of a list box over its type size; common practice, no source. */
const LIST_LEADING = 1.25;

/** What a copy draws is written here, one copy after the other. */
const ink = new ByteWriter();
const wordInk = new ByteWriter();

/** The faces of each widget, the same object in every copy and for all widgets with the same, since words are remembered by it. */
const choices = new WeakMap<WidgetPlan, FaceChoice>();
const choicesOf = new WeakMap<CompiledTemplate['faces'], Map<string, FaceChoice>>();

function choiceFor({ coded }: WidgetPlan, extras: CompiledTemplate['faces']): FaceChoice {
  let shared = choicesOf.get(extras);
  if (!shared) choicesOf.set(extras, (shared = new Map()));
  const key = coded.map(({ resource }) => resource).join(' ');
  let choice = shared.get(key);
  if (!choice) shared.set(key, (choice = { coded, extras }));
  return choice;
}

/** Everything that is drawn for one copy. */
class Drawing {
  readonly ink = ink.clear();
  readonly use: FaceUse = newFaceUse();
  private noted: Map<string, FillNote> | null = null;
  readonly images: { name: string; image: ImageData }[] = [];
  private readonly imageOf = new Map<string, { name: string; image: ImageData }>();
  private readonly fit: FitRule;

  constructor(
    private readonly compiled: CompiledTemplate,
    readonly options: FillOptions,
  ) {
    this.fit = options.fit ?? usualFit;
  }
  get notes(): FillNote[] {
    return this.noted ? [...this.noted.values()] : [];
  }

  private choice(plan: WidgetPlan): FaceChoice {
    const known = choices.get(plan);
    if (known && known.extras === this.compiled.faces) return known;
    const choice = choiceFor(plan, this.compiled.faces);
    choices.set(plan, choice);
    return choice;
  }
  private note(field: string, fit: Fit, missing: string[]): void {
    this.noted ??= new Map();
    const known = this.noted.get(field);
    const fits: Fit[] = ['fits', 'tight', 'overflows'];
    this.noted.set(field, {
      field,
      fit: known && fits.indexOf(known.fit) > fits.indexOf(fit) ? known.fit : fit,
      characters: [...new Set([...(known?.characters ?? []), ...missing])],
    });
  }
  private list(plan: WidgetPlan, value: FieldValue | null): void {
    const chosen = new Set(Array.isArray(value) ? value : typeof value === 'string' ? [value] : []);
    const size = plan.box.size || 10;
    const lead = size * LIST_LEADING;
    const rows = Math.max(1, Math.floor((plan.box.height - 2 * plan.box.border) / lead));
    const isChosen = (option: { value: string; label: string }): boolean => chosen.has(option.value) || chosen.has(option.label);
    const first = Math.max(0, plan.field.options.findIndex(isChosen));
    const from = first < rows ? 0 : first;
    plan.field.options.slice(from, from + rows).forEach((option, index) => {
      const bottom = plan.box.height - plan.box.border - (index + 1) * lead;
      if (isChosen(option)) this.ink.ascii(`0.6 0.76 0.86 rg 0 ${num(bottom)} ${num(plan.box.width)} ${num(lead)} re f\n`);
      const line = { ...plan.box, height: lead, multiline: false, comb: 0, size, border: 0 };
      const layout = layoutText(option.label, line, this.choice(plan), this.fit);
      drawText(this.ink, { ...layout, lines: layout.lines.map((one) => ({ ...one, y: one.y + bottom })) }, plan.colour, this.use);
    });
  }
  /** Draws a text or choice field in its upright box. */
  text(plan: WidgetPlan, value: FieldValue | null): void {
    if (plan.field.kind === 'list') return this.list(plan, value);
    const layout = this.layout(plan, value);
    if (layout) drawText(this.ink, layout, plan.colour, this.use);
  }
  /** Null: nothing is to be drawn. */
  private layout(plan: WidgetPlan, value: FieldValue | null): TextLayout | null {
    const text = shownText(plan.field, value);
    if (text === '') return null;
    const choice = this.choice(plan);
    const layout = layoutText(text, plan.box, choice, this.fit);
    // One line with as many characters as the value has left none out.
    const drawn = layout.lines.length === 1 ? layout.lines[0]!.runs.reduce((sum, run) => sum + run.text.length, 0) : -1;
    const missing = drawn === text.length ? [] : undrawable(text, choice);
    if (layout.fit !== 'fits' || missing.length > 0) this.note(plan.field.name, layout.fit, missing);
    return layout;
  }
  hasImage(plan: WidgetPlan): boolean {
    return this.options.images !== undefined && Object.hasOwn(this.options.images, plan.field.name);
  }
  /** @throws MailbagError image-unreadable */
  image(plan: WidgetPlan): void {
    const { name: field } = plan.field;
    let known = this.imageOf.get(field);
    if (!known) {
      this.imageOf.set(field, (known = { name: `MbI${this.images.length}`, image: readImage(this.options.images![field]!, field) }));
      this.images.push(known);
    }
    const { x, y, width, height } = placeImage(known.image, plan.box);
    this.ink.ascii(`q ${num(width)} 0 0 ${num(height)} ${num(x)} ${num(y)} cm /${known.name} Do Q\n`);
  }
  private slow(plan: WidgetPlan, value: FieldValue | null, words: TextObject): void {
    const { ink } = this;
    const layout = plan.isFlat ? this.layout(plan, value) : null;
    if (plan.isFlat && layout?.fit !== 'overflows') {
      if (layout) words.layout(layout, plan.colour, plan.rect[0]!, plan.rect[1]!);
      return;
    }
    ink.ascii(plan.open);
    if (layout) drawText(ink, layout, plan.colour, this.use);
    else this.text(plan, value);
    ink.ascii(plan.close);
  }
  /** The quick ways for values that fit, drawn in the first face and without a state of their own. @returns whether one of them went */
  private quick(plan: WidgetPlan, text: string, words: TextObject): boolean {
    const { line, box, coded, colour, field } = plan;
    const face = coded[0];
    if (line === null && (field.format !== null || field.isPassword || field.kind !== 'text' || (box.comb === 0 && !box.multiline)))
      return false;
    if (line !== null) return text === '' || words.line(face, line.size, colour, line.at, text, line.room);
    if (face.load(text) < 0) return false;
    const [left = 0, bottom = 0] = plan.rect;
    if (box.comb > 0) {
      const comb = fittingComb(text, box, face, this.fit);
      if (comb)
        words.cells(face, comb.size, colour, text.length, { left, y: bottom + comb.y, cell: box.width / box.comb, first: comb.first });
      return comb !== null;
    }
    const block = fittingBlock(box, face);
    if (block) words.block(face, block, colour, box, left, bottom);
    return block !== null;
  }
  /** What a page's overlay draws: first what needs a state of its own, then all other text as one object. */
  page(page: PagePlan, values: FieldValues): void {
    const { ink } = this;
    const words = new TextObject(wordInk.clear(), this.use);
    for (const plan of page.widgets) {
      if (this.options.images !== undefined && this.hasImage(plan)) {
        ink.ascii(plan.open);
        this.image(plan);
        ink.ascii(plan.close);
        continue;
      }
      const given = valueIn(values, plan.field.name);
      const value = given === undefined ? plan.field.value : given;
      if (given === undefined && plan.untouched !== null) ink.ascii(plan.untouched);
      else if (plan.onValue !== null) ink.ascii(stateFor(plan.field, value) === plan.onValue ? plan.on : plan.off);
      else if (
        !plan.isFlat ||
        typeof value !== 'string' ||
        !this.quick(plan, plan.field.kind === 'combo' ? shownText(plan.field, value) : value, words)
      )
        this.slow(plan, value, words);
    }
    words.done();
    ink.bytes(wordInk.view());
    if (page.stamps.length > 0 && this.options.code) {
      ink.ascii(`q ${page.seen.matrix} cm\n`);
      for (const stamp of page.stamps) ink.ascii(drawStamp(stamp, this.options.code));
      ink.ascii('Q\n');
    }
  }
}

/**
 * A text string (ISO 32000-2, 7.9.2.2) in hexadecimal: plain ASCII as it is, everything else as UTF-16BE. There the escape character begins
 * the name of a language, and readers leave out what follows it; without it the rest stays whole.
 */
export const textString = (text: string): string =>
  /^[\u0020-\u007e\t\r\n]*$/.test(text)
    ? `<${hexOf(Uint8Array.from(text, (char) => char.charCodeAt(0)))}>`
    : `<feff${utf16(text.replaceAll('\u001b', ''))}>`;
const utf8 = new TextEncoder();
/** A name (ISO 32000-2, 7.3.5): bytes of UTF-8, those which are no regular characters escaped. */
const nameObject = (text: string): string =>
  `/${Array.from(utf8.encode(text), (byte) => (/[A-Za-z0-9_.+:@*-]/.test(String.fromCharCode(byte)) ? String.fromCharCode(byte) : `#${byte.toString(16).padStart(2, '0')}`)).join('')}`;

/** Fonts and images that one copy brings along, as objects and as entries of resources. */
function ownResources(
  compiled: CompiledTemplate,
  drawing: Drawing,
  from: number,
): { objects: TailObject[]; fonts: string; images: string } {
  const objects: TailObject[] = [];
  const add = (dict: string, stream: TailObject['stream'] = null): number => {
    const number = from + objects.length;
    objects.push({ number, dict, stream });
    return number;
  };
  let fonts = compiled.fonts;
  for (const [index, { table }] of drawing.use) {
    const face = compiled.faces.find((one) => one.index === index)!;
    const map = add('<<', toUnicode(table.codes));
    const descendant = add(descendantFont(face, table.codes, from + objects.length + 1));
    add('<</Filter/ASCIIHexDecode', `${glyphMap(table.codes)}>`);
    fonts += `/MbY${index} ${compositeFont(face, descendant, map)}`;
  }
  let images = '';
  for (const { name, image } of drawing.images) {
    const size = `/Type/XObject/Subtype/Image/Width ${image.width}/Height ${image.height}`;
    const mask = image.mask ? `/SMask ${add(`<<${size}/ColorSpace/DeviceGray/BitsPerComponent 8`, image.mask)} 0 R` : '';
    images += `/${name} ${add(`<<${size}${image.entries}${mask}`, image.bytes)} 0 R`;
  }
  return { objects, fonts, images };
}

/** Export values that a choice field holds for a value; none for an empty one. */
export function chosenValues(field: Field, value: FieldValue | null): string[] {
  if (value === null || typeof value === 'boolean') return [];
  const chosen = (Array.isArray(value) ? value : [value]).map((one) => optionOf(field, one)?.value ?? one);
  return chosen.length === 1 && chosen[0] === '' ? [] : chosen;
}

/** The value of a field as it stands in its dictionary. */
function valueEntries(field: Field, value: FieldValue | null): string {
  if (field.kind === 'checkbox' || field.kind === 'radio') return `/V${nameObject(stateFor(field, value) ?? 'Off')}`;
  if (value === null || typeof value === 'boolean') return '';
  if (field.kind === 'text') return `/V${textString(Array.isArray(value) ? value.join('\n') : value)}`;
  const chosen = chosenValues(field, value);
  const places = chosen.map((one) => field.options.findIndex((option) => option.value === one)).filter((at) => at >= 0);
  const indexes = field.kind === 'list' && places.length > 0 ? `/I[${[...new Set(places)].sort((a, b) => a - b).join(' ')}]` : '';
  if (chosen.length === 0) return '';
  return `/V${chosen.length === 1 ? textString(chosen[0]!) : `[${chosen.map(textString).join('')}]`}${indexes}`;
}

/** From and to in what the copy draws. */
type Stretch = [number, number];

/** The varying dictionaries of a copy that keeps its form. Appearances come after them, as numbered at compile time. */
function holderObjects(
  compiled: CompiledTemplate,
  values: FieldValues,
  drawing: Drawing,
): { dicts: TailObject[]; appearances: { plan: HolderPlan; content: Stretch | null }[] } {
  const dicts: TailObject[] = [];
  const appearances: { plan: HolderPlan; content: Stretch | null }[] = [];
  for (const holder of compiled.holders) {
    const { field, plan } = holder;
    const hasImage = plan !== null && drawing.hasImage(plan);
    const given = valueIn(values, field.name);
    const mustDraw = given === undefined && plan !== null && plan.onValue === null && plan.untouched === null && field.value !== null;
    if (given === undefined && !mustDraw && !hasImage) {
      dicts.push({ number: holder.number, dict: holder.untouched, stream: null });
      if (holder.appearance !== null) appearances.push({ plan: holder, content: null });
      continue;
    }
    const value = given ?? field.value;
    let dict = holder.head;
    if (holder.holdsValue && !hasImage) dict += valueEntries(field, value);
    if (plan && plan.onValue !== null) dict += `/AS${nameObject(stateFor(field, value) === plan.onValue ? plan.onValue : 'Off')}`;
    if (plan && holder.appearance !== null) {
      dict += `/AP<</N ${holder.appearance} 0 R>>`;
      const from = drawing.ink.length;
      drawing.ink.ascii(`${plan.chrome}/Tx BMC\nq\n${plan.clip}`);
      if (hasImage) drawing.image(plan);
      else drawing.text(plan, value);
      drawing.ink.ascii('Q\nEMC\n');
      appearances.push({ plan: holder, content: [from, drawing.ink.length] });
    }
    dicts.push({ number: holder.number, dict: `${dict}>>`, stream: null });
  }
  return { dicts, appearances };
}

/** The values with those that the form's author has worked out from others and that nobody gave. */
function withCalculated({ description, calculated }: CompiledTemplate, values: FieldValues): FieldValues {
  if (calculated.length === 0) return values;
  const all: FieldValues = { ...values };
  const names = description.fields.map((field) => field.name);
  const textOf = (name: string): string | null => {
    const value = valueIn(all, name);
    return typeof value === 'string' ? value : null;
  };
  for (const field of calculated) {
    const result = valueIn(values, field.name) !== undefined ? null : calculate(field.calculation!, names, textOf);
    if (result !== null) all[field.name] = result;
  }
  return all;
}

/** Draws one copy: the objects that vary, in the order of their numbers. Their streams are valid until the next copy is drawn. */
export function drawCopy(
  compiled: CompiledTemplate,
  given: FieldValues,
  options: FillOptions = {},
): { objects: TailObject[]; next: number; notes: FillNote[] } {
  const values = withCalculated(compiled, given);
  const drawing = new Drawing(compiled, options);
  const drawn = compiled.pages.map((page): Stretch => {
    const from = drawing.ink.length;
    drawing.page(page, values);
    return [from, drawing.ink.length];
  });
  const { dicts, appearances } = holderObjects(compiled, values, drawing);
  const own = ownResources(compiled, drawing, compiled.next);
  const objects: TailObject[] = compiled.pages.map((page, index) => ({
    number: page.overlay,
    dict: own.objects.length === 0 ? page.plain : `${page.head}${own.images}>>/Font<<${own.fonts}${page.tail}`,
    stream: drawing.ink.slice(...drawn[index]!),
  }));
  objects.push(...dicts);
  for (const { plan, content } of appearances) {
    objects.push(
      content === null
        ? { number: plan.appearance!, dict: 'null', stream: null }
        : {
            number: plan.appearance!,
            dict: `${plan.appearanceHead}/XObject<<${own.images}>>/Font<<${own.fonts}>>>>`,
            stream: drawing.ink.slice(...content),
          },
    );
  }
  objects.push(...own.objects);
  return { objects, next: compiled.next + own.objects.length, notes: drawing.notes };
}

/** The texts that a copy shows on one page, field by field, for reading it back. Lists and what the template itself draws are left out. */
export function shownTexts(compiled: CompiledTemplate, page: PagePlan, given: FieldValues): { field: string; text: string }[] {
  const values = withCalculated(compiled, given);
  return page.widgets.flatMap((plan) => {
    const value = valueIn(values, plan.field.name);
    const isDrawn = plan.onValue === null && plan.field.kind !== 'list' && !(value === undefined && plan.untouched !== null);
    const text = isDrawn ? shownText(plan.field, value === undefined ? plan.field.value : value) : '';
    return text === '' ? [] : [{ field: plan.field.name, text }];
  });
}

/** Lays out the values without making a copy. Notes only for values that do not simply fit. */
export function measureCopy(compiled: CompiledTemplate, given: FieldValues, options: FillOptions = {}): FillNote[] {
  const values = withCalculated(compiled, given);
  const drawing = new Drawing(compiled, options);
  for (const page of compiled.pages) drawing.page(page, values);
  holderObjects(compiled, values, drawing);
  return drawing.notes;
}

/**
 * Makes one copy. Fields without a value keep the look they have in the template.
 * The same template, values and options give the same bytes.
 * @throws MailbagError image-unreadable
 */
export function fillCopy(compiled: CompiledTemplate, values: FieldValues, options: FillOptions = {}): FilledCopy {
  const { objects, next, notes } = drawCopy(compiled, values, options);
  if (options.protect)
    return FilledCopy.whole(protectedFile(compiled, objects, next, options.protect.protection, options.protect.copy), notes);
  return FilledCopy.of(compiled, objects, next, notes);
}
