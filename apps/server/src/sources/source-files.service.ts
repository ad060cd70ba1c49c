import type { ReadingRequest, SourceFileAnswer } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import type { FileKey } from '../files/file-key.js';
import { fileName as nameOf } from '../files/file-key.js';
import { has, put, read, remove, rename } from '../files/files.js';
import { uploadedFile } from '../files/upload.js';
import { Pool } from '../work/pool.js';
import type { SourceEntity } from './sources.entity.js';

/** Where the name of an uploaded file stands that it has with people. */
const nameFile = (fileId: string): FileKey => `${uploadedFile(fileId)}.name`;

/** Files that records are read of, as they were uploaded. */
@Injectable()
export class SourceFiles {
  constructor(private readonly pool: Pool) {}

  /** Keeps an uploaded file and shows its first rows. @throws MailbagError sheet-*, formdata-* */
  async takeFile(key: FileKey, fileName: string): Promise<SourceFileAnswer> {
    const fileId = nameOf(key);
    const stored = uploadedFile(fileId);
    await rename(key, stored);
    await put(nameFile(fileId), fileName);
    try {
      return { fileId, fileName, excerpt: await this.pool.run('excerpt', { key: stored, file: fileName, reading: {} }) };
    } catch (error) {
      await this.drop([fileId]);
      throw error;
    }
  }

  /** @throws MailbagError sheet-*, not-found */
  async excerpt(fileId: string, reading: ReadingRequest): Promise<SourceFileAnswer> {
    const fileName = await this.fileName(fileId);
    return {
      fileId,
      fileName,
      excerpt: await this.pool.run('excerpt', { key: uploadedFile(fileId), file: fileName, reading: { ...reading } }),
    };
  }

  private async fileName(fileId: string): Promise<string> {
    const name = (await has(uploadedFile(fileId))) ? await read(nameFile(fileId)) : null;
    if (!name) throw new MailbagError('not-found', { what: t`file` });
    return name.toString('utf8');
  }

  /** Files by the numbers that they were kept under. @throws MailbagError not-found */
  of(fileIds: readonly string[]): Promise<SourceEntity['files']> {
    return Promise.all(fileIds.map(async (fileId) => ({ fileId, fileName: await this.fileName(fileId) })));
  }

  /** Throws files away. */
  async drop(fileIds: readonly string[]): Promise<void> {
    for (const fileId of fileIds) {
      await remove(uploadedFile(fileId));
      await remove(nameFile(fileId));
    }
  }
}
