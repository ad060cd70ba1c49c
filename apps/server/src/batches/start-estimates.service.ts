import type { StartEstimate } from '@mailbag/contract';
import { SAMPLE_CODE, sendingSeconds } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { config } from '../platform/config.js';
import type { SendingServer } from '../senders/senders.service.js';
import { SendersService } from '../senders/senders.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { Pool } from '../work/pool.js';
import { BatchStarts } from './batch-starts.service.js';

/** Records of which copies are made to tell of all. */
const WEIGHED = 8;
/** A batch writes its copies to the disk and into the ledger beside making them, which takes about as long again (measured, `npm run bench -- batch`). */
const WRITING = 2;

/** How long a batch would take and what it weighs. */
@Injectable()
export class StartEstimates {
  constructor(
    private readonly starts: BatchStarts,
    private readonly sources: SourcesService,
    private readonly senders: SendersService,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
  ) {}

  /** @throws MailbagError start-outdated */
  async of(digest: string): Promise<StartEstimate> {
    const { sourceId, mailing, groups, copies } = this.starts.shownAs(digest);
    const { runs, mailed } = groups;
    const step = Math.max(1, runs.length / WEIGHED);
    const ordinals = [...new Set(Array.from({ length: Math.min(WEIGHED, runs.length) }, (_, at) => runs[Math.floor(at * step)]!))];
    const found = await this.sources.recordsAt(sourceId, ordinals);
    const records = ordinals.flatMap((ordinal) => {
      const record = found.get(ordinal);
      return record ? [{ record, ordinal, codes: mailing.templates.map(() => SAMPLE_CODE) }] : [];
    });
    const weighed = await this.pool.run('weigh', { sourceId, mailing, batch: await this.batches.next(), records });
    const each = (sum: number): number => (weighed.copies === 0 ? 0 : (sum / weighed.copies) * copies);
    const server = mailing.plan.message.mailed ? await this.server(mailing.plan.message.senderId ?? null) : null;
    const sending = server && sendingSeconds(mailed.length, server.limits, server.hours);
    return {
      bytes: Math.round(each(weighed.bytes)),
      makingSeconds: (each(weighed.milliseconds) * WRITING) / config.threads / 1000,
      sendingSeconds: sending === Infinity ? -1 : sending,
      server: server && server.name,
    };
  }

  private async server(senderId: number | null): Promise<SendingServer | null> {
    const sender = (await this.senders.ready(senderId)) ?? (await this.senders.ready(null));
    return (await this.senders.sendingServers()).find(({ id }) => id === sender?.serverId) ?? null;
  }
}
