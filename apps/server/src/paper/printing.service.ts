import type { Principal } from '../platform/principal.js';
import type { PrintRunDetail } from '@mailbag/contract';
import { MailbagError, isMailbagError, remark } from '@mailbag/core';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import type { PrintRunRow } from '../stores/print-run.store.js';
import { printRunStore } from '../stores/print-run.store.js';
import { IppPrinter } from './ipp-printer.js';
import { Printers } from './printers.service.js';
import type { PrintRunOptions } from './print-runs.service.js';
import { read } from '../files/files.js';
import { PrintRuns, printRunFile } from './print-runs.service.js';

const PRINTER: Principal = { kind: 'printer', id: null, name: 'Printer' };
const jobName = (number: number): string => `Mailbag print run ${number}`;

/** Hands print runs to printers, and asks until they are printed. */
@Injectable()
export class Printing implements OnApplicationBootstrap {
  constructor(
    private readonly runs: PrintRuns,
    private readonly transactions: Transactions,
    private readonly printers: Printers,
    private readonly live: LiveService,
    private readonly jobs: Jobs,
  ) {
    jobs.register('print-watch', {
      title: 'Asking the printer',
      atOnce: 8,
      retry: [5000],
      forEver: true,
      run: ({ key }) => this.ask(Number(key)),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    for (const run of await printRunStore.underWay(this.transactions)) {
      if (run.state === 'printing') await this.watch(run.id, run.name);
      else if (run.state === 'sending') void this.findJob(run);
    }
  }

  /** The server stopped while a job was handed to the printer: the printer is asked whether it has it. */
  private async findJob(run: PrintRunRow): Promise<void> {
    try {
      const jobId = await new IppPrinter(await this.printers.uri(run.printerId ?? -1)).find(jobName(run.number));
      if (jobId === null) await this.runs.move(run.id, 'sending', 'ready', remark('stopped-before-printer'));
      else {
        await this.transactions.run((sql) => printRunStore.printing(sql, jobId, run.id));
        await this.watch(run.id, run.name);
      }
    } catch (error) {
      await this.runs.move(
        run.id,
        'sending',
        'unconfirmed',
        remark('printer-unclear', { answer: isMailbagError(error) ? error.message : String(error) }),
      );
    }
  }

  /** Hands the run to a printer and watches it. @throws MailbagError print-run-state, printer-unreachable, printer-refused */
  async print(id: number, printerId: number): Promise<PrintRunDetail> {
    const run = await this.runs.row(id);
    const uri = await this.printers.uri(printerId);
    if (run.state !== 'ready' && run.state !== 'failed')
      throw new MailbagError('print-run-state', { run: run.number, state: run.state, wanted: 'printed' });
    await this.transactions.run((sql) => printRunStore.setPrinter(sql, printerId, id));
    if (!(await this.runs.move(id, run.state, 'sending', null)))
      throw new MailbagError('print-run-state', { run: run.number, state: run.state, wanted: 'printed' });
    const { duplex } = JSON.parse(run.options) as PrintRunOptions;
    try {
      const file = await read(printRunFile(id));
      if (!file) throw new MailbagError('file-gone', { name: `Print run ${run.number}` });
      const jobId = await new IppPrinter(uri).print(file, jobName(run.number), duplex);
      await this.transactions.run((sql) => printRunStore.accepted(sql, jobId, id));
    } catch (error) {
      await this.runs.move(id, 'sending', 'ready', isMailbagError(error) ? error.message : String(error));
      throw error;
    }
    await this.watch(id, run.name);
    return this.runs.detail(id);
  }

  /** Has the printer asked again and again until its job is over. */
  private watch(id: number, name: string): Promise<void> {
    return this.jobs.add({ kind: 'print-watch', key: id, subject: name });
  }

  /** Asks the printer once. @returns milliseconds until it is to be asked again; nothing: its job is over */
  private async ask(id: number): Promise<number | void> {
    const run = await this.runs.row(id);
    if (run.state !== 'printing' || run.jobId === null) return;
    const status = await new IppPrinter(await this.printers.uri(run.printerId ?? -1))
      .status(run.jobId)
      .catch((error: unknown) => ({ state: 'waiting' as const, statusMessage: isMailbagError(error) ? error.message : String(error) }));
    if (status.state === 'printed')
      return this.runs.markPrinted(id, 'printing', PRINTER, status.statusMessage || remark('printer-printed'));
    if (status.state === 'gone') return void (await this.runs.move(id, 'printing', 'unconfirmed', remark('printer-forgot')));
    if (status.state === 'failed' || status.state === 'cancelled')
      return void (await this.runs.move(
        id,
        'printing',
        'failed',
        status.statusMessage || remark(status.state === 'failed' ? 'printer-gave-up' : 'printer-cancelled'),
      ));
    if (status.statusMessage !== (run.detail ?? '')) {
      await this.transactions.run((sql) => printRunStore.say(sql, status.statusMessage || null, id));
      this.live.notify('print-run', id);
    }
    return config.printerSeconds * 1000;
  }
}
