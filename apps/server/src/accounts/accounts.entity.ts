import type { Role, SpokenLanguage } from '@mailbag/contract';
import type { AccountRow } from '../stores/account.store.js';
import { Column, Entity, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

@Entity('account')
export class AccountEntity implements AccountRow {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('text')
  name!: string;
  @Column('text', { unique: true })
  email!: string;
  @Column('text')
  passwordHash!: string;
  @Column('text')
  createdAt!: string;
  @Column('text')
  role!: Role;
  @Column('integer')
  seesValues!: number;
  @Column('integer')
  seesPasswords!: number;
  /** Since when nobody can sign in with it. */
  @Column('text', { nullable: true })
  disabledAt!: string | null;
  @Column('text', { nullable: true })
  lastSeenAt!: string | null;
  @Column('text', { default: '' })
  language!: SpokenLanguage;
  @Column('integer', { default: 0 })
  mailsBatches!: number;
}

/** A signed-in browser. The token itself is in the cookie only. */
@Entity('session')
export class SessionEntity {
  @PrimaryColumn('text')
  tokenHash!: string;
  @Column('integer')
  accountId!: number;
  @Column('text')
  createdAt!: string;
  @Column('text')
  expiresAt!: string;
}
