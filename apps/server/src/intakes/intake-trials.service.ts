import type { Account, IntakeTrialRequest, TrialAnswer } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { Trials } from '../trials/trials.service.js';
import { sampleOf } from './given-answers.js';
import { IntakesService } from './intakes.service.js';
import { SettingsService } from '../settings/settings.service.js';

/** Copies of answers that nobody has given, made as those of an answer would be. They are the trial of the intake's mailing, and go as such. */
@Injectable()
export class IntakeTrials {
  constructor(
    private readonly intakes: IntakesService,
    private readonly trials: Trials,
    private readonly settings: SettingsService,
  ) {}

  /** @throws MailbagError not-found, mailing-no-template, intake-changed-elsewhere, pattern-*, work-too-* */
  async make(id: number, { answers, mailed }: IntakeTrialRequest, account: Account): Promise<TrialAnswer> {
    const intake = await this.intakes.entity(id);
    const frozen = await this.intakes.frozen(intake);
    const { record, pictures } = sampleOf(intake.plan, frozen.columns, answers, this.settings.zone);
    return this.trials.makeOf(intake.mailingId, frozen, { indexes: [0], found: new Map([[0, record]]), mailed, pictures }, account);
  }
}
