import type { Account, WastebasketKind, WastebasketLine } from '@mailbag/contract';
import { LIVE_TOPICS, WASTEBASKET_KINDS, roles } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { SavedViews } from '../copies/saved-views.service.js';
import { ConnectionsService } from '../databases/connections.service.js';
import { History } from '../history/history.service.js';
import { Submissions } from '../intakes/submissions.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import { Printers } from '../paper/printers.service.js';
import { Transactions } from '../persistence/transactions.js';
import { MAILBAG } from '../platform/principal.js';
import { Registers } from '../registers/registers.service.js';
import { Hold } from '../safety/hold.service.js';
import { DeletedMailServers } from '../senders/deleted-mail-servers.service.js';
import { DeletedSenders } from '../senders/deleted-senders.service.js';
import { SourcesService } from '../sources/sources.service.js';
import type { DeletedLine } from '../stores/wastebasket.store.js';
import { wastebasketStore } from '../stores/wastebasket.store.js';
import { TemplatesService } from '../templates/templates.service.js';

const DAY = 86_400_000;
/** Days for which things can be put back. */
const DAYS = 30;

/** What the history says of who deletes something. */
const PUT: Record<WastebasketKind, string> = {
  template: t`put a template into the wastebasket`,
  source: t`put a source into the wastebasket`,
  mailing: t`put a mailing into the wastebasket`,
  intake: t`put an intake into the wastebasket`,
  connection: t`put a database into the wastebasket`,
  sender: t`put a sender into the wastebasket`,
  'mail-server': t`put a mail server into the wastebasket`,
  printer: t`put a printer into the wastebasket`,
  register: t`put a register into the wastebasket`,
  view: t`put a saved view into the wastebasket`,
};

/** What can go into the wastebasket and be deleted from there. */
interface Holder {
  /** @param by who deletes it @throws MailbagError not-found, in-wastebasket, and what keeps it from going */
  assertMayGo(id: number, by: Account): Promise<void>;
  /** @throws MailbagError what has taken its place meanwhile */
  assertMayComeBack?(id: number): Promise<void>;
  erase(id: number): Promise<unknown>;
  /** What goes on when it has been put back. */
  cameBack?(id: number): Promise<void> | void;
  /** It is used no more, or again. */
  changed?(): void;
}

/** What was deleted, wherever something can be made: for 30 days it can be put back, then it is deleted for good. */
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
    connections: ConnectionsService,
    senders: DeletedSenders,
    mailServers: DeletedMailServers,
    printers: Printers,
    registers: Registers,
    views: SavedViews,
    jobs: Jobs,
  ) {
    this.holders = {
      template: templates,
      source: sources,
      mailing: mailings,
      intake: submissions,
      connection: connections,
      sender: senders,
      'mail-server': mailServers,
      printer: printers,
      register: registers,
      view: { assertMayGo: (id, by) => views.assertMayGo(id, by.id), erase: (id) => views.erase(id) },
    };
    jobs.register('wastebasket', {
      title: 'Emptying the wastebasket',
      atOnce: 1,
      retry: [60_000],
      // Whoever brought a folder back may have done so for what would be deleted.
      run: async () => void (this.hold.isHeld || (await this.empty(new Date(Date.now() - DAYS * DAY)))),
    });
    jobs.every({ kind: 'wastebasket', after: DAY / 4 }, DAY / 4);
  }

  /** What somebody sees in it. */
  async list(by: Account): Promise<WastebasketLine[]> {
    return (await this.linesOf(by)).map(({ needs: _, owner: __, ...line }) => ({
      ...line,
      goesAt: new Date(Date.parse(line.deletedAt) + DAYS * DAY).toISOString(),
    }));
  }

  private async linesOf(by: Account): Promise<DeletedLine[]> {
    return (await wastebasketStore.list(this.transactions)).filter(({ owner }) => owner === null || owner === by.id);
  }

  /** @throws MailbagError not-found, in-wastebasket, account-not-allowed, template-in-use, source-in-use, mailing-has-intake, connection-in-use, sender-in-use, mail-server-in-use, printer-in-use */
  async put(kind: WastebasketKind, id: number, by: Account): Promise<void> {
    await this.holders[kind].assertMayGo(id, by);
    const now = new Date().toISOString();
    await this.transactions.run((sql) => wastebasketStore.put(sql, kind, id, now, by.name));
    const gone = await this.line(kind, id, by);
    await this.history.note(PUT[kind], gone?.name ?? '');
    this.changed(kind, id);
  }

  /** @throws MailbagError not-found, account-not-allowed, sender-exists */
  async putBack(kind: WastebasketKind, id: number, by: Account): Promise<WastebasketLine[]> {
    const { name } = await this.touched(kind, id, by);
    await this.holders[kind].assertMayComeBack?.(id);
    await this.transactions.run((sql) => wastebasketStore.putBack(sql, kind, id));
    await this.holders[kind].cameBack?.(id);
    await this.history.note(t`put something back from the wastebasket`, name);
    this.changed(kind, id);
    return this.list(by);
  }

  /** Deletes for good what lies in it. @throws MailbagError not-found, account-not-allowed, template-in-use, mail-server-in-use */
  async erase(kind: WastebasketKind, id: number, by: Account): Promise<WastebasketLine[]> {
    const { name } = await this.touched(kind, id, by);
    await this.holders[kind].erase(id);
    await this.history.note(t`deleted something for good`, name);
    this.changed(kind, id);
    return this.list(by);
  }

  /** Deletes for good what came before a time. */
  async empty(before: Date): Promise<void> {
    const over = (await wastebasketStore.list(this.transactions)).filter(({ deletedAt }) => Date.parse(deletedAt) < before.getTime());
    const gone: string[] = [];
    for (const kind of WASTEBASKET_KINDS)
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

  private async line(kind: WastebasketKind, id: number, by: Account): Promise<DeletedLine | undefined> {
    return (await this.linesOf(by)).find((one) => one.kind === kind && one.id === id);
  }

  /** What somebody may put back or delete for good. @throws MailbagError not-found, account-not-allowed */
  private async touched(kind: WastebasketKind, id: number, by: Account): Promise<DeletedLine> {
    const found = await this.line(kind, id, by);
    if (!found) throw new MailbagError('not-found', { what: t`thing in the wastebasket` });
    if (roles.indexOf(by.role) > roles.indexOf(found.needs)) throw new MailbagError('account-not-allowed', { role: found.needs });
    return found;
  }

  private changed(kind: WastebasketKind, id: number): void {
    this.holders[kind].changed?.();
    const topic = LIVE_TOPICS.find((one) => one === kind);
    if (topic) this.live.notify(topic, id);
    this.live.notify('wastebasket', id);
  }
}
