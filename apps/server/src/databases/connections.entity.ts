import type { DatabaseKind } from '@mailbag/contract';
import { Column, DeleteDateColumn, Entity, PrimaryGeneratedColumn } from 'typeorm';

/** A database that sources read from. */
@Entity('connection')
export class ConnectionEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('text')
  name!: string;
  @Column('text')
  kind!: DatabaseKind;
  @Column('text')
  host!: string;
  @Column('integer')
  port!: number;
  @Column('text')
  databaseName!: string;
  @Column('text')
  user!: string;
  /** The password, encrypted; empty: none. */
  @Column('text')
  sealed!: string;
  @Column('integer')
  tls!: number;
  @Column('text', { nullable: true })
  fileId!: string | null;
  @Column('text')
  createdAt!: string;
  /** When it was put into the wastebasket; what lies there is found only where it is asked for. */
  @DeleteDateColumn({ type: 'text', nullable: true })
  deletedAt!: string | null;
}
