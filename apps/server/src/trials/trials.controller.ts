import type { Account } from '@mailbag/contract';
import { CurrentTrialAnswer, TrialAnswer, TrialRequest } from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, StreamableFile } from '@nestjs/common';
import { SignedIn } from '../accounts/session.guard.js';
import { streamed } from '../files/download.js';
import { zipOfFiles } from '../files/zip-of-files.js';
import { Answers } from '../platform/answers.js';
import { attachment } from '../platform/content-disposition.js';
import { Trials } from './trials.service.js';

/** The trial of a mailing that the account has. */
@Controller('api/mailings/:id/trial')
export class TrialsController {
  constructor(private readonly trials: Trials) {}

  @Answers(CurrentTrialAnswer)
  @Get()
  current(@Param('id', ParseIntPipe) id: number, @SignedIn() account: Account): CurrentTrialAnswer {
    return { trial: this.trials.current(id, account) };
  }

  @Answers(TrialAnswer)
  @Post()
  make(@Param('id', ParseIntPipe) id: number, @Body() body: TrialRequest, @SignedIn() account: Account): Promise<TrialAnswer> {
    return this.trials.make(id, body, account);
  }

  @Delete()
  @HttpCode(204)
  throwAway(@Param('id', ParseIntPipe) id: number, @SignedIn() account: Account): Promise<void> {
    return this.trials.throwAway(id, account);
  }

  @Get('copies.zip')
  zip(@Param('id', ParseIntPipe) id: number, @SignedIn() account: Account): StreamableFile {
    const files = zipOfFiles(this.trials.files(id, account));
    return new StreamableFile(files, { type: 'application/zip', disposition: attachment('Trial run.zip') });
  }

  @Get('copies/:number')
  copy(
    @Param('id', ParseIntPipe) id: number,
    @Param('number', ParseIntPipe) number: number,
    @SignedIn() account: Account,
  ): Promise<StreamableFile> {
    const { key, file } = this.trials.copy(id, number, account);
    return streamed(key, file, { type: 'application/pdf', disposition: attachment(file, 'inline') });
  }
}
