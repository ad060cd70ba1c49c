import type { Sql } from '../sql.js';
import type { Dialect } from './dialect.js';

/** Pieces of a statement in which nothing is to be changed: texts and quoted names. */
const KEPT = /'(?:[^']|'')*'|"(?:[^"]|"")*"/g;
/** Names with a capital inside, which PostgreSQL would fold to small letters (PostgreSQL, 4.1.1). */
const NAME = /\b[a-z]+[A-Z]\w*\b/g;

/** PostgreSQL: tried with the stores whose tests say so; nothing else of the server runs on it yet. */
export const postgres: Dialect = {
  inList: 'IN (SELECT json_array_elements_text(?::json))',
  inIds: 'IN (SELECT json_array_elements_text(?::json)::bigint)',
  items: (name) => `(SELECT ordinality - 1 AS key, value FROM json_array_elements(?::json) WITH ORDINALITY) AS ${name}`,
  at: (json, ...keys) => `(${json}::json #>> '{${keys.join(',')}}')`,
  withAt: (json, ...keys) => `jsonb_set(${json}::jsonb, '{${keys.join(',')}}', ?::jsonb)::text`,
  each: (json, name, ...keys) => `json_array_elements_text(${json}::json #> '{${keys.join(',')}}') AS ${name}(value)`,
  gathered: (column) => `json_agg(${column})`,
  lines: (column) => `string_agg(${column}, chr(10))`,
  caseless: (column) => `lower(${column})`,
  greater: (one, other) => `GREATEST(${one}, ${other})`,
  unindexed: (column) => column,
  byIndex: () => '',
  matches: (words) => `${words}.text @@ websearch_to_tsquery('simple', ?)`,
  written(text) {
    let place = 0;
    const changed = (piece: string): string => piece.replace(NAME, '"$&"').replace(/\?/g, () => `$${++place}`);
    let written = '';
    let from = 0;
    for (const { 0: piece, index } of text.matchAll(KEPT)) {
      written += changed(text.slice(from, index)) + piece;
      from = index + piece.length;
    }
    return written + changed(text.slice(from));
  },
};

/** A connection of TypeORM to PostgreSQL as stores see it. It tells changes with their count beside them. */
export const overPostgres = (database: { query(text: string, values?: unknown[]): Promise<unknown> }): Sql => ({
  async query<Row>(text: string, values: readonly unknown[] = []): Promise<Row[]> {
    const found = (await database.query(postgres.written(text), [...values])) as Row[] | [Row[], number];
    return (found.length === 2 && Array.isArray(found[0]) ? found[0] : found) as Row[];
  },
});
