import type { Cell, Column } from '@mailbag/core';
import { MailbagError, safeName, writeFdf, writeXfdf } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import ExcelJS from 'exceljs';
import yazl from 'yazl';
import { csvLine } from '../archive/csv-line.js';
import type { Download } from '../platform/download.js';
import { XLSX_TYPE } from '../platform/download.js';
import { SourcesService } from './sources.service.js';

/** Excel cannot hold dates before 1900; those stay text. */
const asDate = (cell: Cell, { kind }: Column): Date | null =>
  kind === 'date' && typeof cell.value === 'string' && /^(19|2\d)\d\d-\d\d-\d\d$/.test(cell.value)
    ? new Date(`${cell.value}T00:00:00Z`)
    : null;

/** Records as they are, corrections included, in open formats. */
@Injectable()
export class RecordExports {
  constructor(private readonly sources: SourcesService) {}

  /** @throws MailbagError not-found */
  async of(id: number, format: string): Promise<Download> {
    const { name } = await this.sources.detail(id);
    const base = safeName(name.replace(/\.\w{1,5}$/, ''));
    switch (format) {
      case 'csv':
        return { name: `${base}.csv`, type: 'text/csv; charset=utf-8', bytes: await this.csv(id) };
      case 'xlsx':
        return { name: `${base}.xlsx`, type: XLSX_TYPE, bytes: await this.xlsx(id) };
      case 'json':
        return { name: `${base}.json`, type: 'application/json', bytes: await this.json(id) };
      case 'xfdf':
        return { name: `${base} xfdf.zip`, type: 'application/zip', bytes: await this.zipped(id, 'xfdf', writeXfdf) };
      case 'fdf':
        return { name: `${base} fdf.zip`, type: 'application/zip', bytes: await this.zipped(id, 'fdf', writeFdf) };
      default:
        throw new MailbagError('not-found', { what: `format ${format}` });
    }
  }

  /** RFC 4180 with a byte order mark, by which spreadsheets know UTF-8. */
  private async csv(id: number): Promise<Uint8Array> {
    const { columns } = await this.sources.detail(id);
    const parts = ['\ufeff', csvLine(columns.map((column) => column.name))];
    for await (const records of this.sources.all(id)) for (const { cells } of records) parts.push(csvLine(cells.map(({ text }) => text)));
    return Buffer.from(parts.join(''));
  }

  /** Texts are strings of the format, which are never run as formulas; numbers and dates keep their kind. */
  private async xlsx(id: number): Promise<Uint8Array> {
    const { columns } = await this.sources.detail(id);
    const book = new ExcelJS.Workbook();
    const sheet = book.addWorksheet('Records', { views: [{ state: 'frozen', ySplit: 1 }] });
    sheet.addRow(columns.map((column) => column.name)).font = { bold: true };
    for await (const records of this.sources.all(id))
      for (const { cells } of records) {
        const row = sheet.addRow(
          cells.map(
            (cell, index) =>
              asDate(cell, columns[index]!) ?? (typeof cell.value === 'number' || typeof cell.value === 'boolean' ? cell.value : cell.text),
          ),
        );
        row.eachCell((cell) => {
          if (cell.value instanceof Date) cell.numFmt = 'yyyy-mm-dd';
        });
      }
    return new Uint8Array(await book.xlsx.writeBuffer());
  }

  private async json(id: number): Promise<Uint8Array> {
    const { columns } = await this.sources.detail(id);
    const lines: string[] = [];
    for await (const records of this.sources.all(id))
      for (const { cells } of records)
        lines.push(JSON.stringify(Object.fromEntries(columns.map(({ name }, index) => [name, cells[index]?.value ?? null]))));
    return Buffer.from(`[\n${lines.join(',\n')}\n]\n`);
  }

  /** One file a record, named by its key. */
  private async zipped(id: number, ending: string, write: (values: ReadonlyMap<string, string>) => Uint8Array): Promise<Uint8Array> {
    const { columns, keyColumn } = await this.sources.detail(id);
    const zip = new yazl.ZipFile();
    const chunks: Buffer[] = [];
    const done = new Promise<void>((resolve, reject) => {
      zip.outputStream
        .on('data', (chunk: Buffer) => chunks.push(chunk))
        .once('end', resolve)
        .once('error', reject);
    });
    const taken = new Set<string>();
    const key = columns.findIndex(({ name }) => name === keyColumn);
    for await (const records of this.sources.all(id))
      for (const { row, cells } of records) {
        let name = safeName(cells[key]?.text.trim() || `row ${row}`);
        if (taken.has(name.toLowerCase())) name = `${name} row ${row}`;
        taken.add(name.toLowerCase());
        zip.addBuffer(
          Buffer.from(write(new Map(columns.map((column, index) => [column.name, cells[index]?.text ?? ''])))),
          `${name}.${ending}`,
        );
      }
    zip.end();
    await done;
    return Buffer.concat(chunks);
  }
}
