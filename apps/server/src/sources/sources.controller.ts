import {
  ReadingRequest,
  RecordPlace,
  RecordViewAnswer,
  RecordViewQuery,
  RecordsAtQuery,
  LookupAnswer,
  LookupRequest,
  PictureNameRequest,
  PictureNamesAnswer,
  RecordsAnswer,
  RenameRequest,
  SourceFileAnswer,
  SourcePicturesAnswer,
  SourceRequest,
  SourceRereadRequest,
  SourceSummary,
} from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseIntPipe,
  Patch,
  Post,
  Put,
  Query,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { sourceWithoutValues, WithoutValues } from '../accounts/hidden-values.js';
import { config } from '../platform/config.js';
import { streamed } from '../files/download.js';
import { uploaded, uploadInto } from '../files/upload.js';
import { attachment } from '../platform/content-disposition.js';
import { RecordExports } from './record-exports.service.js';
import { RecordSearch } from './record-search.service.js';
import { SourceLookups } from './source-lookups.service.js';
import { SourcePictures } from './source-pictures.service.js';
import { SourceFiles } from './source-files.service.js';
import { SourcesService } from './sources.service.js';

@Controller('api/sources')
export class SourcesController {
  constructor(
    private readonly sources: SourcesService,
    private readonly files: SourceFiles,
    private readonly search: RecordSearch,
    private readonly exports: RecordExports,
    private readonly pictures: SourcePictures,
    private readonly lookups: SourceLookups,
  ) {}

  @Answers([SourceSummary])
  @Get()
  @WithoutValues((list: SourceSummary[]) => list.map(sourceWithoutValues))
  list(): Promise<SourceSummary[]> {
    return this.sources.list();
  }

  @Answers(SourceFileAnswer)
  @Post('files')
  @UseInterceptors(uploadInto(config.sheetLimit))
  upload(@UploadedFile() file: Express.Multer.File | undefined): Promise<SourceFileAnswer> {
    return this.files.takeFile(...uploaded(file));
  }

  @Answers(SourceFileAnswer)
  @Get('files/:fileId/excerpt')
  excerpt(@Param('fileId') fileId: string, @Query() reading: ReadingRequest): Promise<SourceFileAnswer> {
    return this.files.excerpt(fileId, reading);
  }

  @Answers(SourceSummary)
  @Post()
  create(@Body() body: SourceRequest): Promise<SourceSummary> {
    return this.sources.create(body);
  }

  @Answers(SourceSummary)
  @Get(':id')
  @WithoutValues(sourceWithoutValues)
  detail(@Param('id', ParseIntPipe) id: number): Promise<SourceSummary> {
    return this.sources.detail(id);
  }

  /** Two columns as a table of a rule. @throws MailbagError lookup-* */
  @Answers(LookupAnswer)
  @Get(':id/lookup')
  @WithoutValues((answer: LookupAnswer) => ({ ...answer, table: [], unclear: [] }))
  lookup(@Param('id', ParseIntPipe) id: number, @Query() columns: LookupRequest): Promise<LookupAnswer> {
    return this.lookups.table(id, columns);
  }

  /** Pictures for columns that name them: a PNG or JPEG, or a zip of them. @throws MailbagError pictures-* */
  @Answers(SourcePicturesAnswer)
  @Post(':id/pictures')
  @UseInterceptors(uploadInto(config.sheetLimit))
  addPictures(@Param('id', ParseIntPipe) id: number, @UploadedFile() file: Express.Multer.File | undefined): Promise<SourcePicturesAnswer> {
    return this.pictures.add(id, ...uploaded(file));
  }

  @Get(':id/pictures')
  @WithoutValues()
  async picture(@Param('id', ParseIntPipe) id: number, @Query() { name }: PictureNameRequest): Promise<StreamableFile> {
    return streamed(await this.pictures.named(id, name), 'The picture', { type: 'application/octet-stream' });
  }

  @Answers(PictureNamesAnswer)
  @Get(':id/picture-names')
  @WithoutValues((answer: PictureNamesAnswer) => ({ ...answer, names: [] }))
  pictureNames(
    @Param('id', ParseIntPipe) id: number,
    @Query('from', ParseIntPipe) from: number,
    @Query('count', ParseIntPipe) count: number,
  ): Promise<PictureNamesAnswer> {
    return this.pictures.names(id, Math.max(0, from), Math.min(500, Math.max(1, count)));
  }

  @Delete(':id/pictures')
  @HttpCode(204)
  clearPictures(@Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.pictures.clear(id);
  }

  @Answers(RecordsAnswer)
  @Get(':id/records')
  records(
    @Param('id', ParseIntPipe) id: number,
    @Query('from', ParseIntPipe) from: number,
    @Query('count', ParseIntPipe) count: number,
  ): Promise<RecordsAnswer> {
    return this.sources.records(id, Math.max(0, from), Math.min(500, Math.max(1, count)));
  }

  /** Records by their places, in the order asked for. */
  @Answers(RecordsAnswer)
  @Get(':id/records-at')
  recordsAt(@Param('id', ParseIntPipe) id: number, @Query() { at }: RecordsAtQuery): Promise<RecordsAnswer> {
    return this.sources.recordsOf(id, at.split(',').map(Number));
  }

  @Answers(RecordViewAnswer)
  @Get(':id/view')
  async view(@Param('id', ParseIntPipe) id: number, @Query() query: RecordViewQuery): Promise<RecordViewAnswer> {
    return { ordinals: await this.search.view(id, query) };
  }

  @Answers(RecordPlace)
  @Get(':id/find')
  async find(
    @Param('id', ParseIntPipe) id: number,
    @Query('text') text: string,
    @Query('after', ParseIntPipe) after: number,
  ): Promise<RecordPlace> {
    return { index: text ? await this.search.findRecord(id, text, after) : -1 };
  }

  @Answers(SourceSummary)
  @Patch(':id')
  rename(@Param('id', ParseIntPipe) id: number, @Body() { name }: RenameRequest): Promise<SourceSummary> {
    return this.sources.rename(id, name);
  }

  @Answers(SourceSummary)
  @Put(':id/reading')
  reread(@Param('id', ParseIntPipe) id: number, @Body() body: SourceRereadRequest): Promise<SourceSummary> {
    return this.sources.reread(id, body);
  }

  @Get(':id/records.:format')
  async export(@Param('id', ParseIntPipe) id: number, @Param('format') format: string): Promise<StreamableFile> {
    const { name, type, stream } = await this.exports.of(id, format);
    return new StreamableFile(stream, { type, disposition: attachment(name) });
  }
}
