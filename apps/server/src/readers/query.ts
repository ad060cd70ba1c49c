import { MailbagError, PARAMETER, VERBATIM } from '@mailbag/core';
import { t } from '@mailbag/core/words';

/** A query with its parameters in the order in which they stand. */
export interface PreparedQuery {
  sql: string;
  values: string[];
}

const READING = /^[\s(]*(?:select|with|values|table)\b/i;
/** What writes although it begins like a reading, or reaches files of the server. */
const REFUSED: [pattern: RegExp, why: string][] = [
  [/\binto\s+(outfile|dumpfile)\b/i, t`it writes a file`],
  [
    /\b(insert|update|delete|merge|replace|drop|alter|create|truncate|grant|revoke|attach|detach|pragma|vacuum|copy|call|do|execute|lock|set)\b(?=\s)/i,
    t`it does more than read`,
  ],
  [/\bload_extension\s*\(/i, t`it loads an extension`],
];

/**
 * One statement that reads, with `:name` for parameters. This is the sentence for people; that nothing is written is kept by the
 * read-only transaction or file.
 * @param mark how the database marks the parameter at a place, from 1
 * @throws MailbagError database-query-refused, database-parameter-missing
 */
export function prepareQuery(sql: string, parameters: Readonly<Record<string, string>>, mark: (place: number) => string): PreparedQuery {
  const trimmed = sql.trim().replace(/;\s*$/, '');
  const bare = trimmed.replace(VERBATIM, (piece) => (piece.startsWith('-') || piece.startsWith('/') ? ' ' : "''"));
  const refuse = (why: string): never => {
    throw new MailbagError('database-query-refused', { why });
  };
  if (trimmed === '') refuse(t`it is empty`);
  if (bare.includes(';')) refuse(t`it holds more than one statement`);
  if (!READING.test(bare)) refuse(t`it does not begin with SELECT or WITH`);
  for (const [pattern, why] of REFUSED) if (pattern.test(bare)) refuse(why);
  const values: string[] = [];
  let out = '';
  let at = 0;
  const place = (text: string): string =>
    text.replace(PARAMETER, (_, before: string, name: string) => {
      if (!Object.hasOwn(parameters, name)) throw new MailbagError('database-parameter-missing', { name });
      values.push(parameters[name]!);
      return before + mark(values.length);
    });
  for (const found of trimmed.matchAll(VERBATIM)) {
    out += place(trimmed.slice(at, found.index)) + found[0];
    at = found.index + found[0].length;
  }
  return { sql: out + place(trimmed.slice(at)), values };
}

/** A query that counts what another one finds, where it may stand within another. */
export const countingQuery = (sql: string): string => `SELECT COUNT(*) AS n FROM (${sql.trim().replace(/;\s*$/, '')}\n) AS counted`;
