import type { PDFDocument, PDFRef } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRawStream, PDFRef as Ref } from '@cantoo/pdf-lib';
import type { CodedFace } from '../fill/appearance/coded-face.js';
import { num } from '../fill/appearance/number.js';
import type { Finish } from '../finish.js';
import { arrayEntry, dictEntry, dictsOf, entry, rawEntry } from '../read/document.js';
import type { Field } from '../field.js';
import type { FieldTree } from '../read/field-tree.js';
import { fieldFlagBits } from '../read/inspect.js';
import { objectText } from './serialise.js';
import type { WidgetPlan } from './widget-plan.js';
import { turnedMatrix } from './widget-plan.js';

/** A dictionary of the form that varies: a field that holds a value, a widget that shows it, or both in one. */
export interface Held {
  ref: PDFRef;
  dict: PDFDict;
  field: Field;
  holdsValue: boolean;
  plan: WidgetPlan | null;
}

/** A varying dictionary, written as far as it is the same in every copy. */
export interface HolderPlan {
  number: number;
  field: Field;
  holdsValue: boolean;
  plan: WidgetPlan | null;
  /** The whole object body when no value is given. */
  untouched: string;
  /** The body without value and appearance, up to its closing `>>`. */
  head: string;
  /** Object number of its appearance stream; null when it keeps its own. */
  appearance: number | null;
  /** The dictionary of its appearance stream up to its fonts. */
  appearanceHead: string;
}

const name = (text: string): PDFName => PDFName.of(text);

/** XFA would show other values than the fields do; usage rights and signatures do not outlive a change (ISO 32000-2, 12.7.8, 12.8). */
export function dropXfa(doc: PDFDocument): void {
  dictEntry(doc.catalog, 'AcroForm')?.delete(name('XFA'));
  doc.catalog.delete(name('NeedsRendering'));
  doc.catalog.delete(name('Perms'));
}

/** The reference of a dictionary; one that stands directly in an array gets one there. */
function refIn(doc: PDFDocument, array: PDFArray | undefined, wanted: PDFDict): PDFRef | null {
  for (let index = 0; array && index < array.size(); index++) {
    if (array.lookup(index) !== wanted) continue;
    const raw = array.get(index);
    if (raw instanceof Ref) return raw;
    const ref = doc.context.register(wanted);
    array.set(index, ref);
    return ref;
  }
  return null;
}

/** References of all dictionaries of the field tree and of the widgets on pages; direct ones become indirect. */
function referencesOf(doc: PDFDocument, acroForm: PDFDict | undefined): Map<PDFDict, PDFRef> {
  const found = new Map<PDFDict, PDFRef>();
  const walk = (array: PDFArray | undefined): void => {
    for (const { dict } of dictsOf(array)) {
      const ref = refIn(doc, array, dict);
      if (!ref || found.has(dict)) continue;
      found.set(dict, ref);
      walk(arrayEntry(dict, 'Kids'));
    }
  };
  walk(acroForm && arrayEntry(acroForm, 'Fields'));
  for (const page of doc.getPages()) {
    const annotations = arrayEntry(page.node, 'Annots');
    for (const { dict } of dictsOf(annotations)) {
      const ref = found.has(dict) ? null : refIn(doc, annotations, dict);
      if (ref) found.set(dict, ref);
      const parent = rawEntry(dict, 'Parent');
      const above = entry(dict, 'Parent');
      if (parent instanceof Ref && above instanceof PDFDict && !found.has(above)) found.set(above, parent);
    }
  }
  return found;
}

/** Appearance streams for a widget that has none, so that its border, caption and states are seen in every viewer. */
function giveAppearance(doc: PDFDocument, widget: PDFDict, plan: WidgetPlan): void {
  const make = (content: string): PDFRef => {
    const dict = PDFDict.withContext(doc.context);
    dict.set(name('Type'), name('XObject'));
    dict.set(name('Subtype'), name('Form'));
    dict.set(name('BBox'), doc.context.obj([0, 0, plan.width, plan.box.height]));
    dict.set(name('Matrix'), doc.context.obj(formMatrix(plan).split(' ').map(Number)));
    dict.set(name('Resources'), doc.context.obj({ Font: fontsOf(plan.coded) }));
    return doc.context.register(
      PDFRawStream.of(
        dict,
        Uint8Array.from(content, (char) => char.charCodeAt(0)),
      ),
    );
  };
  const { on, off } = plan.bare;
  const looks = dictEntry(widget, 'AP')?.clone(doc.context) ?? PDFDict.withContext(doc.context);
  if (plan.onValue !== null && (on !== null || off !== null)) {
    const kept = on === null ? dictEntry(looks, 'N') : undefined;
    const states = kept?.clone(doc.context) ?? PDFDict.withContext(doc.context);
    if (on !== null) states.set(name(plan.onValue), make(on));
    if (off !== null) states.set(name('Off'), make(off));
    looks.set(name('N'), states);
  } else if (plan.still) looks.set(name('N'), make(plan.still));
  else return;
  widget.set(name('AP'), looks);
}

/** Resources for the standard faces among those of a widget. */
const fontsOf = (faces: readonly CodedFace[]): Record<string, Record<string, PDFName>> =>
  Object.fromEntries(
    faces
      .filter(({ baseFont, resource }) => resource === `Mb${baseFont}`)
      .map(({ resource, baseFont }) => [
        resource,
        { Type: name('Font'), Subtype: name('Type1'), BaseFont: name(baseFont), Encoding: name('WinAnsiEncoding') },
      ]),
  );

const formMatrix = (plan: WidgetPlan): string => {
  const [left = 0, bottom = 0, right = 0, top = 0] = plan.rect;
  return turnedMatrix(plan.rotation, right - left, top - bottom);
};

/** Bit position 1 of Ff: read-only (ISO 32000-2, table 227). */
const READ_ONLY = 1;

/** Scripts and their order do not go with values that shall not change any more. */
function dropScripts(doc: PDFDocument, tree: FieldTree): void {
  tree.acroForm?.delete(name('CO'));
  dictEntry(doc.catalog, 'Names')?.delete(name('JavaScript'));
  doc.catalog.delete(name('AA'));
  const open = entry(doc.catalog, 'OpenAction');
  if (open instanceof PDFDict && String(entry(open, 'S')) === '/JavaScript') doc.catalog.delete(name('OpenAction'));
  for (const field of tree.fields) {
    for (const dict of [...field.holders, ...field.widgets.map((widget) => widget.dict)]) {
      dict.delete(name('AA'));
      if (String((dictEntry(dict, 'A') && entry(dictEntry(dict, 'A')!, 'S')) ?? '') === '/JavaScript') dict.delete(name('A'));
    }
  }
}

/** Makes the form of a document ready to be kept: which dictionaries vary, everything else as it shall be in every copy. */
export function prepareForm(
  doc: PDFDocument,
  tree: FieldTree,
  planned: readonly { field: Field; plans: (WidgetPlan | null)[] }[],
  finish: Finish,
): Held[] {
  const { acroForm } = tree;
  if (!acroForm) return [];
  const refs = referencesOf(doc, acroForm);
  const byName = new Map(tree.fields.map((raw) => [raw.name, raw]));
  acroForm.delete(name('NeedAppearances'));
  if (finish === 'locked') dropScripts(doc, tree);
  takeInStrays(acroForm, tree, refs);
  const held: Held[] = [];
  for (const { field, plans } of planned) {
    const raw = byName.get(field.name)!;
    if (finish === 'locked') for (const holder of raw.holders) holder.set(name('Ff'), PDFNumber.of(fieldFlagBits(raw) | READ_ONLY));
    if (field.kind === 'signature') for (const holder of raw.holders) holder.delete(name('V'));
    const planOf = new Map(raw.widgets.map((widget, index) => [widget.dict, plans[index] ?? null]));
    for (const [widget, plan] of planOf) if (plan) giveAppearance(doc, widget, plan);
    if (field.kind === 'signature' || field.kind === 'button') continue;
    for (const dict of new Set([...raw.holders, ...planOf.keys()])) {
      const ref = refs.get(dict);
      if (ref) held.push({ ref, dict, field, holdsValue: raw.holders.includes(dict), plan: planOf.get(dict) ?? null });
    }
  }
  acroForm.delete(name('SigFlags'));
  return held;
}

/** Fields that stood outside the list of fields are put into it. */
function takeInStrays(acroForm: PDFDict, tree: FieldTree, refs: ReadonlyMap<PDFDict, PDFRef>): void {
  const inTree = new Set<PDFDict>();
  const walk = (array: PDFArray | undefined): void => {
    for (const { dict } of dictsOf(array)) {
      if (inTree.has(dict)) continue;
      inTree.add(dict);
      walk(arrayEntry(dict, 'Kids'));
    }
  };
  let fields = arrayEntry(acroForm, 'Fields');
  walk(fields);
  if (!fields) acroForm.set(name('Fields'), (fields = PDFArray.withContext(acroForm.context)));
  for (const raw of tree.fields) {
    for (const holder of raw.holders) {
      if (inTree.has(holder)) continue;
      let top = holder;
      for (let above = dictEntry(top, 'Parent'); above && above !== top && !inTree.has(above); above = dictEntry(top, 'Parent'))
        top = above;
      const ref = refs.get(top);
      if (ref && !inTree.has(top)) fields.push(ref);
      inTree.add(top);
      inTree.add(holder);
    }
  }
}

const VALUE_KEYS = ['/V', '/RV', '/I'];

/** Writes what is the same in every copy of each varying dictionary. @param from first object number that is free for appearances follows the dictionaries */
export function writeHolders(held: readonly Held[], numbers: ReadonlyMap<PDFRef, number>, from: number): HolderPlan[] {
  let next = from + held.length;
  return held.map(({ ref, dict, field, holdsValue, plan }): HolderPlan => {
    const isText = plan !== null && plan.onValue === null;
    const skip = new Set([...(holdsValue ? VALUE_KEYS : []), ...(plan ? ['/AS'] : []), ...(isText ? ['/AP'] : [])]);
    const box = plan ? `0 0 ${num(plan.width)} ${num(plan.box.height)}` : '';
    return {
      number: numbers.get(ref)!,
      field,
      holdsValue,
      plan,
      untouched: objectText(dict, numbers),
      head: objectText(dict, numbers, skip).slice(0, -2),
      appearance: isText ? next++ : null,
      appearanceHead: plan && isText ? `<</Type/XObject/Subtype/Form/BBox[${box}]/Matrix[${formMatrix(plan)}]/Resources<<` : '',
    };
  });
}
