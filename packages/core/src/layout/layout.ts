import { t } from '../words/words.js';
import { MailbagError } from '../errors/catalogue.js';
import type { IsWhole } from '../editing/changes.js';
import type { LineStamp } from '../pdf/fill/stamp/line-stamp.js';
import type { StampPlace } from '../pdf/fill/stamp/stamp.js';
import type { DrawnField } from '../pdf/write/drawn-field.js';
import { readDrawnField } from '../pdf/write/read-layout.js';
import { readStamp } from './read-stamp.js';

/** What is drawn into every copy by the engine, and is no field: the copy code as a symbol, or a line of text. */
export type Stamp = ({ kind: 'code' } & StampPlace) | ({ kind: 'line' } & LineStamp);

/** The fields and stamps that a person draws on a template. Keys stay what they are, whatever the fields are called. */
export interface Layout {
  fields: Record<string, DrawnField>;
  /** Keys of the fields in the order in which Tab goes through them. */
  order: string[];
  stamps: Record<string, Stamp>;
}

export const emptyLayout: Layout = { fields: {}, order: [], stamps: {} };

/** Boxes of one packet in which pictures and signatures stand: initials on each page of a long contract are many. */
export const MOST_PICTURES = 200;

/** Fields and stamps that one template may be given. */
export const MOST_DRAWN = 5000;

/** What of a layout is changed as a whole: each setting of a field or stamp. */
export const isWholeInLayout: IsWhole = (place) => place.length >= 3;

/** How a place of a layout is called on the screen. */
export function layoutPlaceWords([part, key, setting]: readonly string[], { fields }: Layout): string {
  if (part === 'order') return t`the tab order`;
  if (part === 'stamps') return t`a stamp`;
  const name = (key !== undefined && fields[key]?.name) || t`a field`;
  return setting ? t`${setting === 'rect' ? t`the place` : t`the ${setting}`} of “${name}”` : `“${name}”`;
}

/** A layout of fields that were found or listed. @param newKey makes a key that nothing has yet */
export function layoutOf(drawn: readonly DrawnField[], newKey: () => string): Layout {
  const keyed = drawn.map((field) => [newKey(), field] as const);
  return { fields: Object.fromEntries(keyed), order: keyed.map(([key]) => key), stamps: {} };
}

const members = (given: unknown): [string, unknown][] =>
  typeof given === 'object' && given !== null && !Array.isArray(given) ? Object.entries(given) : [];

/**
 * Reads a layout that came from outside.
 * @throws MailbagError layout-not-a-list, layout-too-many, layout-no-name, layout-kind, layout-no-size, layout-stamp
 */
export function readWholeLayout(given: unknown): Layout {
  const { fields, order, stamps } = Object.fromEntries(members(given));
  if (!Array.isArray(order)) throw new MailbagError('layout-not-a-list', {});
  const [fieldList, stampList] = [members(fields), members(stamps)];
  if (fieldList.length + stampList.length > MOST_DRAWN) throw new MailbagError('layout-too-many', { limit: MOST_DRAWN });
  return {
    fields: Object.fromEntries(fieldList.map(([key, field], index) => [key, readDrawnField(field, index)])),
    order: order.filter((key): key is string => typeof key === 'string'),
    stamps: Object.fromEntries(stampList.map(([key, stamp]) => [key, readStamp(stamp)])),
  };
}
