import { t } from '@mailbag/core/words';
import type { TaskName } from './tasks.js';

/** Whose threads a task runs on: those of batches, those of people who wait for an answer, that of strangers before the pages of intakes, that of letters, that of foreign mail, that of care for the folder. */
export type Lane = 'batch' | 'people' | 'visitors' | 'letters' | 'post' | 'care';

export interface TaskLimit {
  lane: Lane;
  /** After which the thread is ended. */
  seconds: number;
  /** What it does, for sentences. */
  what: string;
}

export const taskLimits: Record<TaskName, TaskLimit> = {
  inspect: { lane: 'people', seconds: 30, what: t`Looking through the template` },
  layoutAids: { lane: 'people', seconds: 60, what: t`Looking for blanks` },
  writeFields: { lane: 'people', seconds: 60, what: t`Writing the fields` },
  markedPdf: { lane: 'people', seconds: 60, what: t`Marking the fields` },
  compareEditions: { lane: 'people', seconds: 60, what: t`Comparing the editions` },
  excerpt: { lane: 'people', seconds: 30, what: t`Looking into the file` },
  databaseTables: { lane: 'people', seconds: 30, what: t`Listing the tables` },
  queryExcerpt: { lane: 'people', seconds: 30, what: t`Running the query` },
  letter: { lane: 'people', seconds: 30, what: t`Writing the message` },
  sample: { lane: 'people', seconds: 30, what: t`Making the sample` },
  visitorCopies: { lane: 'visitors', seconds: 15, what: t`Filling the form` },
  weigh: { lane: 'people', seconds: 60, what: t`Weighing the copies` },
  trial: { lane: 'people', seconds: 120, what: t`Making the trial run` },
  openPassword: { lane: 'people', seconds: 10, what: t`Composing the password` },
  postalAddresses: { lane: 'people', seconds: 120, what: t`Composing the postal addresses` },
  letters: { lane: 'letters', seconds: 10, what: t`Composing the message` },
  whoRuns: { lane: 'people', seconds: 60, what: t`Finding out who runs` },
  viewRecords: { lane: 'people', seconds: 60, what: t`Ordering the records` },
  matchRecords: { lane: 'people', seconds: 60, what: t`Looking for records` },
  survey: { lane: 'people', seconds: 120, what: t`Counting what the fields take` },
  countedRecords: { lane: 'people', seconds: 120, what: t`Looking for records` },
  pickRecords: { lane: 'people', seconds: 120, what: t`Picking records` },
  startBatch: { lane: 'people', seconds: 120, what: t`Starting the batch` },
  plan: { lane: 'batch', seconds: 300, what: t`Planning the copies` },
  readSource: { lane: 'batch', seconds: 900, what: t`Reading the records` },
  sweepRecords: { lane: 'batch', seconds: 900, what: t`Deleting records` },
  checkStretch: { lane: 'batch', seconds: 900, what: t`Checking the records` },
  checkComparing: { lane: 'batch', seconds: 900, what: t`Comparing the records` },
  settleChecks: { lane: 'batch', seconds: 300, what: t`Writing down what was found` },
  checkTouched: { lane: 'batch', seconds: 900, what: t`Checking the records` },
  make: { lane: 'batch', seconds: 600, what: t`Making copies` },
  assemble: { lane: 'batch', seconds: 1800, what: t`Putting the file together` },
  checkpoint: { lane: 'care', seconds: 600, what: t`Carrying the log over` },
  releaseSpace: { lane: 'care', seconds: 1800, what: t`Giving room back` },
  selfCheck: { lane: 'care', seconds: 6 * 3600, what: t`Checking the folder` },
  backup: { lane: 'care', seconds: 6 * 3600, what: t`Taking the backup` },
  openMaking: { lane: 'batch', seconds: 60, what: t`Getting ready to make copies` },
  openPost: { lane: 'post', seconds: 60, what: t`Opening the post` },
  readMail: { lane: 'post', seconds: 5, what: t`Reading the message` },
};
