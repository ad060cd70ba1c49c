import type { PickReason } from '@mailbag/contract';
import { CountedRecordsAnswer, LastCopyAnswer, LearnedAnswer, PicksAnswer, SurveyAnswer, pickReasons } from '@mailbag/contract';
import type { Counted } from '@mailbag/core';
import { Controller, Get, Param, ParseIntPipe, Query } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Answers } from '../platform/answers.js';
import { EarlierMaps } from './earlier-maps.service.js';
import { LastCopies } from './last-copies.service.js';
import { Surveys } from './surveys.service.js';

/** A whole number within limits; anything else is `otherwise`. */
const whole = (given: string | undefined, otherwise: number, limit: number): number => {
  const number = Number(given);
  return given !== undefined && Number.isInteger(number) && number >= 0 ? Math.min(number, limit) : otherwise;
};

/** What the map of a mailing makes of all its records, and records that are worth looking at. */
@Controller('api/mailings/:id')
export class SurveysController {
  constructor(
    private readonly surveys: Surveys,
    private readonly earlier: EarlierMaps,
    private readonly lastCopies: LastCopies,
  ) {}

  /** How the fields of its packet were filled in earlier mailings. */
  @Answers(LearnedAnswer)
  @Get('learned')
  @WithoutValues()
  learned(@Param('id', ParseIntPipe) id: number): Promise<LearnedAnswer> {
    return this.earlier.learned(id);
  }

  /** What of a record has changed since its last copy. */
  @Answers(LastCopyAnswer)
  @Get('records/:index/last-copy')
  lastCopy(@Param('id', ParseIntPipe) id: number, @Param('index', ParseIntPipe) index: number): Promise<LastCopyAnswer> {
    return this.lastCopies.of(id, index);
  }

  @Answers(SurveyAnswer)
  @Get('survey')
  survey(@Param('id', ParseIntPipe) id: number): Promise<SurveyAnswer> {
    return this.surveys.survey(id);
  }

  /** The list behind a number. @param of `empty`, `stopped` or `value`, with that value */
  @Answers(CountedRecordsAnswer)
  @Get('survey/records')
  counted(
    @Param('id', ParseIntPipe) id: number,
    @Query('template', ParseIntPipe) template: number,
    @Query('field') field: string,
    @Query('of') of: string,
    @Query('value') value?: string,
    @Query('from') from?: string,
  ): Promise<CountedRecordsAnswer> {
    const counted: Counted = of === 'empty' || of === 'stopped' ? { of } : { of: 'value', value: value ?? '' };
    return this.surveys.counted(id, template, field, counted, whole(from, 0, 10_000_000));
  }

  /** @param why reasons with commas between, in the order in which they are told */
  @Answers(PicksAnswer)
  @Get('picks')
  picks(
    @Param('id', ParseIntPipe) id: number,
    @Query('why') why?: string,
    @Query('column') column?: string,
    @Query('random') random?: string,
    @Query('seed') seed?: string,
  ): Promise<PicksAnswer> {
    const wanted = (why ?? 'first,last').split(',').filter((one): one is PickReason => (pickReasons as readonly string[]).includes(one));
    return this.surveys.picks(id, { why: wanted, column: column ?? null, random: whole(random, 6, 48), seed: whole(seed, 1, 0xffffffff) });
  }
}
