import type { CopyEventLine, DeskAnswer } from '@mailbag/contract';
import type { CopyState, Detail } from '@mailbag/core';
import { storedDetail, parseDetail, detailText } from '@mailbag/core';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';
import { withRemarks } from './stored-remarks.js';
import type { Principal } from '../platform/principal.js';
import { principalKey } from '../platform/principal.js';

/** A line in the story of a copy. */
export interface CopyEvent {
  at: string;
  who: Principal;
  event: string;
  state: CopyState;
  detail: Detail | null;
}

/** A change of a copy as registers are told it. */
export interface CopyChange {
  /** Tells a copy from all others for ever. */
  code: string;
  state: string;
  since: string;
  recipient: string;
  address: string;
  mailing: string;
  batch: number;
  template: string;
  file: string;
  sha256: string | null;
  /** Values of the chosen columns, as JSON. */
  metadata: string | null;
  /** Number of the change; a later one is larger. */
  change_number: number;
  /** What happened last, who did it, and why. */
  event: string;
  who: string;
  detail: string | null;
}

/** The stories of copies. */
export const copyEventStore = {
  /** The story of a copy, latest first. */
  events: (sql: Sql, copyId: number) =>
    withRemarks<CopyEventLine>(
      rows(sql, 'SELECT at, who, event, state, detail FROM copy_event WHERE copyId = ? ORDER BY id DESC', [copyId]),
    ),

  latestEvents: (sql: Sql) =>
    withRemarks<DeskAnswer['recent'][number]>(
      rows(
        sql,
        `SELECT event.at, event.state, copy.recipient, copy.templateName, event.detail, copy.id AS copyId
       FROM copy_event AS event JOIN copy ON copy.id = event.copyId WHERE event.event NOT IN ('make', 'queue', 'claim') ORDER BY event.id DESC LIMIT 15`,
      ),
    ),

  /** Events since a time by kind. @param characters of the time that count: 13 for hours, 16 for minutes */
  eventsByTime: (sql: Sql, since: string, characters: 13 | 16) =>
    rows<{ at: string; event: string; count: number }>(
      sql,
      `SELECT substr(at, 1, ${characters}) AS at, event, COUNT(*) AS count FROM copy_event WHERE at >= ? AND event IN ('make', 'accept', 'refuse', 'print', 'return') GROUP BY 1, event`,
      [since],
    ),

  eventsAfter: (sql: Sql, position: number) =>
    one<{ count: number }>(sql, 'SELECT COUNT(*) AS count FROM copy_event WHERE id > ?', [position]),

  /** Changes of copies after a position, as registers are told them. @param mailings empty: of all */
  async changesAfter(sql: Sql, position: number, mailings: readonly number[], limit: number): Promise<CopyChange[]> {
    const found = await rows<CopyChange>(
      sql,
      `SELECT copy.code, event.state, event.at AS since, copy.recipient, copy.address, copy.mailingName AS mailing, copy.batchNumber AS batch, copy.templateName AS template, copy.path AS file,
         copy.sha256, copy.metadata, event.id AS change_number, event.event, event.who, event.detail
       FROM copy_event AS event JOIN copy ON copy.id = event.copyId WHERE event.id > ? ${mailings.length > 0 ? `AND copy.mailingId ${dialect.inIds}` : ''} ORDER BY event.id LIMIT ?`,
      [position, ...(mailings.length > 0 ? [JSON.stringify(mailings)] : []), limit],
    );
    return found.map((change) => ({ ...change, detail: change.detail === null ? null : detailText(parseDetail(change.detail)) }));
  },

  /** Writes an event into the stories of those copies from whose state it leads. */
  addEvents: (sql: Sql, ids: readonly number[], from: readonly CopyState[], event: CopyEvent) =>
    run(
      sql,
      `INSERT INTO copy_event (copyId, at, who, principal, event, state, detail) SELECT id, ?, ?, ?, ?, ?, ? FROM copy WHERE id ${dialect.inIds} AND ${dialect.unindexed('state')} ${dialect.inList}`,
      [
        event.at,
        event.who.name,
        principalKey(event.who),
        event.event,
        event.state,
        storedDetail(event.detail),
        JSON.stringify(ids),
        JSON.stringify(from),
      ],
    ),

  /** Writes a line into the stories of copies; their states stay. */
  addNotes: (sql: Sql, ids: readonly number[], note: Omit<CopyEvent, 'state'>) =>
    run(
      sql,
      `INSERT INTO copy_event (copyId, at, who, principal, event, state, detail) SELECT id, ?, ?, ?, ?, state, ? FROM copy WHERE id ${dialect.inIds}`,
      [note.at, note.who.name, principalKey(note.who), note.event, storedDetail(note.detail), JSON.stringify(ids)],
    ),
};
