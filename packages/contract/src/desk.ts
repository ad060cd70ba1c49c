import { Type } from 'class-transformer';
import { Allow, IsArray, IsIn, IsNumber, IsObject, IsString, ValidateNested } from 'class-validator';
import { Nullable } from './nullable.js';
import { IsDetail } from './is-detail.js';
import type { Detail } from '@mailbag/core';
import { BatchSummary } from './batch.js';

export const needKinds = [
  'bounced',
  'unconfirmed',
  'held-back',
  'answers',
  'changes',
  'paused',
  'no-mail-server',
  'server-fails',
  'sender-unconfirmed',
  'to-print',
  'register-fails',
  'print-run',
  'set-aside',
  'held',
  'waits',
  'lost-secrets',
  'self-check',
  'backup-fails',
  'reports',
  'retrying',
] as const;
export type NeedKind = (typeof needKinds)[number];

/** Something that a person should do now. The screen makes its sentence, and knows where the list behind it is. */
export class Need {
  @IsIn(needKinds)
  kind!: NeedKind;

  @IsNumber()
  count!: number;

  /** Of what it is about: a mailing, batch, server, address, register; null: there is only one of its kind. */
  @Nullable()
  @IsString()
  name!: string | null;

  /** Of the mailing or the batch; null: it is about neither. */
  @Nullable()
  @IsNumber()
  id!: number | null;

  /** Of the batch or the print run, as people count them. */
  @Nullable()
  @IsNumber()
  number!: number | null;

  /** Why, in others' words or by remark. */
  @Nullable()
  @IsDetail()
  detail!: Detail | null;
}

export class DeskAnswer {
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => Need)
  needs!: Need[];

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => BatchSummary)
  running!: BatchSummary[];

  @IsArray()
  @IsObject({ each: true })
  mailings!: { id: number; name: string; copies: number; counts: Record<string, number> }[];

  @IsArray()
  @IsObject({ each: true })
  recent!: { at: string; state: string; recipient: string; templateName: string; detail: Detail | null; copyId: number }[];
}

/** The last 21 days, the last 16 weeks, or the last 12 months. */
export const courseSpans = ['days', 'weeks', 'year'] as const;
export type CourseSpan = (typeof courseSpans)[number];

export class CourseQuery {
  @IsIn(courseSpans)
  span: CourseSpan = 'days';
}

/** Copies by what happened to them. */
export interface Happenings {
  made: number;
  sent: number;
  bounced: number;
  printed: number;
  returned: number;
}

/** What happened to copies in each part of a span, the earliest first. */
export class CourseAnswer {
  @IsIn(courseSpans)
  span!: CourseSpan;

  /** Days from and to (ISO 8601), both of them within. */
  @IsArray()
  @IsObject({ each: true })
  parts!: ({ from: string; to: string } & Happenings)[];
}

export class FindAnswer {
  @IsArray()
  @Allow()
  hits!: (
    | { kind: 'copy'; id: number; name: string; code: string; templateName: string; state: string }
    | { kind: 'mailing' | 'source'; id: number; name: string; records: number }
    | { kind: 'template'; id: number; name: string; fields: number }
  )[];
}

/** What open pages are told about. */
export const LIVE_TOPICS = [
  'batch',
  'copies',
  'source',
  'checks',
  'mailing',
  'senders',
  'print-run',
  'register',
  'safety',
  'here',
  'template',
  'intake',
  'wastebasket',
] as const;

/** What is told to open pages as it happens. */
export class LiveEvent {
  @IsIn(LIVE_TOPICS)
  topic!: (typeof LIVE_TOPICS)[number];

  @IsNumber()
  id!: number;
}
