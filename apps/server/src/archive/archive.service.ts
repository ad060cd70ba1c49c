import { createWriteStream, existsSync, mkdirSync, renameSync } from 'node:fs';
import { dirname } from 'node:path';
import { PassThrough, Readable } from 'node:stream';
import { finished } from 'node:stream/promises';
import { safeName } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import yazl from 'yazl';
import { Transactions } from '../persistence/transactions.js';
import { dataPath } from '../platform/config.js';
import { csvLine } from './csv-line.js';

interface ManifestRow {
  id: number;
  code: string;
  row: number;
  recipient: string;
  address: string;
  templateName: string;
  path: string;
  size: number;
  sha256: string;
  state: string;
  since: string;
}

const HEADINGS = ['Code', 'Row', 'Recipient', 'Address', 'Template', 'File', 'Bytes', 'SHA-256', 'State', 'Since'];
const PAGE = 1000;

/** What lies in the archive folder beside the copies themselves. */
@Injectable()
export class ArchiveService {
  constructor(private readonly transactions: Transactions) {}

  private async *rows(batchId: number): AsyncGenerator<ManifestRow> {
    for (let after = 0; ;) {
      const rows = await this.transactions.read<ManifestRow>(
        `SELECT id, code, row, recipient, address, templateName, path, size, sha256, state, since FROM copy WHERE batchId = ? AND id > ? AND sha256 IS NOT NULL ORDER BY id LIMIT ${PAGE}`,
        [batchId, after],
      );
      if (rows.length === 0) return;
      yield* rows;
      after = rows.at(-1)!.id;
    }
  }

  private async *csv(batchId: number): AsyncGenerator<string> {
    yield `\ufeff${csvLine(HEADINGS)}`;
    for await (const one of this.rows(batchId)) {
      yield csvLine([
        one.code,
        one.row,
        one.recipient,
        one.address,
        one.templateName,
        one.path,
        one.size,
        one.sha256,
        one.state,
        one.since,
      ]);
    }
  }

  private async *json(batchId: number): AsyncGenerator<string> {
    yield '[';
    let first = true;
    for await (const { id: _id, ...one } of this.rows(batchId)) {
      yield `${first ? '\n' : ',\n'}${JSON.stringify(one)}`;
      first = false;
    }
    yield '\n]\n';
  }

  /** Writes the manifest of a batch as CSV and JSON, aside first. */
  async writeManifest(batchId: number, number: number, mailing: string): Promise<void> {
    const base = dataPath('archive', 'Manifests', safeName(`Batch ${number} ${mailing}`, 150));
    mkdirSync(dirname(base), { recursive: true });
    for (const [extension, lines] of [
      ['csv', this.csv(batchId)],
      ['json', this.json(batchId)],
    ] as const) {
      const aside = dataPath('spool', `manifest-${batchId}.${extension}`);
      const out = createWriteStream(aside);
      Readable.from(lines).pipe(out);
      await finished(out);
      renameSync(aside, `${base}.${extension}`);
    }
  }

  /** All copies of a batch as one zip file, with the manifest, read from disk as it is sent. */
  zip(batchId: number): Readable {
    const zip = new yazl.ZipFile();
    void (async () => {
      try {
        for await (const { path, since } of this.rows(batchId)) {
          const file = dataPath('archive', path);
          // PDF streams are deflated already; packing them again only costs time.
          if (existsSync(file)) zip.addFile(file, path, { compress: false, mtime: new Date(since) });
        }
        const manifest = new PassThrough();
        Readable.from(this.csv(batchId)).pipe(manifest);
        zip.addReadStream(manifest, 'manifest.csv');
        zip.end();
      } catch (error) {
        (zip.outputStream as unknown as Readable).destroy(error as Error);
      }
    })();
    return zip.outputStream as unknown as Readable;
  }
}
