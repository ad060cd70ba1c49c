import Database from 'libsql';
import { postgres } from './postgres.js';
import { sqlite } from './sqlite.js';

/** What SQLite makes of a fragment. */
function ask(text: string, ...values: unknown[]): unknown[] {
  const database = new Database(':memory:');
  try {
    database.exec(
      'CREATE TABLE t (id INTEGER, name TEXT, doc TEXT); INSERT INTO t VALUES (1, \'Ada\', \'{"a":{"b":[10,20]},"left":[1]}\'), (2, \'bea\', \'{"a":{"b":[30]}}\')',
    );
    return (database.prepare(text).all(values) as Record<string, unknown>[]).map((row) => Object.values(row)).flat();
  } finally {
    database.close();
  }
}

test('a list is one parameter, whatever is in it', () => {
  expect(ask(`SELECT id FROM t WHERE name ${sqlite.inList} ORDER BY id`, '["bea","x\'); DROP TABLE t; --"]')).toEqual([2]);
  expect(ask(`SELECT id FROM t WHERE id ${sqlite.inIds} ORDER BY id`, '[2,1,9]')).toEqual([1, 2]);
  expect(ask(`SELECT id FROM t WHERE id ${sqlite.inIds}`, '[]')).toEqual([]);
  expect(ask(`SELECT item.key, item.value FROM ${sqlite.items('item')} ORDER BY item.key`, '["x","y"]')).toEqual([0, 'x', 1, 'y']);
});

test('what lies within JSON is reached by its keys, and replaced there', () => {
  expect(ask(`SELECT ${sqlite.at('doc', 'a', 'b', 1)} FROM t ORDER BY id`)).toEqual([20, null]);
  expect(ask(`SELECT item.value FROM t, ${sqlite.each('doc', 'item', 'a', 'b')} ORDER BY 1`)).toEqual([10, 20, 30]);
  expect(JSON.parse(String(ask(`SELECT ${sqlite.withAt('doc', 'left')} FROM t WHERE id = 1`, '[]')[0]))).toMatchObject({
    left: [],
    a: { b: [10, 20] },
  });
  expect(ask(`SELECT ${sqlite.gathered('id')} FROM t`)).toEqual(['[1,2]']);
  expect(ask(`SELECT ${sqlite.lines('id')} FROM t`)).toEqual(['1\n2']);
});

test('capital and small letters are alike where it is asked for, and the greater of two is the greater', () => {
  expect(ask(`SELECT name FROM t ORDER BY ${sqlite.caseless('name')}`)).toEqual(['Ada', 'bea']);
  expect(ask(`SELECT id FROM t WHERE ${sqlite.caseless('name')} = ?`, 'ADA')).toEqual([1]);
  expect(ask(`SELECT ${sqlite.greater('?', "COALESCE(NULL, '')")}`, '2027')).toEqual(['2027']);
  expect(ask(`SELECT id FROM t WHERE ${sqlite.unindexed('id')} = 2`)).toEqual([2]);
});

// PostgreSQL, 4.1.1: names fold to small letters unless they are quoted; parameters are numbered.
test.each([
  ['SELECT id FROM t WHERE a = ? AND b = ?', 'SELECT id FROM t WHERE a = $1 AND b = $2'],
  ['SELECT batchId, recordOrdinal FROM copy', 'SELECT "batchId", "recordOrdinal" FROM copy'],
  ["SELECT 'is it batchId?' AS said WHERE a = ?", "SELECT 'is it batchId?' AS said WHERE a = $1"],
  ['SELECT "batchId" FROM t', 'SELECT "batchId" FROM t'],
  ["SELECT 'it''s ? here', ? FROM t", "SELECT 'it''s ? here', $1 FROM t"],
  ['SELECT COUNT(*) FILTER (WHERE state = ?) FROM copy', 'SELECT COUNT(*) FILTER (WHERE state = $1) FROM copy'],
])('%s is written for PostgreSQL as %s', (text, written) => expect(postgres.written(text)).toBe(written));

test('both dialects have the same words', () => expect(Object.keys(postgres).sort()).toEqual(Object.keys(sqlite).sort()));
