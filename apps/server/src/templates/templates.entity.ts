import type { Answer, Field, Layout, PageSize, TemplateNote } from '@mailbag/core';
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

@Entity('template')
export class TemplateEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('text')
  name!: string;
  @Column('text')
  createdAt!: string;
  /** Null: it is in use. */
  @Column('text', { nullable: true })
  archivedAt!: string | null;
  /** When it was put into the wastebasket; null: it is not in it. ISO 8601. */
  @Column('text', { nullable: true })
  deletedAt!: string | null;
}

/** A revision never changes; its file lies under its hash. */
@Entity('template_revision')
export class TemplateRevisionEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('integer')
  templateId!: number;
  @Column('integer')
  number!: number;
  @Column('text')
  hash!: string;
  @Column('text')
  fileName!: string;
  @Column('integer')
  size!: number;
  @Column('simple-json')
  pages!: PageSize[];
  @Column('simple-json')
  fields!: Field[];
  @Column('simple-json')
  notes!: TemplateNote[];
  /** The revision whose file lies beneath what was drawn; null: its file came as it is. */
  @Column('integer', { nullable: true })
  baseId!: number | null;
  @Column('simple-json', { nullable: true })
  layout!: Layout | null;
  /** Null: nobody has asked yet. */
  @Column('simple-json', { nullable: true })
  answers!: Answer[] | null;
  @Column('text')
  createdAt!: string;
}
