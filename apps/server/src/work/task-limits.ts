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
  inspect: { lane: 'people', seconds: 30, what: 'Looking through the template' },
  layoutAids: { lane: 'people', seconds: 60, what: 'Looking for blanks' },
  writeFields: { lane: 'people', seconds: 60, what: 'Writing the fields' },
  markedPdf: { lane: 'people', seconds: 60, what: 'Marking the fields' },
  compareEditions: { lane: 'people', seconds: 60, what: 'Comparing the editions' },
  excerpt: { lane: 'people', seconds: 30, what: 'Looking into the file' },
  databaseTables: { lane: 'people', seconds: 30, what: 'Listing the tables' },
  queryExcerpt: { lane: 'people', seconds: 30, what: 'Running the query' },
  letter: { lane: 'people', seconds: 30, what: 'Writing the message' },
  sample: { lane: 'people', seconds: 30, what: 'Making the sample' },
  visitorCopies: { lane: 'visitors', seconds: 15, what: 'Filling the form' },
  weigh: { lane: 'people', seconds: 60, what: 'Weighing the copies' },
  trial: { lane: 'people', seconds: 120, what: 'Making the trial run' },
  openPassword: { lane: 'people', seconds: 10, what: 'Composing the password' },
  postalAddresses: { lane: 'people', seconds: 120, what: 'Composing the postal addresses' },
  letters: { lane: 'letters', seconds: 10, what: 'Composing the message' },
  whoRuns: { lane: 'people', seconds: 60, what: 'Finding out who runs' },
  viewRecords: { lane: 'people', seconds: 60, what: 'Ordering the records' },
  matchRecords: { lane: 'people', seconds: 60, what: 'Looking for records' },
  survey: { lane: 'people', seconds: 120, what: 'Counting what the fields take' },
  countedRecords: { lane: 'people', seconds: 120, what: 'Looking for records' },
  pickRecords: { lane: 'people', seconds: 120, what: 'Picking records' },
  startBatch: { lane: 'people', seconds: 120, what: 'Starting the batch' },
  plan: { lane: 'batch', seconds: 300, what: 'Planning the copies' },
  readSource: { lane: 'batch', seconds: 900, what: 'Reading the records' },
  sweepRecords: { lane: 'batch', seconds: 900, what: 'Deleting records' },
  checkStretch: { lane: 'batch', seconds: 900, what: 'Checking the records' },
  checkComparing: { lane: 'batch', seconds: 900, what: 'Comparing the records' },
  settleChecks: { lane: 'batch', seconds: 300, what: 'Writing down what was found' },
  checkTouched: { lane: 'batch', seconds: 900, what: 'Checking the records' },
  make: { lane: 'batch', seconds: 600, what: 'Making copies' },
  assemble: { lane: 'batch', seconds: 1800, what: 'Putting the file together' },
  checkpoint: { lane: 'care', seconds: 600, what: 'Carrying the log over' },
  releaseSpace: { lane: 'care', seconds: 1800, what: 'Giving room back' },
  selfCheck: { lane: 'care', seconds: 6 * 3600, what: 'Checking the folder' },
  backup: { lane: 'care', seconds: 6 * 3600, what: 'Taking the backup' },
  openMaking: { lane: 'batch', seconds: 60, what: 'Getting ready to make copies' },
  openPost: { lane: 'post', seconds: 60, what: 'Opening the post' },
  readMail: { lane: 'post', seconds: 5, what: 'Reading the message' },
};
