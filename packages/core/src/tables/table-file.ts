import { MailbagError } from '../errors/catalogue.js';
import type { ZipParts } from '../platform/ports.js';
import { decodeText, wideOrder } from './csv.js';
import type { Column, ColumnReading, SourceNote } from './record.js';
import type { ForeignBook } from './sheet-book.js';

/** A file as the host offers it: its bytes, its parts when it is a zip file, and a way to read the older binary workbooks. */
export interface TableFile {
  name: string;
  bytes: Uint8Array;
  zip: ZipParts | null;
  /** Names of the fields of the templates that are there: a column of them names what stands beside it. */
  fieldNames?: readonly string[];
  /** Reads a workbook in a binary format with a library, apart and with limited memory. @throws MailbagError sheet-* */
  foreign?: () => Promise<ForeignBook>;
}

/** How a table is to be read. Undefined: guessed. */
export interface TableReading {
  sheet?: string;
  /** Row of the headings, 1-based. */
  headingRow?: number;
  encoding?: string;
  delimiter?: string;
  /** `pairs`: labels and values down the page, a sheet a record. */
  layout?: 'table' | 'pairs';
  /** Of labels and values: what each column is, a letter a column: l labels, n technical names, v values, - none of them. */
  roles?: string;
  /** The column whose value is the same in all rows of one record. Undefined: each row is a record. */
  onePer?: string;
  /** By the name of the column. */
  columns?: Record<string, ColumnReading>;
}

export type TableKind = 'xlsx' | 'ods' | 'foreign' | 'csv' | 'xfdf' | 'fdf' | 'xml' | 'json' | 'pdf';

/** The first rows of a file with what was guessed, before anything is accepted. */
export interface TableExcerpt {
  kind: TableKind;
  layout: 'table' | 'pairs';
  /** What each column was taken for where labels and values run down the page, as in `TableReading`; null: a table. */
  roles: string | null;
  sheets: { name: string; hidden: boolean }[];
  sheet: string | null;
  /** 0 where there is none: label-value sheets and form data. */
  headingRow: number;
  encoding: string | null;
  delimiter: string | null;
  /** Up to 30 rows as text; `row` is 1-based. */
  rows: { row: number; cells: string[] }[];
}

export interface TableResult {
  columns: Column[];
  count: number;
  notes: SourceNote[];
  reading: TableReading;
}

const startsWith = (bytes: Uint8Array, text: string): boolean => [...text].every((char, index) => bytes[index] === char.charCodeAt(0));

/** Bytes of a file, unpacked. */
export const sizeOf = ({ bytes, zip }: TableFile): number => zip?.parts.reduce((sum, { size }) => sum + size, 0) ?? bytes.length;

/** What kind of file this is by its first bytes. @throws MailbagError for what is neither a workbook nor text nor form data */
export function tableKind(file: TableFile): TableKind {
  const { bytes, name, zip } = file;
  const [a, b, c, d] = bytes;
  if (bytes.length === 0) throw new MailbagError('sheet-empty', { where: name });
  if (a === 0x50 && b === 0x4b) {
    const has = (part: string): boolean => zip?.parts.some((one) => one.name === part) ?? false;
    return has('xl/workbook.bin') ? 'foreign' : has('content.xml') && !has('xl/workbook.xml') ? 'ods' : 'xlsx';
  }
  if (a === 0xd0 && b === 0xcf && c === 0x11 && d === 0xe0) {
    let head = '';
    for (const byte of bytes.subarray(0, 65_536)) if (byte !== 0) head += String.fromCharCode(byte);
    if (head.includes('EncryptedPackage') || head.includes('EncryptionInfo')) throw new MailbagError('sheet-password', { file: name });
    return 'foreign';
  }
  if (startsWith(bytes, '%PDF')) return 'pdf';
  if (startsWith(bytes, '%FDF')) return 'fdf';
  const sample = bytes.subarray(0, 4096);
  const zeros = sample.filter((byte) => byte === 0).length;
  const odd = sample.filter((byte) => byte < 9 || (byte > 13 && byte < 32)).length - zeros;
  const isWide = (a === 0xff && b === 0xfe) || (a === 0xfe && b === 0xff) || wideOrder(sample) !== null;
  if ((odd > sample.length / 50 && !isWide) || (zeros > 0 && !isWide)) throw new MailbagError('sheet-not-a-workbook', { file: name });
  const head = decodeText(sample).text.trimStart();
  // Programs save tables of HTML, or an older XML of their own, under the names of workbooks.
  if (/^<(html|table|!doctype html)/i.test(head) || /^<\?xml[^>]*>\s*(<\?mso-application[^>]*>\s*)?<(\w+:)?Workbook\b/.test(head))
    return 'foreign';
  if (head.startsWith('<'))
    return /<([\w-]+:)?xfdf[\s>]/.test(head) ? 'xfdf' : /^<(\?xml|!DOCTYPE|[\w-]+[\s>/])/.test(head) ? 'xml' : 'csv';
  return /^[[{]\s*["[{}\]]/.test(head) && /\.json$/i.test(name) ? 'json' : /^(\[\s*\{|\{\s*")/.test(head) ? 'json' : 'csv';
}
