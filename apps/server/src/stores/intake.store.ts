import type { IntakePlan } from '@mailbag/core';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';

export interface IntakeRow {
  id: number;
  mailingId: number;
  sourceId: number;
  plan: IntakePlan;
  /** Grows with every change. */
  version: number;
  updatedAt: string;
  /** ISO 8601; null: it is not in the wastebasket. */
  deletedAt: string | null;
}

/** What was published: the page, and what makes copies of its answers. It never changes. */
export interface EditionRow {
  id: number;
  intakeId: number;
  plan: string;
  frozen: string;
  /** Of the plan. */
  version: number;
  publishedAt: string;
}

/** An intake as it is listed, with what was published last and what came in. */
export interface IntakeListRow extends Omit<IntakeRow, 'plan'> {
  plan: string;
  word: string;
  publishedVersion: number | null;
  /** ISO 8601; null: never. */
  publishedAt: string | null;
  /** When its packet, map, output or message changed last. ISO 8601. */
  mailingChangedAt: string | null;
  answers: number;
  lastAnswerAt: string | null;
}

type Raw = Omit<IntakeRow, 'plan'> & { plan: string };
const COLUMNS = 'id, mailingId, sourceId, plan, version, updatedAt, deletedAt';
const read = (row: Raw | undefined): IntakeRow | undefined => row && { ...row, plan: JSON.parse(row.plan) as IntakePlan };

export const intakeStore = {
  /** @returns its id */
  add: async (sql: Sql, mailingId: number, sourceId: number, plan: IntakePlan, now: string): Promise<number> =>
    (await one<{ id: number }>(
      sql,
      'INSERT INTO intake (mailingId, sourceId, plan, version, createdAt, updatedAt) VALUES (?, ?, ?, 1, ?, ?) RETURNING id',
      [mailingId, sourceId, JSON.stringify(plan), now, now],
    ))!.id,

  byId: async (sql: Sql, id: number) => read(await one<Raw>(sql, `SELECT ${COLUMNS} FROM intake WHERE id = ?`, [id])),
  ofSource: async (sql: Sql, sourceId: number) => read(await one<Raw>(sql, `SELECT ${COLUMNS} FROM intake WHERE sourceId = ?`, [sourceId])),
  ofMailing: async (sql: Sql, mailingId: number) =>
    read(await one<Raw>(sql, `SELECT ${COLUMNS} FROM intake WHERE mailingId = ?`, [mailingId])),

  list: (sql: Sql, id: number | null = null) =>
    rows<IntakeListRow>(
      sql,
      `SELECT ${COLUMNS}, (SELECT word FROM intake_word WHERE intakeId = intake.id ORDER BY since DESC, word LIMIT 1) AS word,
         (SELECT version FROM intake_edition WHERE intakeId = intake.id ORDER BY id DESC LIMIT 1) AS publishedVersion,
         (SELECT publishedAt FROM intake_edition WHERE intakeId = intake.id ORDER BY id DESC LIMIT 1) AS publishedAt,
         (SELECT updatedAt FROM mailing WHERE mailing.id = intake.mailingId) AS mailingChangedAt,
         (SELECT COUNT(*) FROM submission WHERE intakeId = intake.id) AS answers,
         (SELECT MAX(receivedAt) FROM submission WHERE intakeId = intake.id) AS lastAnswerAt
       FROM intake WHERE ${id === null ? 'deletedAt IS NULL' : 'id = ?'} ORDER BY updatedAt DESC`,
      id === null ? [] : [id],
    ),

  /** @returns whether nobody else was quicker */
  save: async (sql: Sql, id: number, version: number, plan: IntakePlan, now: string): Promise<boolean> =>
    (await changed(sql, 'UPDATE intake SET plan = ?, version = version + 1, updatedAt = ? WHERE id = ? AND version = ?', [
      JSON.stringify(plan),
      now,
      id,
      version,
    ])) === 1,

  remove: (sql: Sql, id: number) => run(sql, 'DELETE FROM intake WHERE id = ?', [id]),

  /** Whose word it is; undefined: nobody's. */
  idOfWord: async (sql: Sql, word: string) =>
    (await one<{ intakeId: number }>(sql, 'SELECT intakeId FROM intake_word WHERE word = ?', [word]))?.intakeId,
  /** The one that is told first. */
  words: async (sql: Sql, id: number): Promise<string[]> =>
    (await rows<{ word: string }>(sql, 'SELECT word FROM intake_word WHERE intakeId = ? ORDER BY since DESC, word', [id])).map(
      ({ word }) => word,
    ),
  /** Gives a word, or makes an earlier one the one that is told. */
  setWord: (sql: Sql, id: number, word: string, now: string) =>
    run(sql, 'INSERT INTO intake_word (word, intakeId, since) VALUES (?, ?, ?) ON CONFLICT (word) DO UPDATE SET since = excluded.since', [
      word,
      id,
      now,
    ]),

  /** The intake that was published as the page behind the personal links of a mailing; undefined: there is none. */
  answering: (sql: Sql, mailingId: number) =>
    one<{ id: number; plan: string; word: string }>(
      sql,
      `SELECT intake_edition.intakeId AS id, intake_edition.plan, (SELECT word FROM intake_word WHERE intakeId = intake_edition.intakeId ORDER BY since DESC, word LIMIT 1) AS word
       FROM intake_edition WHERE intake_edition.id IN (SELECT MAX(id) FROM intake_edition GROUP BY intakeId)
         AND ${dialect.at('intake_edition.plan', 'personal', 'mailingId')} = ?
         AND intake_edition.intakeId NOT IN (SELECT id FROM intake WHERE deletedAt IS NOT NULL) ORDER BY intake_edition.intakeId DESC LIMIT 1`,
      [mailingId],
    ),

  publish: async (sql: Sql, edition: Omit<EditionRow, 'id'>, who: string): Promise<number> =>
    (await one<{ id: number }>(
      sql,
      'INSERT INTO intake_edition (intakeId, plan, frozen, version, publishedAt, who) VALUES (?, ?, ?, ?, ?, ?) RETURNING id',
      [edition.intakeId, edition.plan, edition.frozen, edition.version, edition.publishedAt, who],
    ))!.id,
  edition: (sql: Sql, id: number) => one<EditionRow>(sql, 'SELECT * FROM intake_edition WHERE id = ?', [id]),
  /** What is published; undefined: nothing is, or it is in the wastebasket. */
  lastEdition: (sql: Sql, intakeId: number) =>
    one<EditionRow>(
      sql,
      'SELECT * FROM intake_edition WHERE intakeId = ? AND intakeId NOT IN (SELECT id FROM intake WHERE deletedAt IS NOT NULL) ORDER BY id DESC LIMIT 1',
      [intakeId],
    ),
};
