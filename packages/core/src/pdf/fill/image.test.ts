import { inflateSync } from 'node:zlib';
import { encode } from 'fast-png';
import { readImage } from './image.js';

const png = (channels: 1 | 2 | 3 | 4, data: number[]): Uint8Array =>
  encode({ width: 2, height: 1, channels, depth: 8, data: Uint8Array.from(data) });

// zlib of Node is another program than the one that packs.
test.each([
  ['grey', png(1, [7, 200]), '/DeviceGray', [7, 200], null],
  ['grey that shows through', png(2, [7, 255, 200, 0]), '/DeviceGray', [7, 200], [255, 0]],
  ['colours', png(3, [1, 2, 3, 4, 5, 6]), '/DeviceRGB', [1, 2, 3, 4, 5, 6], null],
  ['colours that show through', png(4, [1, 2, 3, 9, 4, 5, 6, 255]), '/DeviceRGB', [1, 2, 3, 4, 5, 6], [9, 255]],
  ['colours that do not after all', png(4, [1, 2, 3, 255, 4, 5, 6, 255]), '/DeviceRGB', [1, 2, 3, 4, 5, 6], null],
])('%s of a PNG are samples in a Flate stream, with a mask where it shows through', (_, bytes, space, samples, mask) => {
  const image = readImage(bytes, 'seal');
  expect(image.entries).toBe(`/ColorSpace${space}/BitsPerComponent 8/Filter/FlateDecode`);
  expect([...inflateSync(image.bytes)]).toEqual(samples);
  expect(image.mask && [...inflateSync(image.mask)]).toEqual(mask);
});

test('a signature is small in every copy, and read once as long as its bytes are held', () => {
  const bytes = encode({ width: 600, height: 200, channels: 4, depth: 8, data: new Uint8Array(600 * 200 * 4).fill(90, 4000, 9000) });
  const image = readImage(bytes, 'seal');
  expect(image.bytes.length + image.mask!.length).toBeLessThan(5000);
  expect(readImage(bytes, 'seal')).toBe(image);
});

test.each([
  ['nothing', []],
  ['text', [...'no picture'].map((char) => char.charCodeAt(0))],
  ['a PNG that ends in its head', [...png(1, [7, 200]).subarray(0, 20)]],
  ['a JPEG without a frame', [0xff, 0xd8, 0xff, 0xd9]],
])('%s is no picture', (_, bytes) => expect(() => readImage(Uint8Array.from(bytes), 'seal')).toThrow(/seal/));
