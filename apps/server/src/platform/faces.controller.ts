import { createReadStream } from 'node:fs';
import { MailbagError } from '@mailbag/core';
import { Controller, Get, Header, Param, StreamableFile } from '@nestjs/common';
import { bundledFaces } from '@mailbag/host';

/** The bundled faces, for the preview in the browser. */
@Controller('api/faces')
export class FacesController {
  @Get()
  list(): string[] {
    return bundledFaces.map(({ name }) => name);
  }

  @Get(':name')
  @Header('Cache-Control', 'private, max-age=86400')
  face(@Param('name') name: string): StreamableFile {
    const face = bundledFaces.find((one) => one.name === name);
    if (!face) throw new MailbagError('not-found', { what: 'face' });
    return new StreamableFile(createReadStream(face.path), { type: 'font/ttf' });
  }
}
