import type { PageSize, SeenBox } from '@mailbag/core';

/** Points: how large the box of a date is, and how far it stands from the signature. */
const [DATE_WIDTH, DATE_HEIGHT, GAP] = [80, 16, 8];

/** Where the date stands: right of the signature, left of it, or below it, wherever the page has room. */
export function dateBeside({ left, right, bottom }: SeenBox, { width, height }: Pick<PageSize, 'width' | 'height'>): SeenBox {
  const at = (from: number, to: number): SeenBox => ({ left: from, top: to - DATE_HEIGHT, right: from + DATE_WIDTH, bottom: to });
  if (right + GAP + DATE_WIDTH <= width) return at(right + GAP, bottom);
  if (left - GAP - DATE_WIDTH >= 0) return at(left - GAP - DATE_WIDTH, bottom);
  return at(left, Math.min(height, bottom + GAP + DATE_HEIGHT));
}

/** A box moved onto a page that it would stand beside, and made smaller where it is too large. */
export function withinPage(box: SeenBox, { width, height }: Pick<PageSize, 'width' | 'height'>): SeenBox {
  const [wide, high] = [Math.min(box.right - box.left, width), Math.min(box.bottom - box.top, height)];
  const left = Math.min(Math.max(0, box.left), width - wide);
  const top = Math.min(Math.max(0, box.top), height - high);
  return { left, top, right: left + wide, bottom: top + high };
}
