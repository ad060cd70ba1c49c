import type { Readable } from 'node:stream';
import { csvLine, safeName } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { FileKey } from '../files/file-key.js';
import { fileKey, fileName } from '../files/file-key.js';
import { has, list, put, remove } from '../files/files.js';
import type { ZipPart } from '../files/zip-of-files.js';
import { zipOfFiles } from '../files/zip-of-files.js';
import { Transactions } from '../persistence/transactions.js';
import { Pool } from '../work/pool.js';
import type { ManifestRow } from '../stores/copy-rows.js';
import { copyStore } from '../stores/copy.store.js';

const HEADINGS = ['Code', 'Row', 'Recipient', 'Address', 'Template', 'File', 'Bytes', 'SHA-256', 'State', 'Since'];
const PAGE = 1000;

const COMBINED = 'Combined';
/** A combined file by its name. */
export const combinedFile = (name: string): FileKey => fileKey('archive', COMBINED, name);

/** What lies in the archive folder beside the copies themselves. */
@Injectable()
export class ArchiveService {
  constructor(
    private readonly transactions: Transactions,
    private readonly pool: Pool,
  ) {}

  private async *rows(batchId: number): AsyncGenerator<ManifestRow> {
    for (let after = 0; ;) {
      const rows = await copyStore.manifestPage(this.transactions, batchId, after, PAGE);
      if (rows.length === 0) return;
      yield* rows;
      after = rows.at(-1)!.id;
    }
  }

  /** Columns whose values go into the manifest, as the first copy of the batch has them. */
  private async metadataColumns(batchId: number): Promise<string[]> {
    const row = await copyStore.metadataOfOne(this.transactions, batchId);
    return row?.metadata ? Object.keys(JSON.parse(row.metadata) as object) : [];
  }

  private async *csv(batchId: number): AsyncGenerator<string> {
    const columns = await this.metadataColumns(batchId);
    yield `\ufeff${csvLine([...HEADINGS, ...columns])}`;
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
        ...columns.map((column) => (one.metadata ? ((JSON.parse(one.metadata) as Record<string, string>)[column] ?? '') : '')),
      ]);
    }
  }

  private async *json(batchId: number): AsyncGenerator<string> {
    yield '[';
    let first = true;
    for await (const { id: _id, metadata, ...one } of this.rows(batchId)) {
      yield `${first ? '\n' : ',\n'}${JSON.stringify({ ...one, ...(metadata ? { metadata: JSON.parse(metadata) as unknown } : {}) })}`;
      first = false;
    }
    yield '\n]\n';
  }

  private manifest(number: number, mailing: string, extension: string): FileKey {
    return fileKey('archive', 'Manifests', `${safeName(`Batch ${number} ${mailing}`, 150)}.${extension}`);
  }

  /** After metadata was deleted. */
  async writeManifestAgain(batchId: number, number: number, mailing: string): Promise<void> {
    if (await has(this.manifest(number, mailing, 'csv'))) await this.writeManifest(batchId, number, mailing);
  }

  /** Deletes what the archive has of a batch beside its copies: manifest and combined files. */
  async removeBatchFiles(number: number, mailing: string): Promise<void> {
    for (const extension of ['csv', 'json']) await remove(this.manifest(number, mailing, extension));
    for (const name of await this.combined(number, mailing)) await remove(combinedFile(name));
  }

  /** Writes the manifest of a batch as CSV and JSON. */
  async writeManifest(batchId: number, number: number, mailing: string): Promise<void> {
    await put(this.manifest(number, mailing, 'csv'), this.csv(batchId));
    await put(this.manifest(number, mailing, 'json'), this.json(batchId));
  }

  /** Writes the combined files of a batch: one for all copies, or one for each template. Passwords are never part of them. */
  async writeCombined(batchId: number, number: number, mailing: string, way: 'batch' | 'template', duplex: boolean): Promise<void> {
    const copies = await copyStore.madeOfBatch(this.transactions, batchId);
    const groups = new Map<string, typeof copies>();
    for (const copy of copies) {
      const name = safeName(`Batch ${number} ${mailing}${way === 'template' ? ` ${copy.templateName}` : ''}`, 150);
      const group = groups.get(name);
      if (group) group.push(copy);
      else groups.set(name, [copy]);
    }
    for (const [name, list] of groups) {
      await this.pool.run('assemble', {
        key: combinedFile(`${name}.pdf`),
        title: name,
        duplex,
        office: null,
        items: list.map(({ recordOrdinal, position, code, recipient, templateName }) => ({
          batchId,
          recordOrdinal,
          position,
          code,
          bookmark: `${recipient || code} · ${templateName}`,
          address: null,
        })),
      });
    }
  }

  /** Combined files of a batch that are there. */
  async combined(number: number, mailing: string): Promise<string[]> {
    const begin = safeName(`Batch ${number} ${mailing}`, 150);
    const names = (await list('archive', COMBINED)).map(fileName);
    return names.filter((name) => name === `${begin}.pdf` || name.startsWith(`${begin} `));
  }

  /** All copies of a batch as one zip file, with the manifest. */
  zip(batchId: number): Readable {
    return zipOfFiles(this.zipParts(batchId));
  }

  private async *zipParts(batchId: number): AsyncGenerator<ZipPart> {
    for await (const { path, since } of this.rows(batchId)) yield { key: fileKey('archive', path), name: path, at: new Date(since) };
    yield { text: this.csv(batchId), name: 'manifest.csv' };
  }
}
