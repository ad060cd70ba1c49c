import type { CountedRecordsAnswer, PickReason, PicksAnswer, SurveyAnswer } from '@mailbag/contract';
import { MOST_PICKED } from '@mailbag/contract';
import type { Counted } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import type { SurveyedMailing } from '../work/tasks.js';
import { Pool } from '../work/pool.js';
import { MailingsService } from './mailings.service.js';

/** What the map of a mailing makes of all its records, worked out when somebody asks. */
@Injectable()
export class Surveys {
  constructor(
    private readonly mailings: MailingsService,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
  ) {}

  /** @throws MailbagError not-found, mailing-no-template, mailing-no-records */
  private async subject(id: number): Promise<SurveyedMailing> {
    const mailing = await this.mailings.entity(id);
    const subject = await this.mailings.frozen(mailing);
    if (!subject)
      throw new MailbagError(mailing.plan.packet.length === 0 ? 'mailing-no-template' : 'mailing-no-records', { mailing: mailing.name });
    return {
      sourceId: subject.sourceId,
      mailing: subject.frozen,
      context: { ...(await this.batches.next()), count: subject.count },
    };
  }

  async survey(id: number): Promise<SurveyAnswer> {
    const subject = await this.subject(id);
    const { records, fields } = await this.pool.run('survey', subject);
    const { templates } = subject.mailing;
    return { records, fields: fields.map((one) => ({ ...one, template: templates[one.template]!.id })) };
  }

  /** @param template its id */
  async counted(id: number, template: number, field: string, counted: Counted, from: number): Promise<CountedRecordsAnswer> {
    const subject = await this.subject(id);
    const place = subject.mailing.templates.findIndex((one) => one.id === template);
    if (place < 0) throw new MailbagError('not-found', { what: t`template` });
    return this.pool.run('countedRecords', { ...subject, template: place, field, counted, from, count: 200 });
  }

  async picks(id: number, wish: { why: PickReason[]; column: string | null; random: number; seed: number }): Promise<PicksAnswer> {
    return this.pool.run('pickRecords', { ...(await this.subject(id)), mailingId: id, wish, limit: MOST_PICKED });
  }
}
