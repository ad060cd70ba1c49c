import { existsSync } from 'node:fs';
import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import type { ReadingRequest, SourceFileAnswer } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { uploadedFile } from '../platform/upload.js';
import { Pool } from '../work/pool.js';
import type { SourceEntity } from './sources.entity.js';

/** Files that records are read of, as they were uploaded. */
@Injectable()
export class SourceFiles {
  constructor(private readonly pool: Pool) {}

  /** Keeps an uploaded file and shows its first rows. @throws MailbagError sheet-*, formdata-* */
  async takeFile(path: string, fileName: string): Promise<SourceFileAnswer> {
    const fileId = basename(path);
    const kept = uploadedFile(fileId);
    await rename(path, kept);
    await writeFile(`${kept}.name`, fileName);
    try {
      return { fileId, fileName, excerpt: await this.pool.run('excerpt', { path: kept, file: fileName, reading: {} }) };
    } catch (error) {
      await rm(kept, { force: true });
      await rm(`${kept}.name`, { force: true });
      throw error;
    }
  }

  /** @throws MailbagError sheet-*, not-found */
  async excerpt(fileId: string, reading: ReadingRequest): Promise<SourceFileAnswer> {
    const fileName = await this.fileName(fileId);
    return {
      fileId,
      fileName,
      excerpt: await this.pool.run('excerpt', { path: uploadedFile(fileId), file: fileName, reading: { ...reading } }),
    };
  }

  private async fileName(fileId: string): Promise<string> {
    const path = uploadedFile(fileId);
    if (!existsSync(path)) throw new MailbagError('not-found', { what: 'file' });
    return readFile(`${path}.name`, 'utf8');
  }

  /** Files by the numbers that they were kept under. @throws MailbagError not-found */
  of(fileIds: readonly string[]): Promise<SourceEntity['files']> {
    return Promise.all(fileIds.map(async (fileId) => ({ fileId, fileName: await this.fileName(fileId) })));
  }

  /** Throws files away. */
  async drop(fileIds: readonly string[]): Promise<void> {
    for (const fileId of fileIds) {
      await rm(uploadedFile(fileId), { force: true });
      await rm(`${uploadedFile(fileId)}.name`, { force: true });
    }
  }
}
