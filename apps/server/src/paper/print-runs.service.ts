import { existsSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import type { OfficeRequest, PaperWaiting, PrintRunDetail, PrintRunRequest, PrintRunState, PrintRunSummary } from '@mailbag/contract';
import type { PostalAddress } from '@mailbag/core';
import { MailbagError, addressLines, comparePostal, isMailbagError } from '@mailbag/core';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { changeCopies, noteCopies } from '../copies/copy-changes.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { config, dataPath } from '../platform/config.js';
import { noOffice } from '../settings/settings.controller.js';
import { SettingsService } from '../settings/settings.service.js';
import { Pool } from '../work/pool.js';
import { IppPrinter } from './ipp-printer.js';
import { Printers } from './printers.service.js';
import { copyStore } from '../stores/copy.store.js';
import type { CopyInRun, PaperCandidate, PrintRunRow } from '../stores/print-run.store.js';
import { printRunStore } from '../stores/print-run.store.js';

interface Options {
  duplex: boolean;
  addressSheets: boolean;
  leftOut: number;
  again: boolean;
}

const PRINTER = 'Printer';
/** Where a record holds none, or is deleted. */
const noAddress: PostalAddress = { name: '', street: '', postalCode: '', town: '', region: '', country: '' };
/** The PDF of a print run. */
export const printRunFile = (id: number): string => dataPath('print-runs', `run-${id}.pdf`);
const jobName = (number: number): string => `Mailbag print run ${number}`;

/** Gathers copies for the post, has them printed, and marks them printed when the printer or a person says so. */
@Injectable()
export class PrintRuns implements OnApplicationBootstrap {
  private readonly logger = new Logger('print runs');
  private readonly watched = new Set<number>();

  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
    private readonly printers: Printers,
    private readonly settings: SettingsService,
    private readonly pool: Pool,
    private readonly live: LiveService,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    const rows = await printRunStore.underWay(this.transactions);
    for (const run of rows) {
      // The server stopped while it was put together: it is put together once more, of the same copies.
      if (run.state === 'making') void this.putTogether(run.id).catch((error: unknown) => this.logger.error(error));
      else if (run.state === 'printing') void this.watch(run.id);
      else void this.findJob(run);
    }
  }

  /** The server stopped while a job was handed to the printer: the printer is asked whether it has it. */
  private async findJob(run: PrintRunRow): Promise<void> {
    try {
      const jobId = await new IppPrinter(await this.printers.uri(run.printerId ?? -1)).find(jobName(run.number));
      if (jobId === null) await this.move(run.id, 'sending', 'ready', 'The server stopped before the printer had it. Print it again.');
      else {
        await this.transactions.run((sql) => printRunStore.printing(sql, jobId, run.id));
        void this.watch(run.id);
      }
    } catch (error) {
      await this.move(
        run.id,
        'sending',
        'unconfirmed',
        `Nobody knows whether the printer has it: ${isMailbagError(error) ? error.message : String(error)}`,
      );
    }
  }

  private async move(id: number, from: PrintRunState, to: PrintRunState, said: string | null): Promise<boolean> {
    const isMoved = await this.transactions.run((sql) => printRunStore.move(sql, to, said, new Date().toISOString(), id, from));
    this.live.tell('print-run', id);
    return isMoved === 1;
  }

  private candidates({
    mailing,
    batch,
    ids,
    reasons,
  }: Pick<PrintRunRequest, 'mailing' | 'batch' | 'ids' | 'reasons'>): Promise<PaperCandidate[]> {
    if (ids?.length) return printRunStore.chosenForPaper(this.transactions, ids);
    return printRunStore
      .gathered(this.transactions, { batch, mailing })
      .then((rows) => rows.filter(({ reason }) => reasons.includes(reason)));
  }

  /** Postal addresses of records, by batch and record. */
  private async addresses(rows: readonly CopyInRun[]): Promise<Map<string, PostalAddress>> {
    const found = new Map<string, PostalAddress>();
    const batches = new Map<number, CopyInRun[]>();
    for (const row of rows) batches.set(row.batchId, [...(batches.get(row.batchId) ?? []), row]);
    for (const [batchId, list] of batches) {
      const firsts = new Map<number, CopyInRun>();
      for (const row of list) if (!firsts.has(row.recordOrdinal)) firsts.set(row.recordOrdinal, row);
      const records = [...firsts.values()].map(({ recordOrdinal: ordinal, code, templateName: template }) => ({ ordinal, code, template }));
      const addresses = await this.pool.run('postalAddresses', { batchId, records });
      records.forEach(({ ordinal }, index) => {
        const address = addresses[index];
        if (address) found.set(`${batchId} ${ordinal}`, address);
      });
    }
    return found;
  }

  private async office(): Promise<OfficeRequest> {
    return (await this.settings.get<OfficeRequest>('office')) ?? noOffice;
  }

  /** What waits for paper. */
  async waiting(mailing: number | null, batch: number | null): Promise<PaperWaiting> {
    const rows = await this.candidates({ mailing, batch, reasons: ['no-address', 'bounced', 'asked'] });
    const { country } = await this.office();
    const addresses = await this.addresses(rows);
    const byReason = { 'no-address': 0, bounced: 0, asked: 0 };
    const mailings = new Map<number, { id: number; name: string; copies: number }>();
    for (const { reason, mailingId, mailingName } of rows) {
      byReason[reason]++;
      const known = mailings.get(mailingId) ?? { id: mailingId, name: mailingName, copies: 0 };
      known.copies++;
      mailings.set(mailingId, known);
    }
    const withoutPost = [...addresses.values()].filter((one) => addressLines(one, country) === null).length;
    return {
      byReason,
      copies: rows.length,
      recipients: addresses.size,
      withoutPost,
      mailings: [...mailings.values()].sort((a, b) => b.copies - a.copies),
    };
  }

  /** Gathers, sorts and puts a run together. @throws MailbagError print-nothing */
  async make(request: PrintRunRequest, who: string): Promise<PrintRunDetail> {
    const rows = await this.candidates(request);
    const office = await this.office();
    const addresses = await this.addresses(rows);
    const groups = new Map<string, PaperCandidate[]>();
    for (const row of rows) {
      const key = `${row.batchId} ${row.recordOrdinal}`;
      groups.set(key, [...(groups.get(key) ?? []), row]);
    }
    const recipients = [...groups].flatMap(([key, copies]) => {
      const address = addresses.get(key) ?? noAddress;
      return addressLines(address, office.country) !== null || !request.addressSheets ? [{ copies, address }] : [];
    });
    recipients.sort((a, b) => comparePostal(a.address, b.address, office.country));
    const copies = recipients.flatMap((one) => one.copies);
    if (copies.length === 0) throw new MailbagError('print-nothing');
    const again = Boolean(request.ids?.length);
    const options: Options = { duplex: request.duplex, addressSheets: request.addressSheets, leftOut: rows.length - copies.length, again };
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
        recipients: recipients.length,
        who,
        createdAt: now,
      });
      const lines = copies.map((copy) => ({
        id: copy.id,
        recipient: copy.recipient,
        postalCode: addresses.get(`${copy.batchId} ${copy.recordOrdinal}`)?.postalCode ?? '',
      }));
      await printRunStore.addCopies(sql, made, lines);
      return made;
    });
    await this.putTogether(id);
    return this.detail(id);
  }

  /** Writes the file of a run that was gathered. @throws MailbagError as assembling does; the run has failed then */
  private async putTogether(id: number): Promise<void> {
    const { name, options } = await this.row(id);
    const { duplex, addressSheets } = JSON.parse(options) as Options;
    try {
      const copies = await printRunStore.candidates(this.transactions, id);
      const office = await this.office();
      const addresses = addressSheets ? await this.addresses(copies) : new Map<string, PostalAddress>();
      const begun = new Set<string>();
      const items = copies.map((copy) => {
        const key = `${copy.batchId} ${copy.recordOrdinal}`;
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
        path: printRunFile(id),
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
      await this.move(id, 'making', 'failed', isMailbagError(error) ? error.message : 'It could not be put together. No copy was marked.');
      if (!isMailbagError(error)) this.logger.error(error);
      throw error;
    }
    this.live.tell('print-run', id);
  }

  private async row(id: number): Promise<PrintRunRow> {
    const run = await printRunStore.one(this.transactions, id);
    if (!run) throw new MailbagError('not-found', { what: 'print run' });
    return run;
  }

  private async toSummary({ options, printerId, jobId: _, ...run }: PrintRunRow): Promise<PrintRunSummary> {
    const { duplex, addressSheets, leftOut } = JSON.parse(options) as Options;
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
  async file(id: number): Promise<{ path: string; name: string }> {
    const { number } = await this.row(id);
    const path = printRunFile(id);
    if (!existsSync(path)) throw new MailbagError('not-found', { what: 'file of this print run' });
    return { path, name: `Print run ${number}.pdf` };
  }

  /** Hands the run to a printer and watches it. @throws MailbagError print-run-state, printer-unreachable, printer-refused */
  async print(id: number, printerId: number): Promise<PrintRunDetail> {
    const run = await this.row(id);
    const uri = await this.printers.uri(printerId);
    if (run.state !== 'ready' && run.state !== 'failed')
      throw new MailbagError('print-run-state', { run: run.number, state: run.state, wanted: 'printed' });
    await this.transactions.run((sql) => printRunStore.setPrinter(sql, printerId, id));
    if (!(await this.move(id, run.state, 'sending', null)))
      throw new MailbagError('print-run-state', { run: run.number, state: run.state, wanted: 'printed' });
    const { duplex } = JSON.parse(run.options) as Options;
    try {
      const jobId = await new IppPrinter(uri).print(printRunFile(id), jobName(run.number), duplex);
      await this.transactions.run((sql) => printRunStore.accepted(sql, jobId, id));
    } catch (error) {
      await this.move(id, 'sending', 'ready', isMailbagError(error) ? error.message : String(error));
      throw error;
    }
    void this.watch(id);
    return this.detail(id);
  }

  /** Asks the printer again and again until the job is over. */
  private async watch(id: number): Promise<void> {
    if (this.watched.has(id)) return;
    this.watched.add(id);
    try {
      for (;;) {
        const run = await this.row(id);
        if (run.state !== 'printing' || run.jobId === null) return;
        const status = await new IppPrinter(await this.printers.uri(run.printerId ?? -1))
          .status(run.jobId)
          .catch((error: unknown) => ({ state: 'waiting' as const, said: isMailbagError(error) ? error.message : String(error) }));
        if (status.state === 'printed')
          return await this.markPrinted(id, 'printing', PRINTER, status.said || 'The printer says that it is printed.');
        if (status.state === 'gone')
          return void (await this.move(id, 'printing', 'unconfirmed', `${status.said} Look at what lies in the tray: was it printed?`));
        if (status.state === 'failed' || status.state === 'cancelled')
          return void (await this.move(
            id,
            'printing',
            'failed',
            status.said || `The printer ${status.state === 'failed' ? 'gave it up' : 'cancelled it'}.`,
          ));
        if (status.said !== (run.said ?? '')) {
          await this.transactions.run((sql) => printRunStore.say(sql, status.said || null, id));
          this.live.tell('print-run', id);
        }
        await new Promise((done) => setTimeout(done, config.printerSeconds * 1000));
      }
    } finally {
      this.watched.delete(id);
    }
  }

  private async markPrinted(id: number, from: PrintRunState, who: string, said: string): Promise<void> {
    const { number, options } = await this.row(id);
    const batches = await this.transactions.run(async (sql) => {
      if ((await printRunStore.printed(sql, said, new Date().toISOString(), id, from)) !== 1) return [];
      const rows = await printRunStore.copies(sql, id);
      const words = `Print run ${number}`;
      const again = rows.filter(({ state }) => state === 'printed').map((one) => one.id);
      if ((JSON.parse(options) as Options).again || again.length > 0) await noteCopies(sql, again, 'reprint', { who, said: words });
      await changeCopies(
        sql,
        rows.map((one) => one.id),
        'print',
        { who, said: words },
      );
      await copyStore.noPaper(
        sql,
        rows.map((one) => one.id),
      );
      return [...new Set(rows.map(({ batchId }) => batchId))];
    });
    for (const batch of batches) {
      this.live.tell('copies', batch);
      this.live.tell('batch', batch);
    }
    this.live.tell('print-run', id);
  }

  /** A person's word that it is printed. @throws MailbagError print-run-state */
  async printed(id: number, who: string): Promise<PrintRunDetail> {
    const run = await this.row(id);
    if (!['ready', 'failed', 'unconfirmed', 'printing'].includes(run.state))
      throw new MailbagError('print-run-state', { run: run.number, state: run.state, wanted: 'marked as printed' });
    await this.markPrinted(id, run.state, who, `${who} says that it is printed.`);
    return this.detail(id);
  }

  /** Lets the copies go again; what is at the printer is taken back there. @throws MailbagError print-run-state */
  async cancel(id: number): Promise<PrintRunDetail> {
    const run = await this.row(id);
    if (run.state === 'printed' || run.state === 'cancelled')
      throw new MailbagError('print-run-state', { run: run.number, state: run.state, wanted: 'cancelled' });
    if (run.state === 'printing' && run.jobId !== null)
      await new IppPrinter(await this.printers.uri(run.printerId ?? -1)).cancel(run.jobId).catch(() => undefined);
    await this.move(id, run.state, 'cancelled', null);
    await rm(printRunFile(id), { force: true });
    return this.detail(id);
  }
}
