import Papa from 'papaparse';
import { MailbagError } from '../errors/catalogue.js';
import { decoder, guessEncoding } from './encoding.js';
import { COLUMN_LIMIT, Tally } from './gather.js';
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

/**
 * The order of a text in UTF-16 that does not say so; null: it is none. No other encoding has bytes of 0 in a text; where they stand, and be it in line
 * breaks only, tells the order, and beside each stands a character of ASCII.
 */
export function wideOrder(sample: Uint8Array): 'utf-16le' | 'utf-16be' | null {
  const zeros = [0, 0];
  let plain = 0;
  for (let at = 0; at + 1 < sample.length; at += 2) {
    const [first, second] = [sample[at]!, sample[at + 1]!];
    if ((first === 0) === (second === 0)) continue;
    zeros[first === 0 ? 0 : 1]!++;
    const other = first === 0 ? second : first;
    if (other === 9 || other === 10 || other === 13 || other >= 32) plain++;
  }
  const [even, odd] = [zeros[0]!, zeros[1]!];
  if (even + odd < Math.max(2, sample.length / 200) || plain < (even + odd) * 0.95) return null;
  return odd > 3 * even ? 'utf-16le' : even > 3 * odd ? 'utf-16be' : null;
}

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
  const wide = wideOrder(bytes.subarray(0, 4096));
  if (wide) return { text: decoder(wide).decode(bytes), encoding: wide, guessed: true };
  if (isUtf8(bytes)) return { text: decoder('utf-8').decode(bytes), encoding: 'utf-8', guessed: false };
  const label = guessEncoding(bytes.subarray(0, SAMPLE));
  return { text: decoder(label).decode(bytes), encoding: label, guessed: true };
}

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

/** Delimiters on one line; more would be taken apart into more cells than a machine holds before anybody could count them. */
const MOST_ON_A_LINE = 100_000;

/** @throws MailbagError sheet-too-many-columns */
function refuseEndlessLines(text: string, delimiter: string, file: string): void {
  const sign = delimiter.charCodeAt(0);
  let count = 0;
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === 10 || code === 13) count = 0;
    else if (code === sign && ++count > MOST_ON_A_LINE) {
      for (at++; at < text.length && text[at] !== '\n' && text[at] !== '\r'; at++) if (text.charCodeAt(at) === sign) count++;
      throw new MailbagError('sheet-too-many-columns', { where: file, columns: count + 1, limit: COLUMN_LIMIT });
    }
  }
}

export interface CsvTable {
  encoding: string;
  delimiter: string;
  /**
   * Goes through the rows in the file's own order, cells as text. @param onRow `row` is 1-based; returns false to stop
   * @returns rows with quotes that never end
   */
  rows(onRow: (cells: string[], row: number) => boolean): SourceNote[];
  notes: SourceNote[];
}

/**
 * Opens a CSV file (RFC 4180). Rows are gone through for each question, so that they are never in memory whole.
 * @throws MailbagError sheet-empty, sheet-encoding-unknown, sheet-too-many-columns
 */
export function openCsv(bytes: Uint8Array, file: string, reading: CsvReading = {}): CsvTable {
  const { text: whole, encoding, guessed } = decodeText(bytes, reading.encoding);
  if (whole.trim() === '') throw new MailbagError('sheet-empty', { where: file });
  const delimiter = reading.delimiter ?? findDelimiter(whole);
  const text = whole.replace(/^sep=.\r?\n/i, '');
  refuseEndlessLines(text, delimiter, file);
  return {
    encoding,
    delimiter,
    notes: guessed ? [{ code: 'encoding-guessed', count: 1, names: [encoding] }] : [],
    rows(onRow) {
      const broken = new Tally();
      let row = 0;
      Papa.parse<string[]>(text, {
        delimiter,
        step: ({ data, errors }, parser) => {
          row++;
          if (errors.some(({ type }) => type === 'Quotes')) broken.add(`row ${row}`);
          if (!onRow(data, row)) parser.abort();
        },
      });
      return broken.note('broken-quotes');
    },
  };
}

/** The first rows of a CSV file. */
export function firstCsvRows({ rows }: CsvTable, maximum: number): string[][] {
  const found: string[][] = [];
  rows((cells) => found.push(cells) < maximum);
  while (found.length > 0 && found.at(-1)!.every((cell) => cell === '')) found.pop();
  return found;
}
