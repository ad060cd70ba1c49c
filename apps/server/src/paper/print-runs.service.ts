import type { PrintRunDetail, PrintRunRequest, PrintRunState, PrintRunSummary } from '@mailbag/contract';
import type { PostalAddress, Detail } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, addressLines, isMailbagError, leads, printRunLaw, remark } from '@mailbag/core';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { changeCopies, noteCopies } from '../copies/copy-changes.js';
import type { WantedJob } from '../jobs/jobs.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import type { FileKey } from '../files/file-key.js';
import { fileKey } from '../files/file-key.js';
import { has, remove } from '../files/files.js';
import { Pool } from '../work/pool.js';
import { Gathering, recipientOf } from './gathering.service.js';
import { Printers } from './printers.service.js';
import { copyStore } from '../stores/copy.store.js';
import type { PrintRunRow } from '../stores/print-run.store.js';
import { printRunStore } from '../stores/print-run.store.js';
import type { Principal } from '../platform/principal.js';

/** How a run was asked for. */
export interface PrintRunOptions {
  duplex: boolean;
  addressSheets: boolean;
  leftOut: number;
  again: boolean;
}

/** The PDF of a print run. */
export const printRunFile = (id: number): FileKey => fileKey('print-runs', `run-${id}.pdf`);

/** Print runs: copies that were gathered, put together, and are marked printed when the printer or a person says so. */
@Injectable()
export class PrintRuns implements OnApplicationBootstrap {
  private readonly logger = new Logger('print runs');

  constructor(
    private readonly transactions: Transactions,
    private readonly gathering: Gathering,
    private readonly printers: Printers,
    private readonly pool: Pool,
    private readonly live: LiveService,
    private readonly jobs: Jobs,
  ) {
    jobs.register('print-run', {
      title: 'Putting a print run together',
      atOnce: 2,
      retry: [],
      run: ({ key }) => this.putTogether(Number(key)),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    // The server stopped while they were put together: they are put together once more, of the same copies.
    for (const run of await printRunStore.underWay(this.transactions))
      if (run.state === 'making') await this.jobs.add(this.making(run.id, run.name));
  }

  /** @returns whether it still was in the first state */
  async move(id: number, from: PrintRunState, to: PrintRunState, detail: Detail | null): Promise<boolean> {
    if (!leads(printRunLaw, from, to)) throw new MailbagError('print-run-state', { run: id, state: from, wanted: to });
    const isMoved = await this.transactions.run((sql) => printRunStore.move(sql, to, detail, new Date().toISOString(), id, from));
    this.live.notify('print-run', id);
    return isMoved === 1;
  }

  /** Gathers, sorts and puts a run together. @throws MailbagError print-nothing */
  async make(request: PrintRunRequest, who: Principal): Promise<PrintRunDetail> {
    const { copies, recipients, leftOut, addresses } = await this.gathering.gather(request);
    if (copies.length === 0) throw new MailbagError('print-nothing');
    const again = Boolean(request.ids?.length);
    const options: PrintRunOptions = { duplex: request.duplex, addressSheets: request.addressSheets, leftOut, again };
    const now = new Date().toISOString();
    const id = await this.transactions.run(async (sql) => {
      // Another run may have gathered the same copies in the meantime.
      const taken = await printRunStore.takenElsewhere(
        sql,
        copies.map((copy) => copy.id),
      );
      // Or a copy may be on its way by mail by now.
      if ((taken.inRuns > 0 && !again) || taken.elsewhere > 0) throw new MailbagError('print-nothing');
      const last = await printRunStore.lastNumber(sql);
      const number = (last?.number ?? 0) + 1;
      const made = await printRunStore.add(sql, {
        number,
        name: request.name?.trim() || `Print run ${number}`,
        options,
        copies: copies.length,
        recipients,
        who,
        createdAt: now,
      });
      const lines = copies.map((copy) => ({
        id: copy.id,
        recipient: copy.recipient,
        postalCode: addresses.get(recipientOf(copy))?.postalCode ?? '',
      }));
      await printRunStore.addCopies(sql, made, lines);
      return made;
    });
    const { name } = await this.row(id);
    try {
      await this.jobs.run(this.making(id, name));
    } catch (error) {
      // The run has failed and says why; what is to be printed is gathered anew.
      await this.jobs.drop('print-run', id);
      throw error;
    }
    return this.detail(id);
  }

  /** Writes the file of a run that was gathered. @throws MailbagError as assembling does; the run has failed then */
  private async putTogether(id: number): Promise<void> {
    const { name, options, state } = await this.row(id);
    if (state !== 'making') return;
    const { duplex, addressSheets } = JSON.parse(options) as PrintRunOptions;
    try {
      const copies = await printRunStore.candidates(this.transactions, id);
      const office = await this.gathering.office();
      const addresses = addressSheets ? await this.gathering.addresses(copies) : new Map<string, PostalAddress>();
      const begun = new Set<string>();
      const items = copies.map((copy) => {
        const key = recipientOf(copy);
        const address = begun.has(key) ? undefined : addresses.get(key);
        begun.add(key);
        return {
          batchId: copy.batchId,
          recordOrdinal: copy.recordOrdinal,
          position: copy.position,
          code: copy.code,
          bookmark: `${copy.recipient || copy.code} · ${copy.templateName}`,
          address: address ? addressLines(address, office.country) : null,
        };
      });
      const made = await this.pool.run('assemble', {
        key: printRunFile(id),
        title: name,
        duplex,
        office: addressSheets ? { returnLine: office.returnLine } : null,
        items,
      });
      await this.transactions.run(async (sql) => {
        await printRunStore.ready(sql, made.sheets, made.pages, made.size, new Date().toISOString(), id);
        await printRunStore.setSheets(
          sql,
          copies.map((copy, index) => [copy.id, made.firstSheets[index]]),
          id,
        );
      });
    } catch (error) {
      // Left as it is: the next start goes on with it.
      if (isMailbagError(error) && error.code === 'server-stops') throw error;
      await this.move(id, 'making', 'failed', isMailbagError(error) ? error.message : remark('run-not-made'));
      if (!isMailbagError(error)) this.logger.error(error);
      throw error;
    }
    this.live.notify('print-run', id);
  }

  /** @throws MailbagError not-found */
  async row(id: number): Promise<PrintRunRow> {
    const run = await printRunStore.one(this.transactions, id);
    if (!run) throw new MailbagError('not-found', { what: t`print run` });
    return run;
  }

  private async toSummary({ options, printerId, jobId: _, principal: __, ...run }: PrintRunRow): Promise<PrintRunSummary> {
    const { duplex, addressSheets, leftOut } = JSON.parse(options) as PrintRunOptions;
    return { ...run, duplex, addressSheets, leftOut, printer: printerId ? await this.printers.name(printerId) : null };
  }

  async list(): Promise<PrintRunSummary[]> {
    const rows = await printRunStore.latest(this.transactions);
    return Promise.all(rows.map((run) => this.toSummary(run)));
  }

  async detail(id: number): Promise<PrintRunDetail> {
    return {
      ...(await this.toSummary(await this.row(id))),
      sheetsOf: await printRunStore.lines(this.transactions, id),
    };
  }

  /** @throws MailbagError not-found */
  async file(id: number): Promise<{ key: FileKey; name: string }> {
    const { number } = await this.row(id);
    const key = printRunFile(id);
    if (!(await has(key))) throw new MailbagError('not-found', { what: t`file of this print run` });
    return { key, name: `Print run ${number}.pdf` };
  }

  private readonly making = (id: number, name: string): WantedJob => ({ kind: 'print-run', key: id, subject: name, priority: 10 });

  /** Marks the copies of a run printed, when it still is in the state. */
  async markPrinted(id: number, from: PrintRunState, who: Principal, detail: Detail): Promise<void> {
    const { number, options } = await this.row(id);
    const batches = await this.transactions.run(async (sql) => {
      if ((await printRunStore.printed(sql, detail, new Date().toISOString(), id, from)) !== 1) return [];
      const rows = await printRunStore.copies(sql, id);
      const words = remark('print-run', { run: number });
      const again = rows.filter(({ state }) => state === 'printed').map((one) => one.id);
      if ((JSON.parse(options) as PrintRunOptions).again || again.length > 0)
        await noteCopies(sql, again, 'reprint', { who, detail: words });
      await changeCopies(
        sql,
        rows.map((one) => one.id),
        'print',
        { who, detail: words },
      );
      await copyStore.noPaper(
        sql,
        rows.map((one) => one.id),
      );
      return [...new Set(rows.map(({ batchId }) => batchId))];
    });
    for (const batch of batches) {
      this.live.notify('copies', batch);
      this.live.notify('batch', batch);
    }
    this.live.notify('print-run', id);
  }

  /** A person's word that it is printed. @throws MailbagError print-run-state */
  async printed(id: number, who: Principal): Promise<PrintRunDetail> {
    const run = await this.row(id);
    if (!['ready', 'failed', 'unconfirmed', 'printing'].includes(run.state))
      throw new MailbagError('print-run-state', { run: run.number, state: run.state, wanted: 'marked as printed' });
    await this.markPrinted(id, run.state, who, remark('printed-by-hand', { who: who.name }));
    return this.detail(id);
  }

  /** Lets the copies go again; what is at the printer is taken back there. @throws MailbagError print-run-state */
  async cancel(id: number): Promise<PrintRunDetail> {
    const run = await this.row(id);
    if (run.state === 'printed' || run.state === 'cancelled')
      throw new MailbagError('print-run-state', { run: run.number, state: run.state, wanted: 'cancelled' });
    if (run.state === 'printing' && run.jobId !== null) await this.printers.takeBack(run.printerId ?? -1, run.jobId);
    await this.move(id, run.state, 'cancelled', null);
    await remove(printRunFile(id));
    return this.detail(id);
  }
}
