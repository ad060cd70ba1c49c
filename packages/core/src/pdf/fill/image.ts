import { decode as decodePng } from 'fast-png';
import { zlibSync } from 'fflate';
import { MailbagError } from '../../errors/catalogue.js';

/** A raster image ready to be an image XObject (ISO 32000-2, 8.9.5). */
export interface ImageData {
  width: number;
  height: number;
  /** Entries of its dictionary without type and size. */
  entries: string;
  bytes: Uint8Array;
  /** 8 bit a pixel, 0 transparent, as a Flate stream (ISO 32000-2, 7.4.4); null: opaque. */
  mask: Uint8Array | null;
}

/** Pixels of a side; what is larger is no signature or picture for a form. */
const LARGEST_SIDE = 10_000;
const MOST_PIXELS = 25_000_000;

/** Reads size and colours of a JPEG from its frame header (ITU-T T.81, B.2.2). */
function readJpeg(bytes: Uint8Array, field: string): ImageData {
  for (let at = 2; at + 9 < bytes.length;) {
    if (bytes[at] !== 0xff) break;
    const marker = bytes[at + 1]!;
    if (marker >= 0xc0 && marker <= 0xcf && marker !== 0xc4 && marker !== 0xc8 && marker !== 0xcc) {
      const colours = bytes[at + 9]!;
      const space = { 1: '/DeviceGray', 3: '/DeviceRGB', 4: '/DeviceCMYK/Decode[1 0 1 0 1 0 1 0]' }[colours];
      const [height, width] = [bytes[at + 5]! * 256 + bytes[at + 6]!, bytes[at + 7]! * 256 + bytes[at + 8]!];
      if (!space || width === 0 || height === 0) break;
      return { width, height, entries: `/ColorSpace${space}/BitsPerComponent ${bytes[at + 4]}/Filter/DCTDecode`, bytes, mask: null };
    }
    at +=
      marker === 0xff || (marker >= 0xd0 && marker <= 0xd9) || marker === 1
        ? marker === 0xff
          ? 1
          : 2
        : 2 + bytes[at + 2]! * 256 + bytes[at + 3]!;
  }
  throw new MailbagError('image-unreadable', { field });
}

/** The size that a PNG says it has, before anything of it is unpacked. */
function pngSize(bytes: Uint8Array): [width: number, height: number] {
  const word = (at: number): number => ((bytes[at]! << 24) | (bytes[at + 1]! << 16) | (bytes[at + 2]! << 8) | bytes[at + 3]!) >>> 0;
  return [word(16), word(20)];
}

function readPng(bytes: Uint8Array, field: string): ImageData {
  const size = pngSize(bytes);
  if (size.some((side) => side === 0 || side > LARGEST_SIDE) || size[0] * size[1] > MOST_PIXELS)
    throw new MailbagError('image-unreadable', { field });
  let png: ReturnType<typeof decodePng>;
  try {
    png = decodePng(bytes);
  } catch (error) {
    throw new MailbagError('image-unreadable', { field }, { cause: error });
  }
  const { width, height, depth, palette } = png;
  const count = width * height;
  const channels = palette ? 1 : png.channels;
  const isGrey = !palette && channels < 3;
  const colours = new Uint8Array(count * (isGrey ? 1 : 3));
  const mask = new Uint8Array(count).fill(255);
  const scale = depth === 16 ? 1 / 257 : depth < 8 && !palette ? 255 / ((1 << depth) - 1) : 1;
  const perByte = depth < 8 ? 8 / depth : 1;
  const rowBytes = depth < 8 ? Math.ceil((width * channels * depth) / 8) : 0;
  const sample = (pixel: number, channel: number): number => {
    if (depth >= 8) return png.data[pixel * channels + channel]! * scale;
    const [row, column] = [Math.floor(pixel / width), pixel % width];
    const byte = png.data[row * rowBytes + Math.floor(column / perByte)]!;
    return ((byte >> (8 - depth * ((column % perByte) + 1))) & ((1 << depth) - 1)) * scale;
  };
  for (let pixel = 0; pixel < count; pixel++) {
    if (palette) {
      const [r = 0, g = 0, b = 0, a = 255] = palette[sample(pixel, 0)] ?? [];
      colours.set([r, g, b], pixel * 3);
      mask[pixel] = a;
      continue;
    }
    for (let channel = 0; channel < (isGrey ? 1 : 3); channel++) colours[pixel * (isGrey ? 1 : 3) + channel] = sample(pixel, channel);
    if (channels === 2 || channels === 4) mask[pixel] = sample(pixel, channels - 1);
  }
  return {
    width,
    height,
    entries: `/ColorSpace${isGrey ? '/DeviceGray' : '/DeviceRGB'}/BitsPerComponent 8/Filter/FlateDecode`,
    bytes: zlibSync(colours),
    mask: mask.every((one) => one === 255) ? null : zlibSync(mask),
  };
}

/** What was read of files that are still held: a batch puts the same picture on copy after copy. */
const known = new WeakMap<Uint8Array, ImageData>();

/** Reads a PNG or JPEG, once for as long as its bytes are held. @throws MailbagError image-unreadable */
export function readImage(bytes: Uint8Array, field: string): ImageData {
  const before = known.get(bytes);
  if (before) return before;
  const isJpeg = bytes[0] === 0xff && bytes[1] === 0xd8;
  if (!isJpeg && !(bytes[0] === 0x89 && bytes[1] === 0x50)) throw new MailbagError('image-unreadable', { field });
  const image = isJpeg ? readJpeg(bytes, field) : readPng(bytes, field);
  known.set(bytes, image);
  return image;
}

/** @throws MailbagError image-unreadable when a file is no picture that can be drawn */
export const assertImage = (bytes: Uint8Array, name: string): void => void readImage(bytes, name);

/** Where an image stands in a box, its aspect kept: as large as fits, in the middle. */
export function placeImage(
  image: { width: number; height: number },
  box: { width: number; height: number; border: number },
): { x: number; y: number; width: number; height: number } {
  const [room, tall] = [box.width - 2 * box.border, box.height - 2 * box.border];
  const scale = Math.min(room / image.width, tall / image.height);
  const [width, height] = [image.width * scale, image.height * scale];
  return { x: (box.width - width) / 2, y: (box.height - height) / 2, width, height };
}
