import type { NoticeState } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';

/** What somebody answered. */
export interface SubmissionRow {
  id: number;
  intakeId: number;
  editionId: number;
  /** The copy code that the visitor was told. */
  number: string;
  language: string;
  /** ISO 8601. */
  receivedAt: string;
  /** Core's `IntakeAnswers`, as JSON; pictures by their names. */
  answers: string;
  /** Digests of pictures by their names, as JSON. */
  pictures: string;
  /** The copy whose personal link was answered; null: it came by the page's own address. */
  copyCode: string | null;
  /** What it changes in the record of that copy, as JSON; see core's `AnswerChange`. */
  changes: string;
  /** What the record of that copy says beyond the questions, as JSON, by columns. */
  known: string;
  /** What became of the changes. */
  settled: 'none' | 'open' | 'accepted' | 'refused';
  /** The earlier submission in whose place it came; null: none. */
  mends: number | null;
  /** The e-mail address of whoever answered, in small letters; empty: none was asked for. */
  address: string;
  /** What became of the office's notice of it. */
  notice: NoticeState;
}

const COLUMNS =
  'id, intakeId, editionId, number, language, receivedAt, answers, pictures, copyCode, changes, known, settled, mends, address, notice';

/** Which answers are listed. */
export interface SubmissionFilter {
  /** Stands in an answer or the number. Empty: any. */
  text: string;
  only: 'all' | 'without-copies' | 'corrects';
}
const FILTERED: Record<SubmissionFilter['only'], string> = {
  all: '1 = 1',
  'without-copies':
    "NOT EXISTS (SELECT 1 FROM copy JOIN intake ON intake.mailingId = copy.mailingId WHERE intake.id = submission.intakeId AND copy.recordKey = LOWER(submission.number) AND copy.state <> 'planned')",
  corrects: "settled = 'open'",
};
/** No other came in its place. */
const IN_FORCE = 'NOT EXISTS (SELECT 1 FROM submission AS later WHERE later.mends = submission.id)';

export const submissionStore = {
  /** Keeps a submission, once for each key. @returns the one that is kept under it, now or before */
  async keep(sql: Sql, keyHash: string, submission: Omit<SubmissionRow, 'id'>): Promise<{ row: SubmissionRow; isNew: boolean }> {
    const names = COLUMNS.split(', ').filter((name): name is keyof typeof submission => name !== 'id');
    const added = await one<SubmissionRow>(
      sql,
      `INSERT INTO submission (keyHash, ${names.join(', ')}) VALUES (?${', ?'.repeat(names.length)}) ON CONFLICT DO NOTHING RETURNING ${COLUMNS}`,
      [keyHash, ...names.map((name) => submission[name])],
    );
    return { row: added ?? (await submissionStore.byKey(sql, keyHash))!, isNew: added !== undefined };
  },

  byKey: (sql: Sql, keyHash: string) => one<SubmissionRow>(sql, `SELECT ${COLUMNS} FROM submission WHERE keyHash = ?`, [keyHash]),

  byId: (sql: Sql, intakeId: number, id: number) =>
    one<SubmissionRow>(sql, `SELECT ${COLUMNS} FROM submission WHERE intakeId = ? AND id = ?`, [intakeId, id]),

  /** Whether somebody with an address has answered. */
  isAnswered: async (sql: Sql, intakeId: number, address: string): Promise<boolean> =>
    (await one(sql, 'SELECT 1 AS found FROM submission WHERE intakeId = ? AND address = ?', [intakeId, address])) !== undefined,

  /** The next one that the office is to be told of. @param after id of another one, behind which it is looked for */
  toTell: (sql: Sql, intakeId: number, after: number) =>
    one<SubmissionRow>(sql, `SELECT ${COLUMNS} FROM submission WHERE intakeId = ? AND id > ? AND notice = 'waiting' ORDER BY id LIMIT 1`, [
      intakeId,
      after,
    ]),

  /** @returns whether it was in the first of the states */
  moveNotice: async (sql: Sql, id: number, from: NoticeState, to: NoticeState): Promise<boolean> =>
    (await changed(sql, 'UPDATE submission SET notice = ? WHERE id = ? AND notice = ?', [to, id, from])) === 1,

  /** Whether those that were being sent when the server ended arrived is not known. @returns the intakes that have others to tell of */
  async reopenNotices(sql: Sql): Promise<{ intakeId: number }[]> {
    await run(sql, "UPDATE submission SET notice = 'unknown' WHERE notice = 'sending'", []);
    return rows<{ intakeId: number }>(sql, "SELECT DISTINCT intakeId FROM submission WHERE notice = 'waiting'", []);
  },

  /** Those whose changes nobody has looked at. */
  open: (sql: Sql, intakeId: number) =>
    rows<SubmissionRow>(sql, `SELECT ${COLUMNS} FROM submission WHERE intakeId = ? AND settled = 'open' ORDER BY id`, [intakeId]),

  setSettled: (sql: Sql, id: number, settled: SubmissionRow['settled']) =>
    run(sql, 'UPDATE submission SET settled = ? WHERE id = ?', [settled, id]),

  /** Intakes with answers that change records, and wait for a person to look at them. */
  toSettle: (sql: Sql) =>
    rows<{ id: number; name: string; count: number }>(
      sql,
      `SELECT intake.id, mailing.name, COUNT(*) AS count FROM submission JOIN intake ON intake.id = submission.intakeId JOIN mailing ON mailing.id = intake.mailingId
       WHERE submission.settled = 'open' GROUP BY intake.id, mailing.name ORDER BY intake.id`,
    ),

  count: async (sql: Sql, intakeId: number): Promise<number> =>
    (await one<{ count: number }>(sql, 'SELECT COUNT(*) AS count FROM submission WHERE intakeId = ?', [intakeId]))!.count,

  /** Intakes whose answers gather until a person starts a batch, with how many of them have no copies. */
  gathered: (sql: Sql) =>
    rows<{ id: number; name: string; count: number }>(
      sql,
      `SELECT intake.id, mailing.name, COUNT(*) AS count FROM submission JOIN intake ON intake.id = submission.intakeId JOIN mailing ON mailing.id = intake.mailingId
       WHERE ${dialect.at('intake.plan', 'after', 'atOnce')} = 0
         AND ${IN_FORCE} AND NOT EXISTS (SELECT 1 FROM copy WHERE copy.mailingId = intake.mailingId AND copy.recordKey = LOWER(submission.number))
       GROUP BY intake.id, mailing.name ORDER BY intake.id`,
    ),

  /** In the order in which they came in; those in whose place others came are left out. */
  after: (sql: Sql, intakeId: number, id: number, limit: number) =>
    rows<SubmissionRow>(sql, `SELECT ${COLUMNS} FROM submission WHERE intakeId = ? AND id > ? AND ${IN_FORCE} ORDER BY id LIMIT ?`, [
      intakeId,
      id,
      limit,
    ]),

  /** The newest first, with how many copies were made of each. */
  page: (sql: Sql, intakeId: number, mailingId: number, { text, only }: SubmissionFilter, from: number, count: number) =>
    rows<SubmissionRow & { copies: number; mendedBy: string | null }>(
      sql,
      `SELECT ${COLUMNS}, (SELECT COUNT(*) FROM copy WHERE copy.mailingId = ? AND copy.recordKey = LOWER(submission.number) AND copy.state <> 'planned') AS copies,
         (SELECT later.number FROM submission AS later WHERE later.mends = submission.id ORDER BY later.id DESC LIMIT 1) AS mendedBy
       FROM submission WHERE intakeId = ? AND ${FILTERED[only]} AND (? = '' OR ${dialect.caseless('number')} LIKE ? OR ${dialect.caseless('answers')} LIKE ?)
       ORDER BY id DESC LIMIT ? OFFSET ?`,
      [mailingId, intakeId, text, `%${text}%`, `%${text}%`, count, from],
    ),

  /** Deletes one. @returns the intake and the pictures of it */
  drop: (sql: Sql, intakeId: number, id: number) =>
    rows<{ intakeId: number; pictures: string }>(sql, 'DELETE FROM submission WHERE intakeId = ? AND id = ? RETURNING intakeId, pictures', [
      intakeId,
      id,
    ]),

  /** Deletes all of an intake. @returns the pictures of each */
  dropAll: (sql: Sql, intakeId: number) =>
    rows<{ pictures: string }>(sql, 'DELETE FROM submission WHERE intakeId = ? RETURNING pictures', [intakeId]),

  /** Digests of all pictures that came with submissions, of whichever intake. */
  allDigests: async (sql: Sql): Promise<Set<string>> =>
    new Set(
      (await rows<{ pictures: string }>(sql, "SELECT pictures FROM submission WHERE pictures <> '{}'")).flatMap(({ pictures }) =>
        Object.values(JSON.parse(pictures) as Record<string, string>),
      ),
    ),

  /** Deletes what came in before a time. @returns the intake and the pictures of each */
  dropBefore: (sql: Sql, before: string) =>
    rows<{ intakeId: number; pictures: string }>(sql, 'DELETE FROM submission WHERE receivedAt < ? RETURNING intakeId, pictures', [before]),

  /** Names and digests of all pictures that came with submissions. */
  pictures: async (sql: Sql, intakeId: number): Promise<Record<string, string>> =>
    Object.assign(
      {},
      ...(await rows<{ pictures: string }>(sql, "SELECT pictures FROM submission WHERE intakeId = ? AND pictures <> '{}'", [intakeId])).map(
        ({ pictures }) => JSON.parse(pictures) as Record<string, string>,
      ),
    ) as Record<string, string>,
};
