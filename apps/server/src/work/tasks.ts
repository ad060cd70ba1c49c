import type {
  CountedRecordsAnswer,
  DatabaseTable,
  EditionsAnswer,
  PickReason,
  PicksAnswer,
  QueryExcerpt,
  RecordKind,
  ReminderPlan,
  StartChoice,
  StartGroup,
  StartPreview,
} from '@mailbag/contract';
import type {
  BatchContext,
  Column,
  Counted,
  DrawnField,
  ErrorCode,
  ErrorFields,
  Field,
  LayoutAids,
  MailReport,
  PageSize,
  PostalAddress,
  SourceRecord,
  Survey,
  TableExcerpt,
  TableReading,
  TemplateDescription,
} from '@mailbag/core';
import type { SelfCheckResult } from '@mailbag/folder';
import type { DatabaseAccess } from '../readers/reader.js';
import type { Letter, ReplacedCopy } from '../frozen/message-of.js';
import type { FileKey } from '../files/file-key.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';

/** One copy of a file that is put together. */
export interface AssembleItem {
  batchId: number;
  recordOrdinal: number;
  position: number;
  code: string;
  bookmark: string;
  /** Lines of the address on a sheet in front of it; null: no sheet. */
  address: string[] | null;
}

export interface AssembleInput {
  /** Of the file that is made. */
  key: FileKey;
  title: string;
  /** Copies with an odd number of pages get a blank back. */
  duplex: boolean;
  /** What stands above the addresses; null where there are no address sheets. */
  office: { returnLine: string } | null;
  items: AssembleItem[];
}

/** A record of a batch, and what its patterns are told beside its values. */
export interface RecordOfBatch {
  batchId: number;
  ordinal: number;
  code: string;
  /** Name of the template; empty: the first one. */
  template: string;
}

/** A copy that lies in the archive, and what the ledger is to know of it. */
export interface MadeCopy {
  id: number;
  /** Bytes. */
  size: number;
  /** In hexadecimal. */
  sha256: string;
}

/** Where the records of a source come from, by its kind. */
export type SourceInput =
  | { kind: 'file'; files: { key: FileKey; file: string }[] }
  | { kind: 'database'; access: DatabaseAccess; name: string; sql: string; parameters: Record<string, string> }
  | { kind: 'intake'; intakeId: number; name: string; zone: string };
export type SourceKindName = SourceInput['kind'];

/** A message that came in, understood, with as much of it as is kept. */
export interface ReadMail {
  report: MailReport;
  messageId: string;
  from: string;
  subject: string;
  /** Where answers to it would go, as the server that took it wrote down; null: it did not. Reports have an empty one (RFC 5321, 4.5.5). */
  returnPath: string | null;
  /** What tells it from others whichever way it came: its report, or its text. */
  matter: string;
}

/** What worker threads can do. Each task's input and output cross the thread boundary as data. */
export interface Tasks {
  inspect: { input: { key: FileKey; file: string; mayBeFlat?: boolean }; output: TemplateDescription };
  /** What helps to draw fields on a file. */
  layoutAids: { input: { key: FileKey; file: string }; output: LayoutAids };
  /** A file with the fields that were drawn on it. */
  writeFields: { input: { key: FileKey; file: string; fields: DrawnField[] }; output: Uint8Array };
  /** The form with its fields' names printed on it. */
  markedPdf: { input: { key: FileKey; file: string; pages: PageSize[]; fields: Field[] }; output: Uint8Array };
  /** Compares two editions of a form. */
  compareEditions: { input: { before: FileKey; after: FileKey; file: string }; output: EditionsAnswer };
  excerpt: { input: { key: FileKey; file: string; reading: TableReading }; output: TableExcerpt };
  /** Reads records in place of those that were read before, and finishes the source. */
  readSource: {
    input: {
      sourceId: number;
      from: SourceInput;
      reading: TableReading;
      keyColumn: string | null;
      /** Columns of the reading before; none: it is the first. */
      before: Column[];
    };
    output: void;
  };
  /** Deletes records that no source has any more. */
  sweepRecords: { input: null; output: void };
  checkpoint: { input: null; output: void };
  /** Leaves nothing in the files of the database of what was deleted in it. */
  releaseSpace: { input: null; output: void };
  databaseTables: { input: { access: DatabaseAccess }; output: DatabaseTable[] };
  queryExcerpt: { input: { access: DatabaseAccess; sql: string; parameters: Record<string, string> }; output: QueryExcerpt };
  /** Runs the checks of single records over a stretch of a mailing's, and writes down what they find beside what holds. */
  checkStretch: {
    input: SurveyedMailing & {
      mailingId: number;
      stretch: { from: number; to: number; /** Records are compared too. */ compares: boolean };
    };
    output: void;
  };
  /** Runs the checks that compare records with one another, and writes down what they find beside what holds. */
  checkComparing: { input: SurveyedMailing & { mailingId: number }; output: void };
  /** Throws away what an earlier run left; afterwards, puts what was found in place of what held. */
  settleChecks: { input: { mailingId: number; isBefore: boolean }; output: void };
  /** Runs the checks that a change of these columns in these records touches, and replaces what they found. */
  checkTouched: {
    input: SurveyedMailing & { mailingId: number; only: { ordinals: number[]; columns: string[] } };
    output: void;
  };
  /** Who would run in a batch of a mailing, and why others would not: places of records by group. */
  whoRuns: {
    input: { mailingId: number; sourceId: number; mailing: FrozenMailing; version: number; choice: StartChoice; context: BatchContext };
    output: {
      groups: Record<StartGroup, number[]>;
      copies: number;
      sizes: StartPreview['sizes'];
      unknownBatches: number[];
      digest: string;
    };
  };
  /** Records of a source that hold a text, that were corrected, or that have something to look at, in their order. */
  matchRecords: {
    input: { mailingId: number; sourceId: number; text: string; only: 'corrected' | 'looked' | null };
    output: { ordinal: number; row: number }[];
  };
  /** Places of the records of a source in the order in which they are to be seen. Columns by their index; null: none, any. */
  viewRecords: {
    input: {
      sourceId: number;
      /** `hasValues`: it holds numbers or days, whose texts do not say their order. */
      order: { column: number; isDown: boolean; hasValues: boolean } | null;
      column: number | null;
      text: string;
      only: RecordKind | null;
    };
    output: number[];
  };
  /** What the map of a mailing makes of all its records. */
  survey: { input: SurveyedMailing; output: Survey };
  /** The records that a number of a survey counts. `template`: its place in the packet. */
  countedRecords: {
    input: SurveyedMailing & { template: number; field: string; counted: Counted; from: number; count: number };
    output: CountedRecordsAnswer;
  };
  /** Records that are worth looking at. `column`: each of its values stands for one, by way of `value`. */
  pickRecords: {
    input: SurveyedMailing & {
      mailingId: number;
      wish: { why: PickReason[]; column: string | null; random: number; seed: number };
      limit: number;
    };
    output: PicksAnswer;
  };
  /** Begins a batch, unless what was shown has changed or the same request has begun it. */
  startBatch: {
    input: {
      mailingId: number;
      sourceId: number;
      mailing: FrozenMailing;
      name: string;
      version: number;
      choice: StartChoice;
      digest: string;
      startKey: string;
      context: BatchContext;
    };
    output: { id: number; isNew: boolean };
  };
  /** Plans copies of a batch for a short while. */
  plan: { input: { batchId: number }; output: { isDone: boolean } };
  /** Makes the planned copies of a stretch of records. What the ledger knows of them is written by the caller. */
  make: { input: { batchId: number; from: number; to: number }; output: { made: MadeCopy[] } };
  /** Writes copies of any batches into one file, without passwords, with address sheets in between where there are addresses. */
  assemble: { input: AssembleInput; output: { pages: number; sheets: number; size: number; firstSheets: number[] } };
  /** The copies of one record as they would be made now, for samples and tests. */
  sample: {
    input: {
      mailing: FrozenMailing;
      record: SourceRecord;
      ordinal: number;
      batch: BatchContext;
      codes: string[];
      replaces: ReplacedCopy | null;
      /** Those that its values name and that are kept nowhere; left out: none. */
      pictures?: Record<string, Uint8Array>;
    };
    output: { copies: { name: string; bytes: Uint8Array }[]; letter: Letter; openPassword: string };
  };
  /** The message of a mailing for one record alone, without its copies. */
  letter: {
    input: { mailing: FrozenMailing; record: SourceRecord; batch: BatchContext; code: string };
    output: Letter;
  };
  /** The copies of what a visitor has answered so far. `pictures`: those of the answers, by the names that stand for them in the record. */
  visitorCopies: {
    input: {
      mailing: FrozenMailing;
      record: SourceRecord;
      ordinal: number;
      batch: BatchContext;
      codes: string[];
      pictures: Record<string, Uint8Array>;
    };
    /** `form`: of the packet, from 0. */
    output: { copies: { name: string; form: number; bytes: Uint8Array }[] };
  };
  /** The copies of some records as they would be made now, as files of the spool whose names begin with `name`. */
  trial: {
    input: {
      mailing: FrozenMailing;
      batch: BatchContext;
      records: { record: SourceRecord; ordinal: number; codes: string[] }[];
      name: string;
      /** Those that their values name and that are kept nowhere; left out: none. */
      pictures?: Record<string, Uint8Array>;
    };
    output: {
      copies: { index: number; template: string; file: string; key: FileKey; size: number; openPassword: string }[];
      faults: { index: number; why: string }[];
    };
  };
  /** What the copies of some records weigh, and how long a thread takes for them. Bytes and milliseconds, in all. */
  weigh: {
    input: {
      sourceId: number;
      mailing: FrozenMailing;
      batch: BatchContext;
      records: { record: SourceRecord; ordinal: number; codes: string[] }[];
    };
    output: { copies: number; bytes: number; milliseconds: number };
  };
  /** The messages of records of batches. With `reminder`: its reminder, in these words. */
  letters: { input: readonly LetterOfBatch[]; output: TaskResult<Letter>[] };
  /** The password that opens a copy; empty: none does. */
  openPassword: { input: RecordOfBatch; output: string };
  /** Postal addresses of records of one batch, in their order; null: the record's time was over. */
  postalAddresses: { input: { batchId: number; records: Omit<RecordOfBatch, 'batchId'>[] }; output: (PostalAddress | null)[] };
  /** Looks whether the data folder is whole. */
  selfCheck: { input: { thorough: boolean }; output: SelfCheckResult };
  /** Writes the data folder into one zip file. */
  backup: { input: { path: string }; output: { files: number } };
  /** Nothing; the thread that takes messages apart is there afterwards. */
  openPost: { input: null; output: void };
  /** Nothing; a thread that makes copies is there afterwards. */
  openMaking: { input: null; output: void };
  /** Takes a message apart that came from outside, and says what it is. */
  readMail: { input: { raw: Uint8Array; envelopeTo: readonly string[] }; output: ReadMail };
}

/** A mailing whose map is worked out for all its records. */
export interface SurveyedMailing {
  sourceId: number;
  mailing: FrozenMailing;
  context: BatchContext;
}

export type TaskName = keyof Tasks;
/** What a message is composed of. */
export interface LetterOfBatch extends RecordOfBatch {
  reminder: ReminderPlan | null;
}

/** Errors of the catalogue come back as data. */
export type TaskResult<Output> = { ok: true; output: Output } | { ok: false; code: ErrorCode; fields: ErrorFields };
