import { t } from '../../words/words.js';
import type { PDFDict, PDFDocument, PDFRef } from '@cantoo/pdf-lib';
import { PDFArray, PDFName } from '@cantoo/pdf-lib';
import { MailbagError } from '../../errors/catalogue.js';
import { dictEntry, dictsOf, entry, nameText, textOf, arrayEntry, dictEntry as dictOf } from './document.js';

/** Fields, widgets and options of a form, and levels of names. */
const MOST_FIELDS = 20_000;
const MOST_WIDGETS = 50_000;
const DEEPEST = 200;

/** Attributes that a field hands down to its kids (ISO 32000-2, table 226 and 228, 231). */
const inheritable = ['FT', 'V', 'DV', 'DA', 'Q', 'Ff', 'MaxLen', 'Opt'] as const;
type Inherited = Partial<Record<(typeof inheritable)[number], PDFDict>>;

/** A widget in the file. `page` is 0-based; -1: on no page. */
export interface RawWidget {
  dict: PDFDict;
  ref: PDFRef | null;
  page: number;
}

/** A terminal field in the file: where each inherited attribute comes from, and its widgets. */
export interface RawField {
  name: string;
  dict: PDFDict;
  owners: Inherited;
  widgets: RawWidget[];
  /** The dictionaries that hold the value: one, or several where fields of one name stand apart. */
  holders: PDFDict[];
}

export interface FieldTree {
  acroForm: PDFDict | undefined;
  fields: RawField[];
  strayWidgets: string[];
  twoKinds: string[];
}

/** The attribute `key` of a field, from itself or the nearest ancestor that has it. */
export const inheritedEntry = (field: RawField, key: (typeof inheritable)[number]) => {
  const owner = field.owners[key];
  return owner ? entry(owner, key) : undefined;
};

const isWidget = (dict: PDFDict): boolean => {
  const subtype = entry(dict, 'Subtype');
  return subtype instanceof PDFName && nameText(subtype) === 'Widget';
};

const ownersBelow = (dict: PDFDict, above: Inherited): Inherited => {
  const owners = { ...above };
  for (const key of inheritable) if (entry(dict, key) !== undefined) owners[key] = dict;
  return owners;
};

/** All terminal fields of a document, hierarchies walked, fields of one name joined, widgets outside the tree taken in. */
export function readFieldTree(doc: PDFDocument, file = 'The file'): FieldTree {
  const acroForm = dictEntry(doc.catalog, 'AcroForm');
  const pageOf = new Map<PDFDict, number>();
  const onPages: RawWidget[] = [];
  doc.getPages().forEach((page, index) => {
    for (const { ref, dict } of dictsOf(arrayEntry(page.node, 'Annots'))) {
      if (pageOf.has(dict)) continue;
      pageOf.set(dict, index);
      if (isWidget(dict)) onPages.push({ dict, ref, page: index });
    }
  });

  let widgetCount = 0;
  const byName = new Map<string, RawField>();
  const twoKinds = new Set<string>();
  const seen = new Set<PDFDict>();
  const add = (name: string, dict: PDFDict, owners: Inherited, widgets: RawWidget[]): void => {
    widgetCount += widgets.length;
    if (widgetCount > MOST_WIDGETS) throw new MailbagError('pdf-too-many', { file, limit: MOST_WIDGETS, what: t`fields on its pages` });
    const known = byName.get(name);
    if (!known && byName.size >= MOST_FIELDS) throw new MailbagError('pdf-too-many', { file, limit: MOST_FIELDS, what: t`fields` });
    if (!known) byName.set(name, { name, dict, owners, widgets, holders: [dict] });
    else {
      known.widgets.push(...widgets);
      if (!known.holders.includes(dict)) known.holders.push(dict);
      if (String(inheritedEntry(known, 'FT')) !== String(owners.FT && entry(owners.FT, 'FT'))) twoKinds.add(name);
    }
  };
  const toWidget = (dict: PDFDict, ref: PDFRef | null): RawWidget => ({ dict, ref, page: pageOf.get(dict) ?? -1 });

  const walk = (dict: PDFDict, ref: PDFRef | null, prefix: string, above: Inherited, level: number): void => {
    if (seen.has(dict) || level > DEEPEST) return;
    seen.add(dict);
    const partial = textOf(entry(dict, 'T')) ?? '';
    const name = partial ? (prefix ? `${prefix}.${partial}` : partial) : prefix;
    const owners = ownersBelow(dict, above);
    // A kid that was met before leads back into the tree; it is no kid.
    const kids = dictsOf(arrayEntry(dict, 'Kids')).filter((kid) => !seen.has(kid.dict));
    const fieldKids = kids.filter(
      (kid) => entry(kid.dict, 'T') !== undefined || (entry(kid.dict, 'Kids') instanceof PDFArray && !isWidget(kid.dict)),
    );
    for (const kid of fieldKids) walk(kid.dict, kid.ref, name, owners, level + 1);
    const widgets = kids.filter((kid) => !fieldKids.includes(kid) && !seen.has(kid.dict));
    for (const kid of widgets) seen.add(kid.dict);
    if (fieldKids.length > 0 && widgets.length === 0) return;
    if (owners.FT) {
      const own = kids.length === 0 ? [toWidget(dict, ref)] : widgets.map((kid) => toWidget(kid.dict, kid.ref));
      add(name, dict, owners, own);
    }
  };
  for (const { dict, ref } of dictsOf(acroForm && arrayEntry(acroForm, 'Fields'))) walk(dict, ref, '', {}, 0);

  const strayWidgets: string[] = [];
  for (const widget of onPages) {
    if (seen.has(widget.dict)) continue;
    const chain: PDFDict[] = [];
    for (let dict: PDFDict | undefined = widget.dict; dict && !chain.includes(dict) && chain.length < 64; dict = dictOf(dict, 'Parent'))
      chain.unshift(dict);
    const owners = chain.reduce<Inherited>((above, dict) => ownersBelow(dict, above), {});
    const name = chain
      .map((dict) => textOf(entry(dict, 'T')) ?? '')
      .filter(Boolean)
      .join('.');
    seen.add(widget.dict);
    if (!owners.FT || !name) continue;
    strayWidgets.push(name);
    const holder = chain.findLast((dict) => entry(dict, 'T') !== undefined) ?? widget.dict;
    add(name, holder, owners, [widget]);
  }
  return { acroForm, fields: [...byName.values()], strayWidgets, twoKinds: [...twoKinds] };
}
