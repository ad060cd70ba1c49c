import type { Role, WastebasketKind, WastebasketLine } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { rows, run } from '../persistence/sql.js';

/** What an intake is made of goes and comes with it, and is not told by itself. */
const OF_INTAKE = { mailing: 'SELECT mailingId FROM intake', source: 'SELECT sourceId FROM intake' } as const;
/** @param needs an expression: the role that may delete it, and put it back @param owner an expression: the account that alone sees it */
const part = (kind: WastebasketKind, from: string, { name = 'name', needs = "'operator'", owner = 'NULL' } = {}): string =>
  `SELECT '${kind}' AS kind, ${from}.id, ${name} AS name, ${from}.deletedAt, ${from}.deletedBy, ${needs} AS needs, ${owner} AS owner FROM ${from}`;
const administrator = { needs: "'administrator'" };
const PARTS = [
  `${part('template', 'template')} WHERE deletedAt IS NOT NULL`,
  `${part('source', 'source')} WHERE deletedAt IS NOT NULL AND id NOT IN (${OF_INTAKE.source})`,
  `${part('mailing', 'mailing')} WHERE deletedAt IS NOT NULL AND id NOT IN (${OF_INTAKE.mailing})`,
  `${part('intake', 'intake', { name: 'mailing.name' })} JOIN mailing ON mailing.id = intake.mailingId WHERE intake.deletedAt IS NOT NULL`,
  `${part('connection', 'connection', { needs: "CASE kind WHEN 'sqlite' THEN 'operator' ELSE 'administrator' END" })} WHERE deletedAt IS NOT NULL`,
  `${part('sender', 'sender', { ...administrator, name: 'address' })} WHERE deletedAt IS NOT NULL`,
  `${part('mail-server', 'mail_server', administrator)} WHERE deletedAt IS NOT NULL`,
  `${part('printer', 'printer', administrator)} WHERE deletedAt IS NOT NULL`,
  `${part('register', 'register', administrator)} WHERE deletedAt IS NOT NULL`,
  `${part('view', 'saved_view', { needs: "'viewer'", owner: 'accountId' })} WHERE deletedAt IS NOT NULL`,
];
const setOf = (table: string): string => `UPDATE ${table} SET deletedAt = ?, deletedBy = ? WHERE id = ?`;
/** Statements that set the two columns of a thing, and of what it is made of. */
const SETS: Record<WastebasketKind, readonly string[]> = {
  template: [setOf('template')],
  source: [setOf('source')],
  mailing: [setOf('mailing')],
  connection: [setOf('connection')],
  sender: [setOf('sender')],
  'mail-server': [setOf('mail_server')],
  printer: [setOf('printer')],
  register: [setOf('register')],
  view: [setOf('saved_view')],
  intake: [
    setOf('intake'),
    `UPDATE mailing SET deletedAt = ?, deletedBy = ? WHERE id IN (${OF_INTAKE.mailing} WHERE id = ?)`,
    `UPDATE source SET deletedAt = ?, deletedBy = ? WHERE id IN (${OF_INTAKE.source} WHERE id = ?)`,
  ],
};

async function set(sql: Sql, kind: WastebasketKind, id: number, at: string | null, by: string | null): Promise<void> {
  for (const text of SETS[kind]) await run(sql, text, [at, by, id]);
}

/** No source is without the database that it reads. */
const putConnectionsBack = (sql: Sql): Promise<unknown> =>
  run(
    sql,
    `UPDATE connection SET deletedAt = NULL, deletedBy = NULL WHERE deletedAt IS NOT NULL
     AND id IN (SELECT ${dialect.at('query', 'connectionId')} FROM source WHERE query IS NOT NULL AND deletedAt IS NULL)`,
  );

/** @property owner the account that alone sees it; null: everybody does */
export type DeletedLine = Omit<WastebasketLine, 'goesAt'> & { needs: Role; owner: number | null };

export const wastebasketStore = {
  /** What lies in it, what came last first. */
  list: (sql: Sql) => rows<DeletedLine>(sql, `SELECT * FROM (${PARTS.join(' UNION ALL ')}) ORDER BY deletedAt DESC, id DESC`),

  put: (sql: Sql, kind: WastebasketKind, id: number, at: string, by: string) => set(sql, kind, id, at, by),

  /** A mailing comes back with the templates and the source that it needs, a source with its database, a sender with its server. */
  putBack: async (sql: Sql, kind: WastebasketKind, id: number): Promise<void> => {
    await set(sql, kind, id, null, null);
    if (kind === 'sender')
      await run(sql, 'UPDATE mail_server SET deletedAt = NULL, deletedBy = NULL WHERE id = (SELECT serverId FROM sender WHERE id = ?)', [
        id,
      ]);
    if (kind === 'source') await putConnectionsBack(sql);
    if (kind !== 'mailing' && kind !== 'intake') return;
    const mailing = kind === 'intake' ? '(SELECT mailingId FROM intake WHERE id = ?)' : '?';
    // What was changed meanwhile was not checked in it.
    await run(sql, `UPDATE mailing SET checkedKey = NULL WHERE id = ${mailing}`, [id]);
    await run(
      sql,
      `UPDATE template SET deletedAt = NULL, deletedBy = NULL WHERE id IN (SELECT templateId FROM mailing_template WHERE mailingId = ${mailing})`,
      [id],
    );
    await run(sql, `UPDATE source SET deletedAt = NULL, deletedBy = NULL WHERE id = (SELECT sourceId FROM mailing WHERE id = ${mailing})`, [
      id,
    ]);
    await putConnectionsBack(sql);
  },
};
