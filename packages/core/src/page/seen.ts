import type { PageSize } from '../pdf/field.js';

/** A box on a page as a person sees it: points from its left and upper edge. */
export interface SeenBox {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** A box of the page's own space (left, bottom, right, top) as it lies on the page that is seen. */
export function seenBox([l, b, r, t]: readonly [number, number, number, number], page: PageSize): SeenBox {
  const [x0, x1, y0, y1] = [l - page.left, r - page.left, b - page.bottom, t - page.bottom];
  // Of the page before it is turned.
  const [wide, high] = page.rotation % 180 === 0 ? [page.width, page.height] : [page.height, page.width];
  switch (page.rotation) {
    case 90:
      return { left: y0, top: x0, right: y1, bottom: x1 };
    case 180:
      return { left: wide - x1, top: y0, right: wide - x0, bottom: y1 };
    case 270:
      return { left: high - y1, top: wide - x1, right: high - y0, bottom: wide - x0 };
    default:
      return { left: x0, top: high - y1, right: x1, bottom: high - y0 };
  }
}

/** The other way round: where a box that is seen lies in the page's own space. */
export function ownBox({ left, top, right, bottom }: SeenBox, page: PageSize): [number, number, number, number] {
  const [wide, high] = page.rotation % 180 === 0 ? [page.width, page.height] : [page.height, page.width];
  const [x0, y0, x1, y1] = {
    90: [top, left, bottom, right],
    180: [wide - right, top, wide - left, bottom],
    270: [wide - bottom, high - right, wide - top, high - left],
  }[page.rotation] ?? [left, high - bottom, right, high - top];
  return [x0! + page.left, y0! + page.bottom, x1! + page.left, y1! + page.bottom];
}
