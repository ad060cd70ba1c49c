import type { PrinterAnswer, PrinterRequest } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { assertTargetUrl } from '../platform/targets.js';
import { IppPrinter } from './ipp-printer.js';

/** The printers that print runs can be sent to. */
@Injectable()
export class Printers {
  constructor(private readonly transactions: Transactions) {}

  list(): Promise<PrinterAnswer[]> {
    return this.transactions.read('SELECT id, name, uri FROM printer ORDER BY name COLLATE NOCASE');
  }

  /** Keeps a printer after it has answered. @throws MailbagError target-local, target-wrong, printer-unreachable, printer-refused */
  async add({ name, uri }: PrinterRequest): Promise<PrinterAnswer[]> {
    await assertTargetUrl(uri, 631);
    await new IppPrinter(uri).about();
    await this.transactions.run((manager) =>
      manager.query('INSERT INTO printer (name, uri, createdAt) VALUES (?, ?, ?)', [name.trim(), uri.trim(), new Date().toISOString()]),
    );
    return this.list();
  }

  /** @throws MailbagError printer-in-use */
  async remove(id: number): Promise<PrinterAnswer[]> {
    const [run] = await this.transactions.read<{ number: number }>(
      "SELECT number FROM print_run WHERE printerId = ? AND state IN ('sending', 'printing')",
      [id],
    );
    if (run) throw new MailbagError('printer-in-use', { run: run.number });
    await this.transactions.run((manager) => manager.query('DELETE FROM printer WHERE id = ?', [id]));
    return this.list();
  }

  /** @throws MailbagError not-found */
  async uri(id: number): Promise<string> {
    const [printer] = await this.transactions.read<{ uri: string }>('SELECT uri FROM printer WHERE id = ?', [id]);
    if (!printer) throw new MailbagError('not-found', { what: 'printer' });
    return printer.uri;
  }
  async name(id: number): Promise<string | null> {
    const [printer] = await this.transactions.read<{ name: string }>('SELECT name FROM printer WHERE id = ?', [id]);
    return printer?.name ?? null;
  }
}
