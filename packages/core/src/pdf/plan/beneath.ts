import type { PDFPage } from '@cantoo/pdf-lib';
import { PDFDict, PDFStream } from '@cantoo/pdf-lib';
import { num } from '../fill/appearance/number.js';
import { arrayEntry, dictEntry, dictsOf, entry, nameEntry, numberEntry, numbersOf } from '../read/document.js';
import { rectOf } from '../read/inspect.js';
import { appearanceOf, drawStream } from './widget-plan.js';
import type { PlanContext } from './widget-plan.js';

/** What lay beneath the widgets of a page and is drawn into it with them. */
export interface Beneath {
  /** Annotations that are no longer needed, with the pop-ups that belong to them. */
  annotations: ReadonlySet<PDFDict>;
  /** Operators on the page. */
  draw: string;
}

/** Annotation flags hidden (2) and no view (6): ISO 32000-2, table 167. */
const isSeen = (annotation: PDFDict): boolean => ((numberEntry(annotation, 'F') ?? 0) & 0b100010) === 0;

export const overlap = (a: readonly number[], b: readonly number[]): boolean =>
  Math.min(a[2]!, b[2]!) - Math.max(a[0]!, b[0]!) > 0.01 && Math.min(a[3]!, b[3]!) - Math.max(a[1]!, b[1]!) > 0.01;

/** A colour of an annotation (ISO 32000-2, table 166, C) as an operator; null: none. */
const colour = (annotation: PDFDict, key: string, operators: readonly [string, string, string]): string | null => {
  const numbers = numbersOf(arrayEntry(annotation, key));
  const operator = { 1: operators[0], 3: operators[1], 4: operators[2] }[numbers.length];
  return operator ? `${numbers.map(num).join(' ')} ${operator}` : null;
};

/** A square without an appearance of its own (ISO 32000-2, 12.5.6.8), as viewers draw it. */
function drawSquare(annotation: PDFDict): string {
  const [left, bottom, right, top] = rectOf(annotation);
  const style = dictEntry(annotation, 'BS');
  const width = (style && numberEntry(style, 'W')) ?? numbersOf(arrayEntry(annotation, 'Border'))[2] ?? 1;
  const [inside, line] = [colour(annotation, 'IC', ['g', 'rg', 'k']), width > 0 ? colour(annotation, 'C', ['G', 'RG', 'K']) : null];
  if (!inside && !line) return '';
  const box = [left + width / 2, bottom + width / 2, right - left - width, top - bottom - width].map(num).join(' ');
  return `q ${inside ?? ''} ${line ?? ''} ${num(width)} w ${box} re ${inside ? (line ? 'B' : 'f') : 'S'} Q\n`;
}

function drawAnnotation(annotation: PDFDict, context: PlanContext): string {
  const look = appearanceOf(annotation, nameEntry(annotation, 'AS') ?? null);
  if (look?.stream instanceof PDFStream) return drawStream(look.ref, look.stream, rectOf(annotation), context);
  return nameEntry(annotation, 'Subtype') === 'Square' ? drawSquare(annotation) : '';
}

/**
 * The annotations of a page over which a widget lies. They stay beneath what a flattened copy draws in the widget's place, as annotations are painted in
 * their order (ISO 32000-2, 12.5.2): left as annotations, they would be painted over it.
 */
export function annotationsBeneath(page: PDFPage, context: PlanContext): Beneath {
  const all = dictsOf(arrayEntry(page.node, 'Annots')).map(({ dict }) => dict);
  const kind = (dict: PDFDict): string | undefined => nameEntry(dict, 'Subtype');
  const widgets = all.flatMap((dict, index) => (kind(dict) === 'Widget' && isSeen(dict) ? [{ index, rect: rectOf(dict) }] : []));
  const annotations = new Set<PDFDict>();
  let draw = '';
  all.forEach((annotation, index) => {
    if (['Widget', 'Link', 'Popup'].includes(kind(annotation) ?? '') || !isSeen(annotation)) return;
    const rect = rectOf(annotation);
    if (!widgets.some((widget) => widget.index > index && overlap(rect, widget.rect))) return;
    const drawn = drawAnnotation(annotation, context);
    if (drawn === '') return;
    draw += drawn;
    annotations.add(annotation);
    const popup = entry(annotation, 'Popup');
    if (popup instanceof PDFDict) annotations.add(popup);
  });
  return { annotations, draw };
}
