import type { Account, IntakeTrialRequest, TrialAnswer } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { MailingsService } from '../mailings/mailings.service.js';
import { SourceReadings } from '../sources/source-readings.service.js';
import { Trials } from '../trials/trials.service.js';
import { sampleOf } from './given-answers.js';
import { IntakesService } from './intakes.service.js';

/** Copies of answers that nobody has given, made as those of an answer would be. They are the trial of the intake's mailing, and go as such. */
@Injectable()
export class IntakeTrials {
  constructor(
    private readonly intakes: IntakesService,
    private readonly mailings: MailingsService,
    private readonly readings: SourceReadings,
    private readonly trials: Trials,
  ) {}

  /** @throws MailbagError not-found, mailing-no-template, pattern-*, work-too-* */
  async make(id: number, { answers, mailed }: IntakeTrialRequest, account: Account): Promise<TrialAnswer> {
    const { plan, mailingId, sourceId } = await this.intakes.entity(id);
    // Its columns are those of the questions as they are now.
    await this.readings.refresh(sourceId);
    const subject = await this.mailings.frozen(await this.mailings.entity(mailingId));
    if (!subject) throw new MailbagError('mailing-no-template', { mailing: plan.name });
    const { frozen } = subject;
    const { record, pictures } = sampleOf(plan, frozen.columns, answers);
    return this.trials.makeOf(mailingId, frozen, { indexes: [0], found: new Map([[0, record]]), mailed, pictures }, account);
  }
}
