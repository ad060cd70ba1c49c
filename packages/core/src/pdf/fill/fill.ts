import type { CompiledTemplate, PagePlan } from '../plan/compile.js';
import { compositeFont, descendantFont, glyphMap, toUnicode } from './composite-font.js';
import type { TailObject } from '../tail-object.js';
import { FilledCopy } from './copy-file.js';
import { Drawing, listRows } from './drawing.js';
import { nameObject, shownText, stateFor, valueEntries, valueIn, withCalculated } from './field-value.js';
import type { FillOptions } from './fill-options.js';
import type { HolderPlan } from '../plan/form-plan.js';
import { protectedFile } from './protect/protected-file.js';
import type { FieldValues, FillNote } from '../value.js';

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
    const mask = image.mask ? `/SMask ${add(`<<${size}/ColorSpace/DeviceGray/BitsPerComponent 8/Filter/FlateDecode`, image.mask)} 0 R` : '';
    images += `/${name} ${add(`<<${size}${image.entries}${mask}`, image.bytes)} 0 R`;
  }
  return { objects, fonts, images };
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
    const isSeen = field.value !== null || field.kind === 'list';
    const mustDraw = given === undefined && plan !== null && plan.onValue === null && plan.untouched === null && isSeen;
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
      else {
        drawing.ink.ascii(plan.squeeze);
        drawing.text(plan, value);
      }
      drawing.ink.ascii('Q\nEMC\n');
      appearances.push({ plan: holder, content: [from, drawing.ink.length] });
    }
    dicts.push({ number: holder.number, dict: `${dict}>>`, stream: null });
  }
  return { dicts, appearances };
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

/** The texts that a copy shows on one page, field by field, for reading it back: of lists the entries that stand in the box. What the template itself draws is left out. */
export function shownTexts(compiled: CompiledTemplate, page: PagePlan, given: FieldValues): { field: string; text: string }[] {
  const values = withCalculated(compiled, given);
  return page.widgets.flatMap((plan) => {
    const value = valueIn(values, plan.field.name);
    const isDrawn = plan.onValue === null && !(value === undefined && plan.untouched !== null);
    if (isDrawn && plan.field.kind === 'list')
      return listRows(plan, value === undefined ? plan.field.value : value).shown.flatMap(({ label }) =>
        label === '' ? [] : [{ field: plan.field.name, text: label }],
      );
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
