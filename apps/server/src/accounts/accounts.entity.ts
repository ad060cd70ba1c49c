import { Column, Entity, PrimaryColumn, PrimaryGeneratedColumn } from 'typeorm';

@Entity('account')
export class AccountEntity {
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
