import { encode } from 'fast-png';

/** Small pictures that are drawn by code: black and one colour on nothing. */

type Rgb = readonly [number, number, number];
const ink: Rgb = [33, 49, 61];

class Sheet {
  private readonly data: Uint8Array;
  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    this.data = new Uint8Array(width * height * 4);
  }
  dot(x: number, y: number, radius: number, [red, green, blue]: Rgb = ink): this {
    for (let row = Math.floor(y - radius); row <= y + radius; row++)
      for (let column = Math.floor(x - radius); column <= x + radius; column++)
        if (row >= 0 && column >= 0 && row < this.height && column < this.width && (row - y) ** 2 + (column - x) ** 2 <= radius ** 2)
          this.data.set([red, green, blue, 255], (row * this.width + column) * 4);
    return this;
  }
  /** A line along a curve. @param at the place for each part of the way, from 0 to 1 */
  along(at: (part: number) => [x: number, y: number], width: number, colour: Rgb = ink): this {
    for (let step = 0; step <= 1500; step++) this.dot(...at(step / 1500), width, colour);
    return this;
  }
  png(): Uint8Array {
    return encode({ width: this.width, height: this.height, channels: 4, depth: 8, data: this.data });
  }
}
const turn = 2 * Math.PI;

/** The signature of the head of the office, as she writes it. */
export const officeSignature = (): Uint8Array =>
  new Sheet(440, 120)
    .along((part) => [30 + part * 330 + 16 * Math.sin(part * 34), 64 - 38 * Math.sin(part * 26) * (1 - part * 0.75) - part * 8], 2.2)
    .along((part) => [60 + part * 340, 100 - part * 16], 1.6)
    .png();

const sun = (): Sheet => {
  const sheet = new Sheet(240, 240).dot(120, 120, 52, [226, 160, 36]);
  for (let ray = 0; ray < 12; ray++)
    sheet.along(
      (part) => [120 + Math.cos((ray / 12) * turn) * (66 + part * 38), 120 + Math.sin((ray / 12) * turn) * (66 + part * 38)],
      5,
      [226, 160, 36],
    );
  return sheet;
};
const snail = (): Sheet =>
  new Sheet(240, 240)
    .along((part) => [40 + part * 165, 180 - Math.sin(part * Math.PI) * 4], 12, [150, 128, 84])
    .along((part) => [198 + part * 18, 172 - part * 48], 5, [150, 128, 84])
    .along((part) => [112 + Math.cos(part * 3 * turn) * part * 62, 116 + Math.sin(part * 3 * turn) * part * 62], 6);
const tulip = (): Sheet => {
  const sheet = new Sheet(240, 240).along((part) => [120 + Math.sin(part * 3) * 6, 224 - part * 110], 5, [74, 122, 72]);
  for (const side of [-1, 0, 1]) sheet.along((part) => [120 + side * 32 * Math.sin(part * Math.PI), 116 - part * 76], 16, [176, 66, 74]);
  return sheet;
};
const wave = (): Sheet => {
  const sheet = new Sheet(240, 240);
  for (const row of [0, 1, 2]) sheet.along((part) => [24 + part * 192, 80 + row * 44 + Math.sin(part * 18) * 14], 6, [58, 106, 148]);
  return sheet;
};

/** Signs that families paint for their beds, by what they show. */
export const bedSigns = (): Record<string, Uint8Array> =>
  Object.fromEntries(Object.entries({ sun, snail, tulip, wave }).map(([name, draw]) => [name, draw().png()]));
