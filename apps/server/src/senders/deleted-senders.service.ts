import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { FindOneOptions } from 'typeorm';
import { Repository } from 'typeorm';
import { Transactions } from '../persistence/transactions.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { SenderEntity } from './senders.entity.js';
import { SendersService } from './senders.service.js';

/** Senders on their way into the wastebasket, and out of it. */
@Injectable()
export class DeletedSenders {
  constructor(
    @InjectRepository(SenderEntity) private readonly senders: Repository<SenderEntity>,
    private readonly transactions: Transactions,
    private readonly service: SendersService,
  ) {}

  /** @throws MailbagError not-found, sender-in-use */
  async assertMayGo(id: number): Promise<void> {
    const { address } = await this.find({ where: { id } });
    const open = await deliveryStore.waitingOf(this.transactions, id);
    if ((open?.count ?? 0) > 0) throw new MailbagError('sender-in-use', { address, count: open!.count });
  }

  private async find(wanted: FindOneOptions<SenderEntity>): Promise<SenderEntity> {
    const found = await this.senders.findOne(wanted);
    if (!found) throw new MailbagError('not-found', { what: t`sender` });
    return found;
  }

  /** @throws MailbagError sender-exists where its address was added again meanwhile */
  async assertMayComeBack(id: number): Promise<void> {
    const { address } = await this.find({ where: { id }, withDeleted: true });
    if (await this.senders.findOneBy({ address })) throw new MailbagError('sender-exists', { address });
  }

  /** Deletes it for good. */
  async erase(id: number): Promise<void> {
    await this.transactions.run((manager) => manager.delete(SenderEntity, { id }));
  }

  /** It is used no more, or again. */
  changed(): void {
    this.service.changed.next();
  }
}
