import { MailbagError } from '../../errors/catalogue.js';
import { assertImage } from './image.js';

/** Chunks that a PNG is drawn by (ISO/IEC 15948, 11.2 and 11.3.2); all others tell something else. */
const PNG_CHUNKS = new Set(['IHDR', 'PLTE', 'IDAT', 'IEND', 'tRNS', 'gAMA', 'cHRM', 'sRGB', 'sBIT']);
const PNG_HEAD = 8;

function barePng(bytes: Uint8Array): Uint8Array[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept = [bytes.subarray(0, PNG_HEAD)];
  for (let at = PNG_HEAD; at + 12 <= bytes.length;) {
    // Length, type, data and check sum (ISO/IEC 15948, 5.3).
    const end = at + 12 + view.getUint32(at);
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (end > bytes.length) break;
    if (PNG_CHUNKS.has(type)) kept.push(bytes.subarray(at, end));
    if (type === 'IEND') return kept;
    at = end;
  }
  throw new MailbagError('image-unreadable', { field: 'picture' });
}

/** Markers of a JPEG (ITU-T T.81, table B.1). */
const [SOI, EOI, SOS, COM, APP0, APP14, APP15] = [0xd8, 0xd9, 0xda, 0xfe, 0xe0, 0xee, 0xef] as const;
/** Whether a segment only tells something: comments and what applications add, but for JFIF's and the one that says which colours are meant (ISO/IEC 10918-6, 6.5.3). */
const isTold = (marker: number): boolean => marker === COM || (marker > APP0 && marker <= APP15 && marker !== APP14);

function bareJpeg(bytes: Uint8Array): Uint8Array[] {
  const kept = [bytes.subarray(0, 2)];
  for (let at = 2; at + 1 < bytes.length;) {
    // A marker may have fill bytes before it (ITU-T T.81, B.1.1.2).
    if (bytes[at] === 0xff && bytes[at + 1] === 0xff) {
      at++;
      continue;
    }
    const marker = bytes[at + 1]!;
    if (bytes[at] !== 0xff || marker === SOI) break;
    if (marker === EOI) return [...kept, bytes.subarray(at, at + 2)];
    const next = at + 2 + (bytes[at + 2]! << 8) + bytes[at + 3]!;
    let end = next;
    // What is drawn follows the head of a scan, up to the next marker that is neither a stuffed zero nor a restart.
    if (marker === SOS)
      while (end < bytes.length && !(bytes[end] === 0xff && bytes[end + 1] !== 0 && !(bytes[end + 1]! >= 0xd0 && bytes[end + 1]! <= 0xd7)))
        end++;
    if (next <= at + 3 || end > bytes.length) break;
    if (!isTold(marker)) kept.push(bytes.subarray(at, end));
    at = end;
  }
  throw new MailbagError('image-unreadable', { field: 'picture' });
}

/**
 * The same picture with nothing but what is drawn: where, when and with what it was taken, comments, previews and whatever hides behind its end are gone. Its pixels
 * stay as they are. What turns a picture in some programs only goes too (Exif 2.32, 4.6.4 Orientation): a PDF never turned it.
 * @param bytes PNG or JPEG @throws MailbagError image-unreadable
 */
export function bareImage(bytes: Uint8Array): Uint8Array {
  assertImage(bytes, 'picture');
  const parts = bytes[0] === 0xff ? bareJpeg(bytes) : barePng(bytes);
  const bare = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    bare.set(part, at);
    at += part.length;
  }
  return bare;
}
