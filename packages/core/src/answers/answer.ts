import { t } from '../words/words.js';
import type { FieldOption } from '../pdf/field.js';

/** Which part of its answer a box takes. */
export type Piece =
  | { what: 'characters'; from: number; to: number }
  | { what: 'line'; number: number }
  | { what: 'day' | 'month' | 'year' | 'whole units' | 'cents' | 'area code' | 'number' };

/** A field of an answer. */
export interface AnswerPart {
  field: string;
  /** Null: all of it. */
  piece: Piece | null;
  /** Of a tick that is one of several: what it stands for; null: no such tick. */
  option: FieldOption | null;
}

/** Why fields are taken for one answer. */
export type AnswerReason =
  'alone' | 'characters' | 'date' | 'amount' | 'telephone' | 'lines' | 'yes-no' | 'one-of' | 'some-of' | 'same' | 'joined';

/** What a person thinks of as one thing, though a form may spread it over several fields or ask it on several pages. */
export interface Answer {
  /** What a person would call it; null: nothing tells. */
  label: string | null;
  section: string | null;
  /** In the order of the pieces. Several without a piece hold the same value. */
  parts: AnswerPart[];
  reason: AnswerReason;
}

/** A piece as people and programs are told it. */
export const pieceWords = (piece: Piece): string =>
  piece.what === 'characters' ? t`characters ${piece.from}-${piece.to}` : piece.what === 'line' ? t`line ${piece.number}` : piece.what;

const reasons: Record<Exclude<AnswerReason, 'alone'>, string> = {
  characters: t`The boxes stand in one row and take one number or word between them.`,
  date: t`The boxes are the day, month and year of one date.`,
  amount: t`The boxes are the whole units and the cents of one amount.`,
  telephone: t`The boxes are the area code and the number of one telephone.`,
  lines: t`The text goes on in the lines below.`,
  'yes-no': t`The two ticks are Yes and No to one question.`,
  'one-of': t`Only one of these ticks is to be set.`,
  'some-of': t`These ticks stand under one question.`,
  same: t`The same is asked in several places.`,
  joined: t`Joined by hand.`,
};
/** Why fields were taken for one answer, as a sentence; null: it is a single field. */
export const answerReason = (reason: AnswerReason): string | null => (reason === 'alone' ? null : reasons[reason]);
