import { csvLine, savedName } from '@mailbag/core';
import { Readable } from 'node:stream';
import type { CopyRow, LedgerFilterQuery } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { fileKey } from '../files/file-key.js';
import { sheetStream } from '../files/sheet-stream.js';
import type { ZipPart } from '../files/zip-of-files.js';
import { zipOfFiles } from '../files/zip-of-files.js';
import { SettingsService } from '../settings/settings.service.js';
import { Ledger } from './ledger.service.js';

const columns: [heading: string, value: (row: CopyRow) => string][] = [
  ['Code', ({ code }) => code],
  ['Recipient', ({ recipient }) => recipient],
  ['Address', ({ address }) => address],
  ['State', ({ state }) => state],
  ['Since', ({ since }) => since],
  ['Trouble', ({ trouble }) => trouble ?? ''],
  ['Trouble code', ({ troubleCode }) => troubleCode ?? ''],
  ['Mailing', ({ mailingName }) => mailingName],
  ['Batch', ({ batchNumber }) => String(batchNumber)],
  ['Template', ({ templateName }) => templateName],
  ['File', ({ file }) => file],
];

/** The ledger as files, as the filter leaves it. Written row by row, so a million copies take no more memory than ten. */
@Injectable()
export class LedgerExports {
  constructor(
    private readonly ledger: Ledger,
    private readonly settings: SettingsService,
  ) {}

  /** What a file of what a filter leaves is called. */
  nameOf(what: 'Ledger' | 'Copies', { state, trouble, paper, text, from, to }: LedgerFilterQuery, extension: string): string {
    const days = from || to ? `${from ?? 'beginning'} to ${to ?? 'today'}` : null;
    return savedName([what, state, trouble && `${trouble} trouble`, paper && 'for paper', text, days], this.settings.today(), extension);
  }

  private async *lines(filter: LedgerFilterQuery): AsyncGenerator<string> {
    yield `\ufeff${csvLine(columns.map(([heading]) => heading))}`;
    for await (const rows of this.ledger.all(filter)) yield rows.map((row) => csvLine(columns.map(([, value]) => value(row)))).join('');
  }

  csv(filter: LedgerFilterQuery): Readable {
    return Readable.from(this.lines(filter));
  }

  xlsx(filter: LedgerFilterQuery): Readable {
    const widths = columns.map(([heading]) => ({ heading, width: heading === 'File' ? 60 : 22 }));
    return sheetStream('Ledger', widths, this.sheetRows(filter));
  }
  private async *sheetRows(filter: LedgerFilterQuery): AsyncGenerator<string[][]> {
    for await (const rows of this.ledger.all(filter)) yield rows.map((row) => columns.map(([, value]) => value(row)));
  }

  /** The files of the copies, in their folders. */
  zip(filter: LedgerFilterQuery): Readable {
    return zipOfFiles(this.zipParts(filter));
  }

  private async *zipParts(filter: LedgerFilterQuery): AsyncGenerator<ZipPart> {
    for await (const rows of this.ledger.all(filter))
      for (const { file, since } of rows) yield { key: fileKey('archive', file), name: file, at: new Date(since) };
  }
}
