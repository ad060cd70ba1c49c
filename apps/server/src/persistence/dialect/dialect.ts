import { postgres } from './postgres.js';
import { sqlite } from './sqlite.js';

/**
 * What differs between databases that speak SQL. Stores write everything else in words that SQLite and PostgreSQL share: `IS NOT DISTINCT FROM`, `RETURNING`,
 * `ON CONFLICT`, `FILTER`, numbers for yes and no.
 */
export interface Dialect {
  /** After a column of texts: its value is in a list, which is one parameter, as JSON. */
  inList: string;
  /** The same of whole numbers. */
  inIds: string;
  /** The items of a list that is one parameter, as rows with `key` (from 0) and `value`. */
  items: (name: string) => string;
  /** The value at a place of a column that holds JSON, by keys from the outside in. */
  at: (json: string, ...keys: (string | number)[]) => string;
  /** A column that holds JSON, with a parameter (JSON too) at a place. */
  withAt: (json: string, ...keys: string[]) => string;
  /** The items of a list (or the values of an object, by `key`) that a column holds at a place, as rows with `value`. */
  each: (json: string, name: string, ...keys: string[]) => string;
  /** The values of a group as one list, as JSON. */
  gathered: (column: string) => string;
  /** The texts of a group as one, a line for each. */
  lines: (column: string) => string;
  /** A column as it is compared and ordered when capital and small letters are alike. */
  caseless: (column: string) => string;
  /** The greater of two values. */
  greater: (one: string, other: string) => string;
  /** A column that is not to be looked up by an index of its own. */
  unindexed: (column: string) => string;
  /** Asks for rows by an index that the planner does not always see. */
  byIndex: (index: string) => string;
  /** Rows of an index of words (`copy_words`, by the id of the copy) that match a search, which is one parameter. */
  matches: (words: string) => string;
  /** A statement as the driver takes it: marks of parameters and names of columns. */
  written: (text: string) => string;
}

const dialects = { sqlite, postgres };

/** The dialect of this process's database; `MAILBAG_DIALECT` tells another one than SQLite's. */
export const dialect: Dialect = dialects[(process.env['MAILBAG_DIALECT'] ?? 'sqlite') as keyof typeof dialects] ?? sqlite;
