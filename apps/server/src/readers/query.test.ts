import { MailbagError } from '@mailbag/core';
import { databaseFailure } from './failures.js';
import { countingQuery, prepareQuery } from './query.js';

const numbered = (place: number): string => `$${place}`;
const prepared = (sql: string, parameters: Record<string, string> = {}) => prepareQuery(sql, parameters, numbered);

test.each([
  ['SELECT * FROM t', {}, 'SELECT * FROM t', []],
  ['  with x AS (SELECT 1) SELECT * FROM x; ', {}, 'with x AS (SELECT 1) SELECT * FROM x', []],
  ['(SELECT 1) UNION (SELECT 2)', {}, '(SELECT 1) UNION (SELECT 2)', []],
  [
    'SELECT * FROM t WHERE a = :year AND b = :site OR a = :year',
    { year: '2027', site: 'Mill' },
    'SELECT * FROM t WHERE a = $1 AND b = $2 OR a = $3',
    ['2027', 'Mill', '2027'],
  ],
  // Neither in a text, nor in a remark, nor in a cast is a colon a parameter.
  [
    'SELECT \':year\', ":site", a::text FROM t -- :no\n WHERE b = :year /* :nor */',
    { year: '1' },
    'SELECT \':year\', ":site", a::text FROM t -- :no\n WHERE b = $1 /* :nor */',
    ['1'],
  ],
  ["SELECT 'it''s :here' AS x", {}, "SELECT 'it''s :here' AS x", []],
  // What only sounds like writing is read all the same.
  ["SELECT 'delete from t', updated FROM t", {}, "SELECT 'delete from t', updated FROM t", []],
])('%s is run as it stands, its parameters beside it', (sql, parameters, text, values) => {
  expect(prepared(sql, parameters)).toEqual({ sql: text, values });
});

test.each([
  ['', 'it is empty'],
  [' ; ', 'it is empty'],
  ['SELECT 1; SELECT 2', 'it holds more than one statement'],
  ['DELETE FROM t', 'it does not begin with SELECT or WITH'],
  ['EXPLAIN SELECT 1', 'it does not begin with SELECT or WITH'],
  ['WITH gone AS (DELETE FROM t RETURNING *) SELECT * FROM gone', 'it does more than read'],
  ["SELECT 1 INTO OUTFILE '/tmp/x'", 'it writes a file'],
  ["SELECT load_extension('x')", 'it loads an extension'],
  ['SELECT * FROM t FOR UPDATE OF t', 'it does more than read'],
])('%s is refused: %s', (sql, why) => {
  expect(() => prepared(sql)).toThrow(expect.objectContaining({ code: 'database-query-refused', fields: { why } }));
});

test('a parameter without a value is asked for by its name', () => {
  expect(() => prepared('SELECT :year')).toThrow(expect.objectContaining({ code: 'database-parameter-missing', fields: { name: 'year' } }));
  // Nothing that every object has is a value.
  expect(() => prepared('SELECT :toString')).toThrow(expect.objectContaining({ code: 'database-parameter-missing' }));
});

test('a query is counted with a remark at its end, too', () => {
  expect(countingQuery('SELECT 1 -- all;')).toBe('SELECT COUNT(*) AS n FROM (SELECT 1 -- all\n) AS counted');
  expect(countingQuery('SELECT 1;')).toBe('SELECT COUNT(*) AS n FROM (SELECT 1\n) AS counted');
});

// SQLSTATE (PostgreSQL manual, appendix A), error numbers and names of MySQL and MariaDB, result codes of SQLite.
test.each<[unknown, string]>([
  [{ code: 'ECONNREFUSED' }, 'database-unreachable'],
  [{ message: 'timeout expired' }, 'database-unreachable'],
  [{ code: 'ECONNRESET' }, 'database-gone'],
  [{ code: '28P01' }, 'database-sign-in-refused'],
  [{ code: 'ER_ACCESS_DENIED_ERROR' }, 'database-sign-in-refused'],
  [{ code: '3D000' }, 'database-unknown'],
  [{ code: 'ER_BAD_DB_ERROR' }, 'database-unknown'],
  [{ code: '57014' }, 'database-too-slow'],
  [{ errno: 3024 }, 'database-too-slow'],
  [{ message: 'Query execution was interrupted (max_statement_time exceeded)' }, 'database-too-slow'],
  [{ code: 'SQLITE_AUTH', message: 'not authorized' }, 'database-query-refused'],
  [{ code: '25006' }, 'database-query-refused'],
  [{ message: 'attempt to write a readonly database' }, 'database-query-refused'],
  [{ code: '57P01' }, 'database-gone'],
  [{ message: 'Connection terminated unexpectedly' }, 'database-gone'],
  [{ message: 'self-signed certificate' }, 'database-tls'],
  [{ code: 'SQLITE_NOTADB' }, 'database-not-a-file'],
  [{ code: 'SQLITE_NOMEM' }, 'database-too-much'],
  [{ code: '42P01', message: 'relation "x" does not exist' }, 'database-failed'],
  ['only words', 'database-failed'],
])('what a driver says is told as what it means: %j → %s', (thrown, code) => {
  const told = databaseFailure(thrown, 'db.example');
  expect(told.code).toBe(code);
  expect(told.message).not.toContain('undefined');
  expect(told.cause).toBe(thrown);
});

test('what is said already is not said otherwise', () => {
  const known = new MailbagError('database-busy', { seconds: 60 });
  expect(databaseFailure(known, 'x')).toBe(known);
});
