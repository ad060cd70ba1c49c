import type { BatchState } from '@mailbag/contract';
import type { ErrorFields } from '@mailbag/core';
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';

@Entity('batch')
export class BatchEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('integer', { unique: true })
  number!: number;
  @Column('integer')
  mailingId!: number;
  @Column('text')
  mailingName!: string;
  @Column('text')
  state!: BatchState;
  /** What a paused batch goes on with. */
  @Column('text', { nullable: true })
  resumeTo!: BatchState | null;
  @Column('simple-json')
  frozen!: FrozenMailing;
  /** Every character of its records outside WinAnsi, found while planning. */
  @Column('text')
  characters!: string;
  @Column('integer')
  records!: number;
  /** Records for which copies are planned. */
  @Column('integer')
  plannedThrough!: number;
  @Column('integer')
  copies!: number;
  @Column('integer')
  mailed!: number;
  @Column('simple-json', { nullable: true })
  error!: { code: string; fields: ErrorFields; message: string } | null;
  /** Names of the columns whose values stand in its copies, as JSON. */
  @Column('text', { nullable: true })
  usedColumns!: string | null;
  /** The wish that began it, so that it begins nothing twice. */
  @Column('text', { nullable: true })
  startKey!: string | null;
  /** The day of its start, where the office is. */
  @Column('text')
  today!: string;
  @Column('text')
  startedAt!: string;
  @Column('text', { nullable: true })
  finishedAt!: string | null;
}
