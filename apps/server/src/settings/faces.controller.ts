import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import type { OnModuleInit } from '@nestjs/common';
import { Controller, Get, Header, Logger, Param, StreamableFile } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { addedFaces, bundledFaces } from '@mailbag/host';
import { folderOf } from '../files/file-key.js';
import { streamedFrom } from '../files/download.js';

/** Those that ship with Mailbag, and those in the data folder. */
const allFaces = (): { name: string; path: string }[] => [...bundledFaces, ...addedFaces(folderOf('faces')).faces];

/** The faces, for the preview in the browser. */
@Controller('api/faces')
@WithoutValues()
export class FacesController implements OnModuleInit {
  onModuleInit(): void {
    for (const { why } of addedFaces(folderOf('faces')).refused) new Logger('faces').warn(why);
  }

  @Get()
  list(): string[] {
    return allFaces().map(({ name }) => name);
  }

  @Get(':name')
  @Header('Cache-Control', 'private, max-age=86400')
  face(@Param('name') name: string): Promise<StreamableFile> {
    const face = allFaces().find((one) => one.name === name);
    if (!face) throw new MailbagError('not-found', { what: t`face` });
    return streamedFrom(face.path, 'This face', { type: 'font/ttf' });
  }
}
