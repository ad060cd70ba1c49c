import type { Column as SheetColumn, ErrorFields, SourceNote, TableReading } from '@mailbag/core';
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

/** Its records lie in `source_record`, which is written in blocks without entities. */
@Entity('source')
export class SourceEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('text')
  name!: string;
  @Column('text')
  fileName!: string;
  @Column('text')
  fileId!: string;
  @Column('text')
  state!: 'reading' | 'ready' | 'failed';
  @Column('integer')
  count!: number;
  @Column('simple-json')
  columns!: SheetColumn[];
  @Column('simple-json')
  notes!: SourceNote[];
  @Column('simple-json')
  reading!: TableReading;
  @Column('simple-json', { nullable: true })
  error!: { code: string; fields: ErrorFields; message: string } | null;
  @Column('text')
  createdAt!: string;
}
