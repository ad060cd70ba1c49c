import type { DataSource } from 'typeorm';
import { detailText, parseDetail } from '@mailbag/core';
import { ownDatabase } from '../../../../testing/own-database.js';
import { rowAdder } from '../../../../testing/rows.js';

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

test('plans, remarks and records that an earlier version wrote are read under the names of today', async () => {
  await undone('PlainNames');
  const add = rowAdder(database.manager);
  const reminder = { subject: 'Again', afterDays: 7, most: 2 };
  const plan = {
    name: 'Permits',
    message: { reminder },
    checks: { columns: { most: { range: { least: '1', most: '9' } }, Plot: { range: null } } },
  };
  const intake = {
    opening: { most: 30, keptDays: 14 },
    personal: { said: { q1: { a: 'most' } } },
    questions: {
      q1: { label: 'How many?', least: '1', most: '5', shape: { parts: [{ what: 'digits', least: 1, most: 3 }] } },
      q2: { label: 'least' },
    },
  };
  await add('mailing', { name: 'Permits', plan: JSON.stringify(plan) });
  await add('source', {
    name: 'rows',
    error: JSON.stringify({ code: 'database-failed', fields: { host: 'db', said: 'no "said": here' } }),
  });
  await add('batch', { mailingId: 1, frozen: JSON.stringify({ plan }), reminder: JSON.stringify(reminder) });
  await add('intake', { mailingId: 1, sourceId: 1, plan: JSON.stringify(intake) });
  await add('delivery', {
    batchId: 1,
    messageId: 'a',
    said: '\u0001["given-up",{"attempts":8,"said":"452 full"}]',
    refused: '[{"address":"a@b.c","said":"550 no"}]',
  });
  await add('incoming_report', { digest: 'd', said: '550 gone', facts: '{"recipients":[{"address":"a@b.c","said":"550 gone"}]}' });
  await add('mail_server', { name: 'relay', restSaid: 'away' });
  await add('source_record', { readingId: 1, ordinal: 0, row: 2, cells: '[{"text":"P-1"}]' });
  await database.runMigrations();

  const json = async (text: string): Promise<unknown> => JSON.parse(((await database.query(text)) as { value: string }[])[0]!.value);
  const named = { name: 'Permits', message: { reminder: { subject: 'Again', afterDays: 7, maximum: 2 } }, checks: { columns: { most: { range: { minimum: '1', maximum: '9' } }, Plot: { range: null } } } }; // prettier-ignore
  expect(await json('SELECT plan AS value FROM mailing')).toEqual(named);
  expect(await json('SELECT frozen AS value FROM batch')).toEqual({ plan: named });
  expect(await json('SELECT reminder AS value FROM batch')).toEqual(named.message.reminder);
  expect(await json('SELECT plan AS value FROM intake')).toEqual({
    opening: { maximum: 30, retentionDays: 14 },
    personal: { recordWords: { q1: { a: 'most' } } },
    questions: {
      q1: { label: 'How many?', minimum: '1', maximum: '5', shape: { parts: [{ what: 'digits', minimum: 1, maximum: 3 }] } },
      q2: { label: 'least' },
    },
  });
  expect(await json('SELECT error AS value FROM source')).toEqual({
    code: 'database-failed',
    fields: { host: 'db', answer: 'no "said": here' },
  });
  const [delivery] = (await database.query('SELECT detail, refused FROM delivery')) as { detail: string; refused: string }[];
  expect(detailText(parseDetail(delivery!.detail))).toBe('Given up after 8 tries: 452 full');
  expect(JSON.parse(delivery!.refused)).toEqual([{ address: 'a@b.c', reply: '550 no' }]);
  expect(await json('SELECT facts AS value FROM incoming_report')).toEqual({ recipients: [{ address: 'a@b.c', diagnostic: '550 gone' }] });
  expect(await database.query('SELECT detail, restDetail FROM incoming_report, mail_server')).toEqual([
    { detail: '550 gone', restDetail: 'away' },
  ]);
  expect(await database.query('SELECT * FROM source_record')).toEqual([{ readingId: 1, ordinal: 0, row: 2, cells: '[{"text":"P-1"}]' }]);
  const after = await shape();
  await undone('PlainNames');
  expect(await json('SELECT plan AS value FROM mailing')).toEqual(plan);
  await database.runMigrations();
  expect(await shape()).toEqual(after);
});
