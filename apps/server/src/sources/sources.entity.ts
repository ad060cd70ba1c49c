import type { Column as SheetColumn, ErrorFields, SourceChanges, SourceNote, TableReading } from '@mailbag/core';
import type { SourceKindName } from '../work/tasks.js';
import { Column, Entity, PrimaryGeneratedColumn } from 'typeorm';

/** Its records lie in `source_record`, which is written in blocks without entities. */
@Entity('source')
export class SourceEntity {
  @PrimaryGeneratedColumn()
  id!: number;
  @Column('text')
  name!: string;
  /** See `kinds/`. */
  @Column('text')
  kind!: SourceKindName;
  @Column('text')
  fileName!: string;
  @Column('text')
  fileId!: string;
  @Column('simple-json')
  files!: { fileId: string; fileName: string }[];
  @Column('simple-json', { nullable: true })
  query!: { connectionId: number; sql: string; parameters: Record<string, string> } | null;
  @Column('text')
  state!: 'reading' | 'ready' | 'failed';
  @Column('integer')
  count!: number;
  @Column('integer')
  progress!: number;
  @Column('simple-json')
  columns!: SheetColumn[];
  @Column('simple-json')
  notes!: SourceNote[];
  @Column('simple-json')
  reading!: TableReading;
  @Column('text', { nullable: true })
  keyColumn!: string | null;
  @Column('simple-json', { nullable: true })
  changes!: SourceChanges | null;
  @Column('simple-json', { nullable: true })
  error!: { code: string; fields: ErrorFields; message: string } | null;
  @Column('text')
  createdAt!: string;
  @Column('text', { nullable: true })
  readAt!: string | null;
  /** The number under which its records lie; null: it was never read whole. */
  @Column('integer', { nullable: true })
  readingId!: number | null;
  /** How often its reading was begun without coming to an end, good or bad. */
  @Column('integer')
  attempts!: number;
  /** The pictures that came with it, as the digest of their list and their number; null: none. See `files/picture-list`. */
  @Column('simple-json', { nullable: true })
  pictures!: { list: string; count: number } | null;
  /** When it was put into the wastebasket; null: it is not in it. ISO 8601. */
  @Column('text', { nullable: true })
  deletedAt!: string | null;
}
