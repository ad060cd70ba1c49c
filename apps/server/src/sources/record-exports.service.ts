import type { Cell, Column } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, csvLine, safeName, writeFdf, writeXfdf } from '@mailbag/core';
import { Readable } from 'node:stream';
import { Injectable } from '@nestjs/common';
import yazl from 'yazl';
import { XLSX_TYPE } from '../files/download.js';
import { sheetStream } from '../files/sheet-stream.js';
import type { SheetValue } from '../files/sheet-stream.js';
import { SourcesService } from './sources.service.js';

/** Excel cannot hold dates before 1900; those stay text. */
const asDate = (cell: Cell, { kind }: Column): Date | null =>
  kind === 'date' && typeof cell.value === 'string' && /^(19|2\d)\d\d-\d\d-\d\d$/.test(cell.value)
    ? new Date(`${cell.value}T00:00:00Z`)
    : null;

const sheetValue = (cell: Cell, column: Column): SheetValue =>
  asDate(cell, column) ?? (typeof cell.value === 'number' || typeof cell.value === 'boolean' ? cell.value : cell.text);

/** A file that is written as it is sent. */
export interface Stream {
  name: string;
  type: string;
  stream: Readable;
}

/** Records as they are, corrections included, in open formats. Written block by block, so a hundred thousand take no more memory than ten. */
@Injectable()
export class RecordExports {
  constructor(private readonly sources: SourcesService) {}

  /** @throws MailbagError not-found */
  async of(id: number, format: string): Promise<Stream> {
    const { name, columns, keyColumn, corrections } = await this.sources.detail(id);
    const base = safeName(`${name.replace(/\.\w{1,5}$/, '')}${corrections > 0 ? ', corrected' : ''}`);
    switch (format) {
      case 'csv':
        return { name: `${base}.csv`, type: 'text/csv; charset=utf-8', stream: Readable.from(this.csv(id, columns)) };
      case 'xlsx':
        return { name: `${base}.xlsx`, type: XLSX_TYPE, stream: this.xlsx(id, columns) };
      case 'json':
        return { name: `${base}.json`, type: 'application/json', stream: Readable.from(this.json(id, columns)) };
      case 'xfdf':
        return { name: `${base} xfdf.zip`, type: 'application/zip', stream: this.zipped(id, columns, keyColumn, 'xfdf', writeXfdf) };
      case 'fdf':
        return { name: `${base} fdf.zip`, type: 'application/zip', stream: this.zipped(id, columns, keyColumn, 'fdf', writeFdf) };
      default:
        throw new MailbagError('not-found', { what: t`format ${format}` });
    }
  }

  /** RFC 4180 with a byte order mark, by which spreadsheets know UTF-8. */
  private async *csv(id: number, columns: readonly Column[]): AsyncGenerator<string> {
    yield `\ufeff${csvLine(columns.map((column) => column.name))}`;
    for await (const records of this.sources.all(id)) yield records.map(({ cells }) => csvLine(cells.map(({ text }) => text))).join('');
  }

  private xlsx(id: number, columns: readonly Column[]): Readable {
    return sheetStream(
      'Records',
      columns.map(({ name }) => ({ heading: name })),
      this.sheetRows(id, columns),
    );
  }
  private async *sheetRows(id: number, columns: readonly Column[]): AsyncGenerator<SheetValue[][]> {
    for await (const records of this.sources.all(id))
      yield records.map(({ cells }) => cells.map((cell, at) => sheetValue(cell, columns[at]!)));
  }

  private async *json(id: number, columns: readonly Column[]): AsyncGenerator<string> {
    let begin = '[\n';
    for await (const records of this.sources.all(id)) {
      if (records.length === 0) continue;
      yield (
        begin +
        records
          .map(({ cells }) => JSON.stringify(Object.fromEntries(columns.map(({ name }, index) => [name, cells[index]?.value ?? null]))))
          .join(',\n')
      );
      begin = ',\n';
    }
    yield begin === '[\n' ? '[]\n' : '\n]\n';
  }

  /** One file a record, named by its key. */
  private zipped(
    id: number,
    columns: readonly Column[],
    keyColumn: string | null,
    ending: string,
    write: (values: ReadonlyMap<string, string>) => Uint8Array,
  ): Readable {
    const zip = new yazl.ZipFile();
    const out = zip.outputStream as unknown as Readable;
    void (async () => {
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
    })().catch((error: Error) => out.destroy(error));
    return out;
  }
}
