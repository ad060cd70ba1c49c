import { BackupRequest, BackupsAnswer, DoubtRequest, HoldAnswer, SelfCheckAnswer } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs, Who } from '../accounts/session.guard.js';
import { Backups } from './backups.service.js';
import { Hold } from './hold.service.js';
import { SelfChecks } from './self-checks.service.js';
import type { Principal } from '../platform/principal.js';

@Controller('api/safety')
@WithoutValues()
@Needs('administrator')
export class SafetyController {
  constructor(
    private readonly hold: Hold,
    private readonly backups: Backups,
    private readonly checks: SelfChecks,
  ) {}

  @Answers(HoldAnswer)
  @Get('hold')
  held(): Promise<HoldAnswer> {
    return this.hold.answer();
  }
  /** What waits in these batches may have gone out. */
  @Answers(HoldAnswer)
  @Post('hold/doubt')
  @HttpCode(200)
  async doubt(@Body() { batchIds }: DoubtRequest, @Who() who: Principal): Promise<HoldAnswer> {
    await this.hold.doubt(batchIds, who);
    return this.hold.answer();
  }
  /** What still waits goes out. */
  @Answers(HoldAnswer)
  @Post('hold/release')
  @HttpCode(200)
  async release(): Promise<HoldAnswer> {
    await this.hold.release();
    return this.hold.answer();
  }

  @Answers(BackupsAnswer)
  @Get('backups')
  list(): Promise<BackupsAnswer> {
    return this.backups.answer();
  }
  @Answers(BackupsAnswer)
  @Put('backups')
  save(@Body() body: BackupRequest): Promise<BackupsAnswer> {
    return this.backups.save(body);
  }
  @Answers(BackupsAnswer)
  @Post('backups')
  @HttpCode(202)
  async take(): Promise<BackupsAnswer> {
    await this.backups.take();
    return this.backups.answer();
  }
  @Answers(BackupsAnswer)
  @Delete('backups/:name')
  remove(@Param('name') name: string): Promise<BackupsAnswer> {
    return this.backups.remove(name);
  }

  @Answers(SelfCheckAnswer)
  @Get('self-check')
  check(): Promise<SelfCheckAnswer> {
    return this.checks.answer();
  }
  @Answers(SelfCheckAnswer)
  @Post('self-check')
  @HttpCode(202)
  run(): Promise<SelfCheckAnswer> {
    void this.checks.run(true);
    return this.checks.answer();
  }
}
