import type { WastebasketKind, WastebasketLine } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { History } from '../history/history.service.js';
import { Submissions } from '../intakes/submissions.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import { Transactions } from '../persistence/transactions.js';
import type { Principal } from '../platform/principal.js';
import { MAILBAG } from '../platform/principal.js';
import { Hold } from '../safety/hold.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { wastebasketStore } from '../stores/wastebasket.store.js';
import { TemplatesService } from '../templates/templates.service.js';

const DAY = 86_400_000;
/** Days for which things can be put back. */
const DAYS = 30;
/** What needs others is deleted before them. */
const ORDER: readonly WastebasketKind[] = ['intake', 'mailing', 'source', 'template'];

/** What can go into the wastebasket and be deleted from there. */
interface Holder {
  /** @throws MailbagError not-found, in-wastebasket, and what keeps it from going */
  assertMayGo(id: number): Promise<void>;
  erase(id: number): Promise<void>;
  /** What goes on when it has been put back. */
  cameBack?(id: number): Promise<void>;
}

/** Templates, sources, mailings and intakes that were deleted: for 30 days they can be put back, then they are deleted for good. */
@Injectable()
export class Wastebasket {
  private readonly holders: Record<WastebasketKind, Holder>;

  constructor(
    private readonly transactions: Transactions,
    private readonly live: LiveService,
    private readonly history: History,
    private readonly hold: Hold,
    templates: TemplatesService,
    sources: SourcesService,
    mailings: MailingsService,
    submissions: Submissions,
    jobs: Jobs,
  ) {
    this.holders = { template: templates, source: sources, mailing: mailings, intake: submissions };
    jobs.register('wastebasket', {
      title: 'Emptying the wastebasket',
      atOnce: 1,
      retry: [60_000],
      // Whoever brought a folder back may have done so for what would be deleted.
      run: async () => void (this.hold.isHeld || (await this.empty(new Date(Date.now() - DAYS * DAY)))),
    });
    jobs.every({ kind: 'wastebasket', after: DAY / 4 }, DAY / 4);
  }

  async list(): Promise<WastebasketLine[]> {
    const lines = await wastebasketStore.list(this.transactions);
    return lines.map((line) => ({ ...line, goesAt: new Date(Date.parse(line.deletedAt) + DAYS * DAY).toISOString() }));
  }

  /** @throws MailbagError not-found, in-wastebasket, template-in-use, source-in-use, mailing-has-intake */
  async put(kind: WastebasketKind, id: number, who: Principal): Promise<void> {
    await this.holders[kind].assertMayGo(id);
    const now = new Date().toISOString();
    await this.transactions.run((sql) => wastebasketStore.put(sql, kind, id, now, who.name));
    this.changed(kind, id);
  }

  /** @throws MailbagError not-found */
  async putBack(kind: WastebasketKind, id: number): Promise<WastebasketLine[]> {
    await this.line(kind, id);
    await this.transactions.run((sql) => wastebasketStore.putBack(sql, kind, id));
    await this.holders[kind].cameBack?.(id);
    this.changed(kind, id);
    return this.list();
  }

  /** Deletes for good what lies in it. @throws MailbagError not-found, template-in-use */
  async erase(kind: WastebasketKind, id: number): Promise<WastebasketLine[]> {
    await this.line(kind, id);
    await this.holders[kind].erase(id);
    this.changed(kind, id);
    return this.list();
  }

  /** Deletes for good what came before a time. */
  async empty(before: Date): Promise<void> {
    const over = (await wastebasketStore.list(this.transactions)).filter(({ deletedAt }) => Date.parse(deletedAt) < before.getTime());
    const gone: string[] = [];
    for (const kind of ORDER)
      for (const line of over.filter((one) => one.kind === kind)) {
        // A template that a mailing in the wastebasket still needs goes with the next run.
        const isGone = await this.holders[kind].erase(line.id).then(
          () => true,
          (error: unknown) => {
            if (error instanceof MailbagError) return false;
            throw error;
          },
        );
        if (isGone) gone.push(line.name);
        this.changed(kind, line.id);
      }
    if (gone.length > 0) await this.history.note(t`emptied the wastebasket`, gone.slice(0, 20).join(', '), null, MAILBAG);
  }

  private async line(kind: WastebasketKind, id: number): Promise<void> {
    const found = (await wastebasketStore.list(this.transactions)).some((one) => one.kind === kind && one.id === id);
    if (!found) throw new MailbagError('not-found', { what: kind });
  }

  private changed(kind: WastebasketKind, id: number): void {
    this.live.notify(kind, id);
    this.live.notify('wastebasket', id);
  }
}
