import type { Field, PageSize, TemplateNote } from '@mailbag/core';
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

@Entity('template')
export class TemplateEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('text')
  name!: string;
  @Column('text')
  createdAt!: string;
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
  @Column('text')
  createdAt!: string;
}
