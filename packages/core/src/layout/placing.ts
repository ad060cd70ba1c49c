import type { SeenBox } from '../page/seen.js';
import { ownBox, seenBox } from '../page/seen.js';
import type { PageSize } from '../pdf/field.js';
import { freeName } from './drawn-names.js';
import type { Layout, Stamp } from './layout.js';
import type { DrawnField } from '../pdf/write/drawn-field.js';

/** A field or stamp of a layout, by its key. */
export type Drawn = { key: string; what: 'field'; field: DrawnField } | { key: string; what: 'stamp'; stamp: Stamp };

/** Shares of the type size that a line reaches below its baseline and above it (Helvetica's, which lines on copies are written in). */
const [BELOW, ABOVE] = [0.21, 0.72];

function stampBox(stamp: Stamp, page: PageSize): SeenBox {
  const foot = page.height - stamp.y;
  const [bottom, high] =
    stamp.kind === 'line'
      ? [foot + stamp.size * BELOW, stamp.size * (BELOW + ABOVE)]
      : [foot, stamp.symbology === 'code128' ? stamp.height : stamp.width];
  return { left: stamp.x, right: stamp.x + stamp.width, top: bottom - high, bottom };
}

function placedStamp(stamp: Stamp, { left, right, top, bottom }: SeenBox, page: PageSize): Stamp {
  const [width, height] = [right - left, bottom - top];
  if (stamp.kind === 'line') {
    const size = height / (BELOW + ABOVE);
    return { ...stamp, x: left, width, size, y: page.height - bottom + size * BELOW };
  }
  if (stamp.symbology === 'code128') return { ...stamp, x: left, width, height, y: page.height - bottom };
  // Square symbols stay square.
  const side = Math.min(width, height);
  return { ...stamp, x: left, width: side, height: side, y: page.height - top - side };
}

export const pageOf = (drawn: Drawn): number => (drawn.what === 'field' ? drawn.field.page : drawn.stamp.page);

/** All that is drawn, fields first in tab order. */
export function drawnIn({ fields, order, stamps }: Layout): Drawn[] {
  const known = new Set(order);
  const keys = [...order.filter((key) => Object.hasOwn(fields, key)), ...Object.keys(fields).filter((key) => !known.has(key))];
  return [
    ...keys.map((key): Drawn => ({ key, what: 'field', field: fields[key]! })),
    ...Object.entries(stamps).map(([key, stamp]): Drawn => ({ key, what: 'stamp', stamp })),
  ];
}

/** Where something lies on its page as it is seen. */
export const boxOf = (drawn: Drawn, pages: readonly PageSize[]): SeenBox => {
  const page = pages[pageOf(drawn) - 1] ?? pages[0]!;
  return drawn.what === 'field' ? seenBox(drawn.field.rect, page) : stampBox(drawn.stamp, page);
};

/** The layout with things put elsewhere on their pages. Lengths are kept to a hundredth of a point. */
export function withBoxes(layout: Layout, boxes: ReadonlyMap<string, SeenBox>, pages: readonly PageSize[]): Layout {
  const fields = { ...layout.fields };
  const stamps = { ...layout.stamps };
  const round = (value: number): number => Math.round(value * 100) / 100;
  for (const [key, box] of boxes) {
    const [field, stamp] = [fields[key], stamps[key]];
    const page = pages[((field ?? stamp)?.page ?? 1) - 1];
    if (!page) continue;
    if (field) fields[key] = { ...field, rect: ownBox(box, page).map(round) as DrawnField['rect'] };
    else if (stamp) {
      const placed = placedStamp(stamp, box, page);
      stamps[key] = { ...placed, x: round(placed.x), y: round(placed.y), width: round(placed.width) };
    }
  }
  return { ...layout, fields, stamps };
}

export function withoutDrawn(layout: Layout, keys: ReadonlySet<string>): Layout {
  const left = <One>(all: Record<string, One>): Record<string, One> =>
    Object.fromEntries(Object.entries(all).filter(([key]) => !keys.has(key)));
  return { fields: left(layout.fields), order: layout.order.filter((key) => !keys.has(key)), stamps: left(layout.stamps) };
}

/**
 * The layout with more on it; fields get names that nothing has yet, and come last in tab order, but for radio buttons: those of one name are one group.
 * @param taken names that the file beneath has already
 */
export function withDrawn(layout: Layout, added: readonly Drawn[], taken: Iterable<string> = []): Layout {
  const names = new Set([...taken, ...Object.values(layout.fields).map(({ name }) => name)]);
  const groups = new Set([...Object.values(layout.fields), ...added.flatMap((one) => (one.what === 'field' ? [one.field] : []))].flatMap(({ kind, name }) => (kind === 'radio' ? [name] : []))); // prettier-ignore
  const next = { fields: { ...layout.fields }, order: [...layout.order], stamps: { ...layout.stamps } };
  for (const one of added) {
    if (one.what === 'stamp') {
      next.stamps[one.key] = one.stamp;
      continue;
    }
    const { field } = one;
    const isGrouped = field.kind === 'radio' && groups.has(field.name);
    const name = isGrouped ? field.name : freeName(field.name, names);
    const values = new Set(Object.values(next.fields).flatMap((other) => (other.name === name ? [other.value ?? 'Yes'] : [])));
    names.add(name);
    next.fields[one.key] = { ...field, name, ...(isGrouped && { value: freeName(field.value ?? 'Yes', values) }) };
    next.order.push(one.key);
  }
  return next;
}

/** Copies of things, moved, or on another page. @param newKey makes a key that nothing has yet */
export function copied(
  drawn: readonly Drawn[],
  { dx = 0, dy = 0, page, newKey }: { dx?: number; dy?: number; page?: number; newKey: () => string },
  pages: readonly PageSize[],
): Drawn[] {
  return drawn.map((one): Drawn => {
    const box = boxOf(one, pages);
    const moved = { left: box.left + dx, right: box.right + dx, top: box.top + dy, bottom: box.bottom + dy };
    const at = page ?? pageOf(one);
    const size = pages[at - 1] ?? pages[0]!;
    const key = newKey();
    return one.what === 'field'
      ? { key, what: 'field', field: { ...one.field, page: at, rect: ownBox(moved, size) } }
      : { key, what: 'stamp', stamp: placedStamp({ ...one.stamp, page: at }, moved, size) };
  });
}
