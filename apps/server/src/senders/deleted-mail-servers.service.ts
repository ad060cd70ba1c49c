import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { MailServerEntity, SenderEntity } from './senders.entity.js';
import { SendersService } from './senders.service.js';

/** Mail servers on their way into the wastebasket, and out of it. */
@Injectable()
export class DeletedMailServers {
  constructor(
    @InjectRepository(MailServerEntity) private readonly servers: Repository<MailServerEntity>,
    @InjectRepository(SenderEntity) private readonly senders: Repository<SenderEntity>,
    private readonly transactions: Transactions,
    private readonly service: SendersService,
  ) {}

  /** @throws MailbagError not-found, mail-server-in-use */
  assertMayGo(id: number): Promise<void> {
    return this.assertUnused(id, false);
  }

  private async assertUnused(id: number, withDeleted: boolean): Promise<void> {
    const server = await this.servers.findOne({ where: { id }, withDeleted });
    if (!server) throw new MailbagError('not-found', { what: t`mail server` });
    const used = await this.senders.find({ where: { serverId: id }, withDeleted });
    if (used.length > 0) throw new MailbagError('mail-server-in-use', { server: server.name, senders: used.map(({ address }) => address) });
  }

  /** Deletes it for good. @throws MailbagError mail-server-in-use by senders in the wastebasket */
  async erase(id: number): Promise<void> {
    await this.assertUnused(id, true);
    await this.transactions.run((manager) => manager.delete(MailServerEntity, { id }));
  }

  /** It is used no more, or again. */
  changed(): void {
    this.service.changed.next();
  }
}
