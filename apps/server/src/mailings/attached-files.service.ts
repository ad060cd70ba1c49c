import type { ExtraFile } from '@mailbag/contract';
import { MailbagError, assertImage } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import type { FileKey } from '../files/file-key.js';
import { fileKey } from '../files/file-key.js';
import { digestOf, has, read, remove, rename, stat } from '../files/files.js';

/** Files that a mailing brings along: with its messages, or as pictures on its copies. Each is kept once, under its digest. */
@Injectable()
export class AttachedFiles {
  /** Keeps an uploaded file. */
  async keep(key: FileKey, name: string): Promise<ExtraFile> {
    const fileId = (await digestOf(key))!;
    const { size } = (await stat(key))!;
    const place = fileKey('attachments', fileId);
    if (await has(place)) await remove(key);
    else await rename(key, place);
    return { fileId, name, size };
  }

  /** Keeps an uploaded PNG or JPEG. @throws MailbagError image-unreadable */
  async keepPicture(key: FileKey, name: string): Promise<ExtraFile> {
    try {
      assertImage((await read(key))!, name);
    } catch (error) {
      await remove(key);
      throw error;
    }
    return this.keep(key, name);
  }

  /** What is kept under a digest. @throws MailbagError not-found */
  placeOf(fileId: string): FileKey {
    if (!/^[0-9a-f]{64}$/.test(fileId)) throw new MailbagError('not-found', { what: t`file` });
    return fileKey('attachments', fileId);
  }
}
