/** What is the same for every copy of a batch; frozen with it, so that a copy made again is the same. */
export interface BatchContext {
  /** Number of the batch. */
  batch: number;
  /** How many records it runs over. Left out: of a batch from before this was kept. */
  count?: number;
  /** The day on which the batch began, where the office is. ISO 8601. */
  today: string;
  /** Language and region in which dates and numbers are written out. BCP 47. */
  locale: string;
  /** Time zone of the office. A name of the IANA time zone database. */
  zone: string;
  /** The personal link that a message or a stamp gives: of the copy, or an example where no copy exists. Left out: the mailing has none. */
  link?: string;
}

/** What rules, patterns and stamps are told beside the record that they fill. */
export interface FillContext extends BatchContext {
  /** Place of the record in its batch, from 1. */
  number: number;
  /** Code of the copy. */
  code: string;
}

/** A code for what is only looked at; a copy gets its own when its batch starts. */
export const SAMPLE_CODE = '4KQ8-ZT0V-7QX';

/** @param ordinal of the record in the batch, from 0 */
export const fillContext = (batch: BatchContext, ordinal: number, code: string): FillContext => ({ ...batch, number: ordinal + 1, code });
