import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../../persistence/transactions.js';
import { SettingsService } from '../../settings/settings.service.js';
import { intakeStore } from '../../stores/intake.store.js';
import type { SourceInput } from '../../work/tasks.js';
import type { SourceEntity } from '../sources.entity.js';
import type { Origin, SourceKind } from './source-kind.js';

/** What people answer to an intake. Such a source is made with its intake only. */
@Injectable()
export class IntakeKind implements SourceKind {
  readonly kind = 'intake';
  readonly isLive = true;
  constructor(
    private readonly transactions: Transactions,
    private readonly settings: SettingsService,
  ) {}

  ofRequest(): Promise<Origin | null> {
    return Promise.resolve(null);
  }

  /** @throws MailbagError not-found */
  async input({ id, name }: SourceEntity): Promise<SourceInput> {
    const intake = await intakeStore.ofSource(this.transactions, id);
    if (!intake) throw new MailbagError('not-found', { what: t`intake` });
    return { kind: this.kind, intakeId: intake.id, name, zone: this.settings.zone };
  }
}
