import { pdfium } from './pdfium.js';

/** A page as PDFium, a renderer that is not ours, draws it. Pixels as BGRA. */
export interface Picture {
  width: number;
  height: number;
  data: Uint8Array;
}

/** @param scale pixels a point @param password that opens it */
export async function pictureOf(pdf: Uint8Array, page = 0, scale = 2, password?: string): Promise<Picture> {
  const document = await (await pdfium()).loadDocument(pdf, password);
  try {
    const image = await document.getPage(page).render({ scale, render: 'bitmap', renderFormFields: true });
    const { width, height } = image;
    return { width, height, data: Uint8Array.from(image.data) };
  } finally {
    document.destroy();
  }
}

/** Grey value of a pixel, 0 black to 255 white. */
export const greyAt = ({ width, data }: Picture, x: number, y: number): number => {
  const at = (y * width + x) * 4;
  return (data[at]! + data[at + 1]! + data[at + 2]!) / 3;
};

/** Share of pixels that differ clearly. */
export function difference(a: Picture, b: Picture): number {
  if (a.width !== b.width || a.height !== b.height) return 1;
  let count = 0;
  for (let y = 0; y < a.height; y++) for (let x = 0; x < a.width; x++) if (Math.abs(greyAt(a, x, y) - greyAt(b, x, y)) > 64) count++;
  return count / (a.width * a.height);
}

/** Dark pixels in a box given in points from the lower left of the page. */
export function inkIn(picture: Picture, [left, bottom, right, top]: readonly number[], scale = 2): number {
  let count = 0;
  for (let y = picture.height - Math.round(top! * scale); y < picture.height - Math.round(bottom! * scale); y++) {
    for (let x = Math.round(left! * scale); x < Math.round(right! * scale); x++) if (greyAt(picture, x, y) < 128) count++;
  }
  return count;
}
