import { ConnectionAnswer, ConnectionRequest, DatabaseTable, StoredFileAnswer, QueryExcerpt, QueryRequest } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import type { Account } from '@mailbag/contract';
import { Body, Controller, Get, Param, ParseIntPipe, Post, Put, UploadedFile, UseInterceptors } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { SignedIn } from '../accounts/session.guard.js';
import { config } from '../platform/config.js';
import { uploaded, uploadInto } from '../files/upload.js';
import { ConnectionsService } from './connections.service.js';

@Controller('api/connections')
export class ConnectionsController {
  constructor(private readonly connections: ConnectionsService) {}

  @Answers([ConnectionAnswer])
  @Get()
  @WithoutValues()
  list(): Promise<ConnectionAnswer[]> {
    return this.connections.list();
  }

  @Answers(ConnectionAnswer)
  @Post()
  @WithoutValues()
  create(@Body() body: ConnectionRequest, @SignedIn() by: Account): Promise<ConnectionAnswer> {
    return this.connections.save(null, body, by);
  }

  @Answers(ConnectionAnswer)
  @Put(':id')
  @WithoutValues()
  change(@Param('id', ParseIntPipe) id: number, @Body() body: ConnectionRequest, @SignedIn() by: Account): Promise<ConnectionAnswer> {
    return this.connections.save(id, body, by);
  }

  /** Takes a SQLite file; it is opened only when a connection is made with it. */
  @Answers(StoredFileAnswer)
  @Post('files')
  @UseInterceptors(uploadInto(config.sheetLimit))
  @WithoutValues()
  upload(@UploadedFile() file: Express.Multer.File | undefined): Promise<StoredFileAnswer> {
    return this.connections.takeFile(...uploaded(file));
  }

  @Answers([DatabaseTable])
  @Post('test')
  @WithoutValues()
  test(@Body() body: ConnectionRequest, @SignedIn() by: Account): Promise<DatabaseTable[]> {
    return this.connections.test(body, by);
  }

  @Answers([DatabaseTable])
  @Get(':id/tables')
  @WithoutValues()
  tables(@Param('id', ParseIntPipe) id: number): Promise<DatabaseTable[]> {
    return this.connections.tables(id);
  }

  @Answers(QueryExcerpt)
  @Post(':id/excerpt')
  excerpt(@Param('id', ParseIntPipe) id: number, @Body() body: QueryRequest): Promise<QueryExcerpt> {
    return this.connections.excerpt(id, body);
  }
}
