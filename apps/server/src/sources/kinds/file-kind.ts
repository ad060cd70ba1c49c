import type { SourceRequest } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { uploadedFile } from '../../files/upload.js';
import type { SourceInput } from '../../work/tasks.js';
import { SourceFiles } from '../source-files.service.js';
import type { SourceEntity } from '../sources.entity.js';
import type { Origin, SourceKind } from './source-kind.js';

/** Uploaded files. */
@Injectable()
export class FileKind implements SourceKind {
  readonly kind = 'file';
  readonly isLive = false;
  constructor(private readonly files: SourceFiles) {}

  async ofRequest({ fileIds = [] }: Pick<SourceRequest, 'fileIds'>): Promise<Origin | null> {
    return fileIds.length === 0 ? null : { files: await this.files.of(fileIds), query: null };
  }

  input({ files }: SourceEntity): Promise<SourceInput> {
    return Promise.resolve({
      kind: this.kind,
      files: files.map(({ fileId, fileName }) => ({ key: uploadedFile(fileId), file: fileName })),
    });
  }
}
