import { databasesErrors } from './databases.js';
import type { ErrorEntry, ErrorFields } from './entry.js';
import { inWords } from './entry.js';
import { formsErrors } from './forms.js';
import { intakesErrors } from './intakes.js';
import { mailErrors } from './mail.js';
import { mailingsErrors } from './mailings.js';
import { paperErrors } from './paper.js';
import { peopleErrors } from './people.js';
import { recordsErrors } from './records.js';
import { serverErrors } from './server.js';

/**
 * Every error that Mailbag says, with a stable code, the fields it carries, the status of an answer with it, and its sentence: what, where, what next.
 * Errors cross workers and HTTP as `{ code, fields }`; the screen builds the sentence. The code of a retired one is never used again.
 * docs/errors.md lists them; a test holds the two together.
 */
export const catalogue = {
  ...formsErrors,
  ...recordsErrors,
  ...databasesErrors,
  ...mailingsErrors,
  ...mailErrors,
  ...paperErrors,
  ...intakesErrors,
  ...peopleErrors,
  ...serverErrors,
};

export type ErrorCode = keyof typeof catalogue;

/** What an error must be told with. */
export type FieldsOf<Code extends ErrorCode> = (typeof catalogue)[Code] extends ErrorEntry<infer Fields> ? Fields : never;

type Told<Code extends ErrorCode> =
  Record<never, never> extends FieldsOf<Code>
    ? [fields?: FieldsOf<Code>, options?: { cause?: unknown }]
    : [fields: FieldsOf<Code>, options?: { cause?: unknown }];

/** Fields that hold words of Mailbag's own, and no name. */
const TOLD = ['why', 'part', 'what', 'answer'];

/** An error of the catalogue. `fields` hold what the sentence needs, so that a screen can say it. */
export class MailbagError<Code extends ErrorCode = ErrorCode> extends Error {
  readonly fields: ErrorFields;
  /** Of an answer that carries it (RFC 9110, 15). */
  readonly status: number;
  constructor(
    readonly code: Code,
    ...[fields, options]: Told<Code>
  ) {
    super((catalogue[code] as ErrorEntry<unknown>).sentence(inWords((fields ?? {}) as ErrorFields, TOLD)), options);
    this.name = 'MailbagError';
    this.fields = (fields ?? {}) as ErrorFields;
    this.status = catalogue[code].status;
  }
  /** One that was told elsewhere, in a thread, another process or the database; of a code that is not known here: unexpected. */
  static from(told: { code: string; fields?: ErrorFields | null }, options?: { cause?: unknown }): MailbagError {
    const Any = MailbagError as unknown as new (code: ErrorCode, fields: ErrorFields, options?: { cause?: unknown }) => MailbagError;
    if (!(told.code in catalogue)) return new MailbagError('unexpected', { trace: told.code }, options);
    return new Any(told.code as ErrorCode, told.fields ?? {}, options);
  }
  toJSON(): { code: ErrorCode; fields: ErrorFields; message: string } {
    return { code: this.code, fields: this.fields, message: this.message };
  }
}

export const isMailbagError = (error: unknown): error is MailbagError =>
  error instanceof Error && error.name === 'MailbagError' && 'code' in error;
