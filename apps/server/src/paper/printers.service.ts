import type { PrinterAnswer, PrinterRequest } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { assertTargetUrl } from '../platform/targets.js';
import { IppPrinter } from './ipp-printer.js';
import { printRunStore } from '../stores/print-run.store.js';
import { printerStore } from '../stores/printer.store.js';

/** The printers that print runs can be sent to. */
@Injectable()
export class Printers {
  constructor(private readonly transactions: Transactions) {}

  list(): Promise<PrinterAnswer[]> {
    return printerStore.list(this.transactions);
  }

  /** Keeps a printer after it has answered; another name alone asks nothing of it. @throws MailbagError target-local, target-wrong, printer-unreachable, printer-refused, printer-in-use, not-found */
  async save(id: number | null, { name, uri }: PrinterRequest): Promise<PrinterAnswer[]> {
    const before = id === null ? null : await this.uri(id);
    if (before !== uri.trim()) {
      if (id !== null) await this.assertIdle(id);
      await assertTargetUrl(uri, 631);
      await new IppPrinter(uri).about();
    }
    await this.transactions.run((sql) =>
      id === null
        ? printerStore.add(sql, name.trim(), uri.trim(), new Date().toISOString())
        : printerStore.set(sql, id, name.trim(), uri.trim()),
    );
    return this.list();
  }

  /** @throws MailbagError not-found, printer-in-use */
  async assertMayGo(id: number): Promise<void> {
    await this.uri(id);
    await this.assertIdle(id);
  }

  private async assertIdle(id: number): Promise<void> {
    const run = await printRunStore.atPrinter(this.transactions, id);
    if (run) throw new MailbagError('printer-in-use', { run: run.number });
  }

  /** Deletes it for good. */
  erase(id: number): Promise<unknown> {
    return this.transactions.run((sql) => printerStore.drop(sql, id));
  }

  /** @throws MailbagError not-found */
  async uri(id: number): Promise<string> {
    const printer = await printerStore.uri(this.transactions, id);
    if (!printer) throw new MailbagError('not-found', { what: t`printer` });
    return printer.uri;
  }
  async name(id: number): Promise<string | null> {
    const printer = await printerStore.name(this.transactions, id);
    return printer?.name ?? null;
  }

  /** Takes a job back from a printer, if it can be reached. */
  async takeBack(id: number, jobId: number): Promise<void> {
    await new IppPrinter(await this.uri(id)).cancel(jobId).catch(() => undefined);
  }
}
