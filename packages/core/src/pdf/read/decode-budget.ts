import { PDFDict, PDFContext, PDFName, PDFRawStream, PDFXRefStreamParser, decodePDFRawStream } from '@cantoo/pdf-lib';

/**
 * The library takes the filters of a stream off without asking how much comes out, and believes the number of entries that a cross-reference stream
 * says it has: two kilobytes can stand for gigabytes. What one file may come to is bounded here, where its streams grow.
 */
const MB = 1024 * 1024;
/** Bytes of one stream without its filters. */
const LARGEST_STREAM = 128 * MB;
/** Characters of texts that are taken from a file: names, values, options. What is shared counts as often as it is taken. */
const MOST_TEXT = 32 * MB;
/** Bytes of all streams of a file that are decoded, beyond so many times its size. */
const FREE_BYTES = 256 * MB;
const TIMES = 30;

export class TooMuchInside extends Error {
  constructor() {
    super('more comes out of the file than it may hold');
  }
}

let left = Infinity;
let textLeft = Infinity;

interface Decoding {
  buffer: Uint8Array;
  ensureBuffer(requested: number): Uint8Array;
}
interface Section {
  firstObjectNumber: number;
  length: number;
}
interface EntriesParser {
  subsections: Section[];
  byteWidths: number[];
  bytes: { bytes: Uint8Array };
  parseEntries(): unknown[];
}

function guard(): void {
  const dict = PDFDict.withContext(PDFContext.create());
  dict.set(PDFName.of('Filter'), PDFName.of('FlateDecode'));
  const decoding = decodePDFRawStream(PDFRawStream.of(dict, Uint8Array.of(0x78, 0x9c, 3, 0, 0, 0, 0, 1)));
  const stream = Object.getPrototypeOf(Object.getPrototypeOf(decoding)) as Decoding;
  const { ensureBuffer } = stream;
  stream.ensureBuffer = function (requested) {
    const before = this.buffer.length;
    if (requested <= before) return this.buffer;
    left -= requested > LARGEST_STREAM ? Infinity : requested - before;
    if (left < 0) throw new TooMuchInside();
    return ensureBuffer.call(this, requested);
  };
  const entries = PDFXRefStreamParser.prototype as unknown as EntriesParser;
  const { parseEntries } = entries;
  entries.parseEntries = function () {
    // An entry of no bytes at all would still be one.
    const width = Math.max(
      1,
      this.byteWidths.reduce((sum, one) => sum + Math.max(0, one), 0),
    );
    const count = this.subsections.reduce((sum, { length }) => sum + Math.max(0, length), 0);
    // The library finds objects by their headers; it goes by these entries for nothing else.
    return count * width <= this.bytes.bytes.length + width ? parseEntries.call(this) : [];
  };
}
guard();

/** From here on, so much may be decoded until the next file is opened. @param size bytes of the file */
export function allowDecoding(size: number): void {
  left = FREE_BYTES + size * TIMES;
  textLeft = MOST_TEXT;
}

/** Takes a text out of the file. @throws TooMuchInside */
export function takeText(bytes: number): void {
  textLeft -= bytes;
  if (textLeft < 0) throw new TooMuchInside();
}

/** Whether the file that was opened last has come to more than it may. */
export const isOverBudget = (): boolean => left < 0 || textLeft < 0;
