import type { MailSecurity, SendHours } from '@mailbag/contract';
import { Column, DeleteDateColumn, Entity, PrimaryGeneratedColumn } from 'typeorm';

@Entity('mail_server')
export class MailServerEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('text')
  name!: string;
  @Column('text')
  host!: string;
  @Column('integer')
  port!: number;
  @Column('text')
  security!: MailSecurity;
  @Column('integer')
  checkCertificate!: number;
  @Column('text')
  user!: string;
  /** The password, encrypted; empty: none. */
  @Column('text')
  sealed!: string;
  @Column('integer')
  perMinute!: number;
  @Column('integer')
  perHour!: number;
  @Column('integer')
  perDomainMinute!: number;
  @Column('integer')
  connections!: number;
  @Column('integer')
  limitMb!: number;
  @Column('simple-json', { nullable: true })
  hours!: SendHours | null;
  /** Until when nothing is tried, because the server itself failed. */
  @Column('text', { nullable: true })
  restUntil!: string | null;
  @Column('text', { nullable: true })
  restDetail!: string | null;
  /** Failures of the server one after the other. */
  @Column('integer')
  restCount!: number;
  @Column('text')
  createdAt!: string;
  /** When it was put into the wastebasket; what lies there is found only where it is asked for. */
  @DeleteDateColumn({ type: 'text', nullable: true })
  deletedAt!: string | null;
}

@Entity('sender')
export class SenderEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('integer')
  serverId!: number;
  @Column('text')
  name!: string;
  @Column('text')
  address!: string;
  @Column('text', { nullable: true })
  replyTo!: string | null;
  @Column('text')
  dkimDomain!: string;
  @Column('text')
  dkimSelector!: string;
  /** The private key, encrypted; empty: none. */
  @Column('text')
  dkimSealed!: string;
  @Column('text', { nullable: true })
  confirmedAt!: string | null;
  @Column('text', { nullable: true })
  codeHash!: string | null;
  @Column('text', { nullable: true })
  codeUntil!: string | null;
  @Column('integer')
  codeTries!: number;
  @Column('text')
  createdAt!: string;
  /** When it was put into the wastebasket; what lies there is found only where it is asked for. */
  @DeleteDateColumn({ type: 'text', nullable: true })
  deletedAt!: string | null;
}
