import type { DataSource } from 'typeorm';
import { ownDatabase } from '../../../../testing/own-database.js';

let opened: Awaited<ReturnType<typeof ownDatabase>>;
let database: DataSource;
beforeEach(async () => {
  opened = await ownDatabase();
  database = opened.database;
});
afterEach(() => opened.close());

/** Tables, columns and indexes as the database tells them. */
const shape = async (): Promise<unknown> => {
  const tables: { name: string; sql: string | null }[] = await database.query(
    "SELECT name, sql FROM sqlite_master WHERE name NOT LIKE 'sqlite_%' AND type = 'table' AND name <> 'migrations' ORDER BY name",
  );
  const columns = await Promise.all(
    tables.map(async ({ name }) => {
      const found: { name: string; type: string }[] = await database.query(
        `SELECT name, type FROM pragma_table_info('${name}') ORDER BY name`,
      );
      return [name, found.map((column) => `${column.name} ${column.type}`)] as const;
    }),
  );
  const indexes: { name: string }[] = await database.query(
    "SELECT name FROM sqlite_master WHERE type = 'index' AND sql IS NOT NULL ORDER BY name",
  );
  return { columns: Object.fromEntries(columns), indexes: indexes.map(({ name }) => name) };
};

test('what the last migrations did can be undone and done again', async () => {
  const before = await shape();
  for (let count = 0; count < 2; count++) await database.undoLastMigration();
  expect(await shape()).not.toEqual(before);
  await database.runMigrations();
  expect(await shape()).toEqual(before);
});

/** Undoes migrations up to one and with it. */
async function undone(name: string): Promise<void> {
  for (;;) {
    const [last]: { name: string }[] = await database.query('SELECT name FROM migrations ORDER BY id DESC LIMIT 1');
    await database.undoLastMigration();
    if (last!.name.startsWith(name)) return;
  }
}

test('older acts get the principal that they had: the one account of that name, Mailbag itself, incoming mail, or some person', async () => {
  await undone('Principals');
  const add = (text: string, values: unknown[]): Promise<unknown> => database.query(text, values);
  for (const [id, name] of [
    [1, 'Marit'],
    [2, 'Twice'],
    [3, 'Twice'],
  ] as const)
    await add("INSERT INTO account (id, email, name, passwordHash, role, createdAt) VALUES (?, ?, ?, '', 'operator', '')", [
      id,
      `${id}@larkmere.example`,
      name,
    ]);
  for (const who of ['Marit', 'Twice', 'Gone', 'Mailbag', 'Incoming mail'])
    await add(
      'INSERT INTO invitation (tokenHash, email, name, role, seesValues, seesPasswords, who, createdAt, expiresAt) VALUES (?, ?, ?, ?, 1, 1, ?, ?, ?)',
      [who, '', '', 'operator', who, '', ''],
    );
  await database.query(
    "INSERT INTO history (at, accountId, who, action, subject) VALUES ('', 1, 'x', 'x', 'x'), ('', NULL, 'x', 'x', 'x')",
  );
  await database.runMigrations();
  const invitations: { who: string; principal: string }[] = await database.query('SELECT who, principal FROM invitation');
  expect(Object.fromEntries(invitations.map(({ who, principal }) => [who, principal]))).toEqual({
    Marit: 'person:1',
    Twice: 'person',
    Gone: 'person',
    Mailbag: 'mailbag',
    'Incoming mail': 'mail',
  });
  const history: { principal: string }[] = await database.query('SELECT principal FROM history ORDER BY id');
  expect(history.map(({ principal }) => principal)).toEqual(['person:1', 'mailbag']);
  // Nothing is lost when it is undone again.
  await undone('Principals');
  expect(await database.query('SELECT accountId FROM history ORDER BY id')).toEqual([{ accountId: 1 }, { accountId: null }]);
});
