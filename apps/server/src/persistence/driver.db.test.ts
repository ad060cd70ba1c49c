import { Driver } from './driver.js';

test('a statement whose only parameter is null sets null, and finds what has none', () => {
  const database = new Driver(':memory:');
  database.exec("CREATE TABLE t (id INTEGER PRIMARY KEY, at TEXT); INSERT INTO t VALUES (1, '2027-01-01')");
  database.prepare('UPDATE t SET at = ? WHERE id = 1').run(null);
  expect(database.prepare('SELECT id FROM t WHERE at IS ?').all(null)).toEqual([{ id: 1 }]);
  expect(database.prepare('SELECT id FROM t WHERE at IS ?').get(null)).toMatchObject({ id: 1 });
  // Others are as they were: in a row, as a list, by name, or none.
  database.prepare('UPDATE t SET at = ? WHERE id = ?').run(null, 1);
  database.prepare('UPDATE t SET at = ? WHERE id = ?').run(['2028-01-01', 1]);
  expect(database.prepare('SELECT at FROM t WHERE id = :id').get({ id: 1 })).toMatchObject({ at: '2028-01-01' });
  expect(database.prepare('SELECT COUNT(*) AS count FROM t').get()).toMatchObject({ count: 1 });
  database.close();
});
