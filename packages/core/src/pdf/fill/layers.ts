import type { TailObject } from '../tail-object.js';
import type { CompiledTemplate, PagePlan } from '../plan/compile.js';
import { overlap } from '../plan/beneath.js';
import type { FieldValues } from '../value.js';
import { FilledCopy } from './copy-file.js';
import { withCalculated } from './field-value.js';
import type { FillOptions } from './fill-options.js';
import { drawCopy, fillCopy } from './fill.js';

/**
 * A copy in two files, for looking at it while some of its fields are being changed. Drawn on the same page, `layer` over `rest`, they look as the copy does:
 * whoever keeps the picture of the rest has only a small file to draw for each change.
 */
export interface CopyLayers {
  /** The same as long as the rest looks the same: of the same template, with the same pictures, stamps and ways to fit. */
  key: string;
  /** The copy without what those fields show. */
  rest: () => FilledCopy;
  /** What those fields show, on pages that are empty beside. */
  layer: FilledCopy;
}

/** Only some of the widgets, in the order in which the copy draws them. */
const withWidgets = (page: PagePlan, isWanted: (field: string) => boolean): PagePlan => ({
  ...page,
  widgets: page.widgets.filter(({ field }) => isWanted(field.name)),
});

/** The catalog and the pages of a layer, after the objects that it draws. */
function layerTree(compiled: CompiledTemplate, next: number): { objects: TailObject[]; root: number } {
  const objects: TailObject[] = [];
  const add = (dict: string, stream: TailObject['stream'] = null): number => {
    const number = next + objects.length;
    objects.push({ number, dict, stream });
    return number;
  };
  const tree = next + 2 * compiled.allPages.length;
  const overlays = new Map(compiled.pages.map(({ page, overlay }) => [page, overlay]));
  const kids = compiled.allPages.map(({ frame }, page) => {
    const overlay = overlays.get(page);
    const content = add('<<', overlay === undefined ? '' : '/MbO Do');
    const shown = overlay === undefined ? '' : `/XObject<</MbO ${overlay} 0 R>>`;
    return add(`<</Type/Page/Parent ${tree} 0 R${frame}/Resources<<${shown}>>/Contents ${content} 0 R>>`);
  });
  add(`<</Type/Pages/Count ${kids.length}/Kids[${kids.map((kid) => `${kid} 0 R`).join(' ')}]>>`);
  return { objects, root: add(`<</Type/Catalog/Pages ${tree} 0 R>>`) };
}

/**
 * Takes a copy apart into what some fields show and everything else.
 * @param fields names of those that are being changed
 * @returns null where the two would not look as the copy does: a copy that keeps its form is drawn by whoever reads it, other boxes lie over these, or
 * none of these is drawn
 * @throws MailbagError image-unreadable
 */
export function copyLayers(
  compiled: CompiledTemplate,
  given: FieldValues,
  fields: ReadonlySet<string>,
  options: FillOptions = {},
): CopyLayers | null {
  if (compiled.finish !== 'flattened') return null;
  const own = compiled.pages.map((page) => withWidgets(page, (field) => fields.has(field)));
  const others = compiled.pages.map((page) => withWidgets(page, (field) => !fields.has(field)));
  if (own.every(({ widgets }) => widgets.length === 0)) return null;
  const isCovered = own.some(({ widgets }, at) =>
    widgets.some(({ rect }) => others[at]!.widgets.some((other) => overlap(rect, other.rect))),
  );
  if (isCovered) return null;
  const values = withCalculated(compiled, given);
  const drawn = drawCopy({ ...compiled, pages: own.map((page) => ({ ...page, beneath: '', stamps: [] })) }, values, options);
  const { objects, root } = layerTree(compiled, drawn.next);
  const trailer = compiled.trailer.replace(/^\/Root \d+ 0 R/, `/Root ${root} 0 R`);
  return {
    key: JSON.stringify([[...fields], Object.entries(values).filter(([field]) => !fields.has(field))]),
    rest: () => fillCopy({ ...compiled, pages: others }, values, options),
    layer: FilledCopy.of({ ...compiled, trailer }, [...drawn.objects, ...objects], drawn.next + objects.length, drawn.notes),
  };
}
