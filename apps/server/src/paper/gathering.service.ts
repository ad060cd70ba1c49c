import type { OfficeRequest, PaperWaiting, PrintRunRequest } from '@mailbag/contract';
import type { PostalAddress } from '@mailbag/core';
import { addressLines, comparePostal } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { noOffice } from '../settings/settings.controller.js';
import { SettingsService } from '../settings/settings.service.js';
import type { CopyInRun, PaperCandidate } from '../stores/print-run.store.js';
import { printRunStore } from '../stores/print-run.store.js';
import { Pool } from '../work/pool.js';

/** Where a record holds none, or is deleted. */
const noAddress: PostalAddress = { name: '', street: '', postalCode: '', town: '', region: '', country: '' };

/** By which copies of one recipient are kept together. */
export const recipientOf = ({ batchId, recordOrdinal }: Pick<CopyInRun, 'batchId' | 'recordOrdinal'>): string =>
  `${batchId} ${recordOrdinal}`;

/** What goes to paper together, in the order of the post. */
export interface Gathered {
  copies: PaperCandidate[];
  recipients: number;
  /** Copies that wait, and cannot be sent by post. */
  leftOut: number;
  /** By recipient. */
  addresses: ReadonlyMap<string, PostalAddress>;
}

/** Finds the copies that wait for paper, and where they go. */
@Injectable()
export class Gathering {
  constructor(
    private readonly transactions: Transactions,
    private readonly settings: SettingsService,
    private readonly pool: Pool,
  ) {}

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
  async addresses(rows: readonly CopyInRun[]): Promise<Map<string, PostalAddress>> {
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
        if (address) found.set(recipientOf({ batchId, recordOrdinal: ordinal }), address);
      });
    }
    return found;
  }

  async office(): Promise<OfficeRequest> {
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

  /** Gathers what is asked for and sorts it for the post. */
  async gather(request: PrintRunRequest): Promise<Gathered> {
    const rows = await this.candidates(request);
    const { country } = await this.office();
    const addresses = await this.addresses(rows);
    const groups = new Map<string, PaperCandidate[]>();
    for (const row of rows) groups.set(recipientOf(row), [...(groups.get(recipientOf(row)) ?? []), row]);
    const recipients = [...groups].flatMap(([key, copies]) => {
      const address = addresses.get(key) ?? noAddress;
      return addressLines(address, country) !== null || !request.addressSheets ? [{ copies, address }] : [];
    });
    recipients.sort((a, b) => comparePostal(a.address, b.address, country));
    const copies = recipients.flatMap((one) => one.copies);
    return { copies, recipients: recipients.length, leftOut: rows.length - copies.length, addresses };
  }
}
