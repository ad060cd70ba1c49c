import type { MailingPlan } from '@mailbag/contract';
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

@Entity('mailing')
export class MailingEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('text')
  name!: string;
  /** All of the plan but what stands in columns and tables of its own. */
  @Column('simple-json')
  plan!: Omit<MailingPlan, 'sourceId' | 'packet'>;
  @Column('integer', { nullable: true })
  sourceId!: number | null;
  @Column('integer')
  version!: number;
  /** Digest of what the findings in `finding` hold for. */
  @Column('text', { nullable: true })
  checkedKey!: string | null;
  @Column('text', { nullable: true })
  checkError!: string | null;
  /** Records that running checks have seen. */
  @Column('integer', { default: 0 })
  checkProgress!: number;
  @Column('text')
  createdAt!: string;
  @Column('text')
  updatedAt!: string;
  /** Null: it is in use. */
  @Column('text', { nullable: true })
  archivedAt!: string | null;
  /** When it was put into the wastebasket; null: it is not in it. ISO 8601. */
  @Column('text', { nullable: true })
  deletedAt!: string | null;
}
