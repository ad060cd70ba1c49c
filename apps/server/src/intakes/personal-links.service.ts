import type { PublicPersonalAnswer } from '@mailbag/contract';
import type { AnswerChange, Column, IntakeAnswers, IntakePlan, PersonalPlan, SourceRecord } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, answerChanges, isMailbagError, knownAnswers, knownBeside, normalised, remark, typedDay } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { changeCopies, noteCopies } from '../copies/copy-changes.js';
import { CorrectionsService } from '../corrections/corrections.service.js';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { codeOfToken } from '../frozen/personal-link.js';
import { LiveService } from '../live/live.service.js';
import type { Sql } from '../persistence/sql.js';
import { Transactions } from '../persistence/transactions.js';
import type { Principal } from '../platform/principal.js';
import { MAILBAG } from '../platform/principal.js';
import { SourcesService } from '../sources/sources.service.js';
import type { LinkedCopy } from '../stores/personal.store.js';
import { personalStore } from '../stores/personal.store.js';
import type { SubmissionRow } from '../stores/submission.store.js';
import { submissionStore } from '../stores/submission.store.js';
import type { Edition } from './editions.service.js';
import { Editions } from './editions.service.js';
import { linkedRecord } from './linked-record.js';

const VISITOR: Principal = { kind: 'visitor', id: null, name: t`Recipient, by personal link` };

/** Whoever came by a personal link, and may. */
export interface LinkedVisit {
  copy: LinkedCopy;
  columns: Column[];
  record: SourceRecord;
  personal: PersonalPlan;
}

/** What was typed as what a record says: by its text, or as a day however it is written. */
function isSame(typed: string, column: Column, text: string, value: unknown): boolean {
  if (normalised(typed) === normalised(text)) return true;
  const day = typedDay(typed);
  return day !== null && (day === value || day === typedDay(text)) && column.kind === 'date';
}

/** Pages that are filled in already with what the office knows: reached by links that copies and messages hold, answered beside the records. */
@Injectable()
export class PersonalLinks {
  constructor(
    private readonly transactions: Transactions,
    private readonly editions: Editions,
    private readonly sources: SourcesService,
    private readonly batches: FrozenBatches,
    private readonly corrections: CorrectionsService,
    private readonly live: LiveService,
  ) {}

  /**
   * What a personal link shows: the answers that are known, or what must be said first.
   * @param check what the visitor says to be let in; null: nothing yet
   * @throws MailbagError not-found, intake-closed
   */
  async open(word: string, token: string, check: string | null): Promise<PublicPersonalAnswer> {
    const edition = await this.editions.ofWord(word);
    const visit = await this.visit(edition, token);
    const { ask } = visit.personal;
    const own = { edition: edition.id, answers: {}, asks: ask, isWrong: false };
    if (ask !== '' && !this.knows(visit, check)) return { ...own, isWrong: check !== null };
    const { columns, record, personal } = visit;
    return { ...own, asks: null, answers: knownAnswers(edition.plan, personal.recordWords, columns, record) };
  }

  /** Whoever sends answers by a personal link. @throws MailbagError not-found, intake-closed */
  async given(word: string, token: string, check: string | null): Promise<LinkedVisit> {
    const visit = await this.visit(await this.editions.ofWord(word), token);
    if (visit.personal.ask !== '' && !this.knows(visit, check)) throw new MailbagError('not-found', { what: t`link` });
    return visit;
  }

  /** Whether somebody was given a link, whatever else they must say. */
  async isGiven(word: string, token: string): Promise<boolean> {
    return this.visit(await this.editions.ofWord(word), token).then(
      () => true,
      (error: unknown) => {
        if (!isMailbagError(error)) throw error;
        return false;
      },
    );
  }

  /** A link that was never given, that was taken back, or whose copy was withdrawn, is answered alike. @throws MailbagError not-found, intake-closed */
  private async visit({ intakeId, plan: { personal, opening } }: Edition, token: string): Promise<LinkedVisit> {
    const code = personal ? codeOfToken({ intakeId, round: personal.round }, token) : null;
    const copy = code === null ? undefined : await personalStore.copy(this.transactions, code);
    if (!personal || copy?.mailingId !== personal.mailingId || copy.state === 'withdrawn')
      throw new MailbagError('not-found', { what: t`link` });
    const { until } = personal;
    if (until !== null && Date.parse(until) <= Date.now()) {
      const ask = opening.contact.trim() === '' ? '' : `; ask ${opening.contact.trim()}`;
      throw new MailbagError('intake-closed', { why: t`your link ended on ${until.slice(0, 10)}${ask}` });
    }
    const { columns, record } = await linkedRecord(this.transactions, this.sources, this.batches, copy);
    return { copy, columns, record, personal };
  }

  private knows({ columns, record, personal }: LinkedVisit, check: string | null): boolean {
    const index = columns.findIndex(({ name }) => name === personal.ask);
    const cell = record.cells[index];
    // Where the record says nothing, nobody can know it.
    return check !== null && check.trim() !== '' && !!cell?.text.trim() && isSame(check, columns[index]!, cell.text, cell.value);
  }

  /** What the record says beyond what is asked. */
  beside(plan: IntakePlan, { columns, record }: LinkedVisit): Record<string, string> {
    return knownBeside(plan, columns, record);
  }

  /** What answers would change in the record. */
  changes(plan: IntakePlan, { personal, columns, record }: LinkedVisit, answers: IntakeAnswers, today: string): AnswerChange[] {
    return answerChanges(plan, personal.recordWords, columns, record, answers, today);
  }

  /** Writes down that a recipient answered: their copies are returned, and complete where nothing is left to be looked at. Called within the transaction that keeps the submission. */
  async returned(sql: Sql, { copy }: LinkedVisit, number: string, isOpen: boolean): Promise<void> {
    const ids = await personalStore.together(sql, copy);
    const because = { who: VISITOR, detail: remark('answered-by-link', { number }) };
    if ((await changeCopies(sql, ids, 'return', because)) === 0) await noteCopies(sql, ids, 'answer', because);
    else if (!isOpen) await changeCopies(sql, ids, 'complete', because);
  }

  /**
   * Takes changes that a recipient made over into the source, as corrections, and leaves the others aside.
   * @param accepted columns @returns the submission's changes are settled
   * @throws MailbagError not-found, intake-settled, intake-record-gone
   */
  async settle(intakeId: number, id: number, accepted: readonly string[], who: Principal): Promise<void> {
    const row = await submissionStore.byId(this.transactions, intakeId, id);
    if (!row) throw new MailbagError('not-found', { what: t`answer` });
    if (row.settled !== 'open') throw new MailbagError('intake-settled', { number: row.number });
    await this.takeOver(row, accepted, who);
  }

  private async takeOver(row: SubmissionRow, accepted: readonly string[], who: Principal): Promise<void> {
    const wanted = (JSON.parse(row.changes) as AnswerChange[]).filter(({ column }) => accepted.includes(column));
    const copy = await personalStore.copy(this.transactions, row.copyCode!);
    if (wanted.length > 0) {
      const found = copy && (await linkedRecord(this.transactions, this.sources, this.batches, copy));
      if (!found || found.sourceId === null) throw new MailbagError('intake-record-gone', { number: row.number });
      const changes = wanted.map(({ column, now }) => ({ row: found.record.row, column, value: now }));
      await this.corrections.correct(found.sourceId, changes, who);
    }
    await this.transactions.run(async (sql) => {
      await submissionStore.setSettled(sql, row.id, wanted.length > 0 ? 'accepted' : 'refused');
      if (!copy) return;
      const ids = await personalStore.together(sql, copy);
      await changeCopies(sql, ids, 'complete', { who, detail: remark('answer-settled', { number: row.number }) });
    });
    this.live.notify('intake', row.intakeId);
    if (copy) this.live.notify('copies', copy.batchId);
  }

  /** Takes over what nobody is to look at. What cannot be taken over waits for a person. */
  async takeOverAll(intakeId: number): Promise<void> {
    for (const row of await submissionStore.open(this.transactions, intakeId)) {
      const columns = (JSON.parse(row.changes) as AnswerChange[]).map(({ column }) => column);
      try {
        await this.takeOver(row, columns, MAILBAG);
      } catch (error) {
        if (!(error instanceof MailbagError)) throw error;
      }
    }
  }
}
