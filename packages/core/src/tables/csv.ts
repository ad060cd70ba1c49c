import Papa from 'papaparse';
import { MailbagError } from '../errors/catalogue.js';
import { decoder, guessEncoding } from './encoding.js';
import { Tally } from './gather.js';
import type { SourceNote } from './record.js';

/** How a text file is to be read. Undefined: found out. */
export interface CsvReading {
  encoding?: string;
  delimiter?: string;
}

export interface CsvText {
  text: string;
  encoding: string;
  /** True when nothing in the file says which encoding it is. */
  guessed: boolean;
}

/** Bytes by which an encoding is guessed. */
const SAMPLE = 64 * 1024;

const isUtf8 = (bytes: Uint8Array): boolean => {
  try {
    decoder('utf-8', true).decode(bytes);
    return true;
  } catch {
    return false;
  }
};

/** Reads bytes as text: byte order mark, pattern of zero bytes, strict UTF-8, then by the letters. */
export function decodeText(bytes: Uint8Array, encoding?: string): CsvText {
  if (encoding) {
    let text: string;
    try {
      text = decoder(encoding).decode(bytes);
    } catch {
      throw new MailbagError('sheet-encoding-unknown', { encoding });
    }
    return { text: text.replace(/^\ufeff/, ''), encoding, guessed: false };
  }
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf)
    return {
      text: decoder('utf-8')
        .decode(bytes)
        .replace(/^\ufeff/, ''),
      encoding: 'utf-8',
      guessed: false,
    };
  if (bytes[0] === 0xff && bytes[1] === 0xfe)
    return {
      text: decoder('utf-16le')
        .decode(bytes)
        .replace(/^\ufeff/, ''),
      encoding: 'utf-16le',
      guessed: false,
    };
  if (bytes[0] === 0xfe && bytes[1] === 0xff)
    return {
      text: decoder('utf-16be')
        .decode(bytes)
        .replace(/^\ufeff/, ''),
      encoding: 'utf-16be',
      guessed: false,
    };
  const sample = bytes.subarray(0, 2048);
  const zeros = [0, 0];
  sample.forEach((byte, index) => {
    if (byte === 0) zeros[index % 2]!++;
  });
  if (zeros[1]! > sample.length / 4) return { text: decoder('utf-16le').decode(bytes), encoding: 'utf-16le', guessed: true };
  if (zeros[0]! > sample.length / 4) return { text: decoder('utf-16be').decode(bytes), encoding: 'utf-16be', guessed: true };
  if (isUtf8(bytes)) return { text: decoder('utf-8').decode(bytes), encoding: 'utf-8', guessed: false };
  const label = guessEncoding(bytes.subarray(0, SAMPLE));
  return { text: decoder(label).decode(bytes), encoding: label, guessed: true };
}

/** Rows that a title, empty rows and the headings may take beside the records. */
const HEAD_ROOM = 1000;
const DELIMITERS = [',', ';', '\t', '|'];

/** The delimiter that divides the first lines into the most even rows; a `sep=` line decides. */
export function findDelimiter(text: string): string {
  const declared = /^sep=(.)\r?\n/i.exec(text)?.[1];
  if (declared) return declared;
  const head = text.slice(0, 64 * 1024);
  let best = { delimiter: ',', score: 0 };
  for (const delimiter of DELIMITERS) {
    const rows = (Papa.parse<string[]>(head, { delimiter, preview: 50, skipEmptyLines: true }).data as string[][]).slice(0, -1);
    const parsed = rows.length > 0 ? rows : (Papa.parse<string[]>(head, { delimiter, preview: 50 }).data as string[][]);
    const widths = parsed.map((row) => row.length);
    const usual = widths.sort((a, b) => a - b)[Math.floor(widths.length / 2)] ?? 1;
    const even = parsed.filter((row) => row.length === usual).length / Math.max(1, parsed.length);
    const score = usual > 1 ? even * 10 + Math.min(usual, 9) / 10 : 0;
    if (score > best.score) best = { delimiter, score };
  }
  return best.delimiter;
}

/**
 * Rows of a CSV file in its own order (RFC 4180), cells as text.
 * @param limits `rows`: how many there may be below the headings; `preview`: only so many of the first are read
 * @throws MailbagError sheet-empty, sheet-too-many-rows, sheet-encoding-unknown
 */
export function readCsv(
  bytes: Uint8Array,
  file: string,
  reading: CsvReading = {},
  limits: { rows?: number; preview?: number } = {},
): { rows: string[][]; encoding: string; delimiter: string; notes: SourceNote[] } {
  const { text, encoding, guessed } = decodeText(bytes, reading.encoding);
  if (text.trim() === '') throw new MailbagError('sheet-empty', { where: file });
  const delimiter = reading.delimiter ?? findDelimiter(text);
  const most = limits.preview ?? (limits.rows ?? Infinity) + HEAD_ROOM;
  const rows: string[][] = [];
  const broken = new Tally();
  Papa.parse<string[]>(text.replace(/^sep=.\r?\n/i, ''), {
    delimiter,
    step: (result, parser) => {
      rows.push(result.data);
      if (result.errors.some(({ type }) => type === 'Quotes')) broken.add(`row ${rows.length}`);
      if (rows.length >= most) parser.abort();
    },
  });
  if (limits.preview === undefined && rows.length >= most)
    throw new MailbagError('sheet-too-many-rows', { where: file, limit: limits.rows! });
  while (rows.length > 0 && rows.at(-1)!.every((cell) => cell === '')) rows.pop();
  return {
    rows,
    encoding,
    delimiter,
    notes: [...broken.note('broken-quotes'), ...(guessed ? [{ code: 'encoding-guessed' as const, count: 1, names: [encoding] }] : [])],
  };
}
