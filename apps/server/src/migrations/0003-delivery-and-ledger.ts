import type { MigrationInterface, QueryRunner } from 'typeorm';

const steps = [
  // Mail servers and senders; the one of the first version is taken over as it was, confirmed because it has been in use.
  `CREATE TABLE mail_server (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name TEXT NOT NULL, host TEXT NOT NULL, port INTEGER NOT NULL, security TEXT NOT NULL, checkCertificate INTEGER NOT NULL, user TEXT NOT NULL,
    sealed TEXT NOT NULL, perMinute INTEGER NOT NULL, perHour INTEGER NOT NULL, perDomainMinute INTEGER NOT NULL, connections INTEGER NOT NULL, limitMb INTEGER NOT NULL, hours TEXT, restUntil TEXT, restSaid TEXT,
    restCount INTEGER NOT NULL DEFAULT 0, createdAt TEXT NOT NULL)`,
  `CREATE TABLE sender (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, serverId INTEGER NOT NULL REFERENCES mail_server(id), name TEXT NOT NULL, address TEXT NOT NULL, replyTo TEXT, dkimDomain TEXT NOT NULL DEFAULT '',
    dkimSelector TEXT NOT NULL DEFAULT '', dkimSealed TEXT NOT NULL DEFAULT '', confirmedAt TEXT, codeHash TEXT, codeUntil TEXT, codeTries INTEGER NOT NULL DEFAULT 0, createdAt TEXT NOT NULL)`,
  `INSERT INTO mail_server (id, name, host, port, security, checkCertificate, user, sealed, perMinute, perHour, perDomainMinute, connections, limitMb, createdAt)
   SELECT 1, json_extract(value, '$.host'), json_extract(value, '$.host'), json_extract(value, '$.port'), CASE WHEN json_extract(value, '$.tls') THEN 'tls' ELSE 'none' END, 1, json_extract(value, '$.user'),
     json_extract(value, '$.sealed'), 0, 0, 0, 5, 25, strftime('%Y-%m-%dT%H:%M:%fZ', 'now') FROM setting WHERE name = 'mail'`,
  `INSERT INTO sender (id, serverId, name, address, confirmedAt, createdAt)
   SELECT 1, 1, json_extract(value, '$.senderName'), json_extract(value, '$.senderAddress'), strftime('%Y-%m-%dT%H:%M:%fZ', 'now'), strftime('%Y-%m-%dT%H:%M:%fZ', 'now') FROM setting WHERE name = 'mail'`,
  `DELETE FROM setting WHERE name = 'mail'`,

  // One envelope: who it is for, under which token bounces come back, since when it is on its way.
  `ALTER TABLE delivery ADD COLUMN kind TEXT NOT NULL DEFAULT 'copies'`,
  `ALTER TABLE delivery ADD COLUMN senderId INTEGER`,
  `ALTER TABLE delivery ADD COLUMN serverId INTEGER`,
  `ALTER TABLE delivery ADD COLUMN token TEXT`,
  `ALTER TABLE delivery ADD COLUMN domain TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE delivery ADD COLUMN recipients TEXT`,
  `ALTER TABLE delivery ADD COLUMN accepted TEXT`,
  `ALTER TABLE delivery ADD COLUMN refused TEXT`,
  `ALTER TABLE delivery ADD COLUMN leaseUntil TEXT`,
  `ALTER TABLE delivery ADD COLUMN handedAt TEXT`,
  `ALTER TABLE delivery ADD COLUMN sentAt TEXT`,
  `ALTER TABLE delivery ADD COLUMN size INTEGER NOT NULL DEFAULT 0`,
  `UPDATE delivery SET senderId = 1, serverId = 1, domain = lower(substr(address, instr(address, '@') + 1)), sentAt = CASE WHEN state = 'sent' THEN updatedAt END`,
  `DROP INDEX delivery_due`,
  `CREATE INDEX delivery_due ON delivery (serverId, state, held, nextTryAt)`,
  `CREATE INDEX delivery_sent ON delivery (sentAt)`,
  `CREATE UNIQUE INDEX delivery_token ON delivery (token)`,
  `CREATE INDEX delivery_by_address ON delivery (address)`,
  // Every Message-ID that a delivery ever had, for bounces that name an earlier one; copies that a reminder is about.
  `CREATE TABLE delivery_message (messageId TEXT PRIMARY KEY NOT NULL, deliveryId INTEGER NOT NULL) WITHOUT ROWID`,
  `INSERT INTO delivery_message SELECT messageId, id FROM delivery`,
  `CREATE TABLE delivery_copy (deliveryId INTEGER NOT NULL, copyId INTEGER NOT NULL, PRIMARY KEY (deliveryId, copyId)) WITHOUT ROWID`,
  `CREATE INDEX delivery_copy_by_copy ON delivery_copy (copyId)`,
  // What came to the bounce mailbox, so that nothing is counted twice and strangers can be looked at.
  `CREATE TABLE incoming_report (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, digest TEXT NOT NULL UNIQUE, at TEXT NOT NULL, way TEXT NOT NULL, kind TEXT NOT NULL, sender TEXT NOT NULL, subject TEXT NOT NULL, said TEXT, deliveryId INTEGER)`,

  `ALTER TABLE copy ADD COLUMN wantsPaper INTEGER NOT NULL DEFAULT 0`,
  `ALTER TABLE copy ADD COLUMN trouble TEXT`,
  `ALTER TABLE copy ADD COLUMN troubleCode TEXT`,
  `ALTER TABLE copy ADD COLUMN metadata TEXT`,
  `ALTER TABLE copy ADD COLUMN isProtected INTEGER NOT NULL DEFAULT 0`,
  `CREATE INDEX copy_by_trouble ON copy (trouble, id) WHERE trouble IS NOT NULL`,
  `CREATE INDEX copy_trouble_counted ON copy (trouble, state, mailingId, batchId, templateId, since) WHERE trouble IS NOT NULL`,
  `CREATE INDEX copy_by_since ON copy (since, state, mailingId, batchId, templateId)`,
  `CREATE INDEX copy_by_recipient ON copy (recipient COLLATE NOCASE, id)`,
  `CREATE INDEX copy_by_template ON copy (templateId, id)`,
  // Words are found by their beginnings of two and three letters; where in the text they stand is never asked.
  `CREATE VIRTUAL TABLE copy_words USING fts5(text, tokenize = "unicode61 remove_diacritics 2", prefix = '2 3', detail = 'none', columnsize = 0)`,
  `INSERT INTO copy_words (rowid, text) SELECT rowid, text FROM copy_search`,
  `DROP TABLE copy_search`,
  // Which words there are at all: asked before a word is looked for as a beginning.
  `CREATE VIRTUAL TABLE copy_terms USING fts5vocab(copy_words, instance)`,
  `CREATE INDEX copy_for_paper ON copy (state, wantsPaper, mailingId)`,
  // How many copies are in each state of each batch, kept by the changes themselves, so that a ledger of a million is counted at once.
  `CREATE TABLE copy_count (batchId INTEGER NOT NULL, mailingId INTEGER NOT NULL, templateId INTEGER NOT NULL, state TEXT NOT NULL, count INTEGER NOT NULL, PRIMARY KEY (batchId, mailingId, templateId, state)) WITHOUT ROWID`,
  `INSERT INTO copy_count SELECT batchId, mailingId, templateId, state, COUNT(*) FROM copy GROUP BY batchId, mailingId, templateId, state`,
  `CREATE TRIGGER copy_counted AFTER INSERT ON copy BEGIN
     INSERT INTO copy_count VALUES (NEW.batchId, NEW.mailingId, NEW.templateId, NEW.state, 1) ON CONFLICT DO UPDATE SET count = count + 1; END`,
  `CREATE TRIGGER copy_recounted AFTER UPDATE OF state ON copy WHEN OLD.state <> NEW.state BEGIN
     UPDATE copy_count SET count = count - 1 WHERE batchId = OLD.batchId AND mailingId = OLD.mailingId AND templateId = OLD.templateId AND state = OLD.state;
     INSERT INTO copy_count VALUES (NEW.batchId, NEW.mailingId, NEW.templateId, NEW.state, 1) ON CONFLICT DO UPDATE SET count = count + 1; END`,
  `CREATE TRIGGER copy_uncounted AFTER DELETE ON copy BEGIN
     UPDATE copy_count SET count = count - 1 WHERE batchId = OLD.batchId AND mailingId = OLD.mailingId AND templateId = OLD.templateId AND state = OLD.state; END`,

  `CREATE TABLE saved_view (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, accountId INTEGER NOT NULL REFERENCES account(id) ON DELETE CASCADE, name TEXT NOT NULL, filter TEXT NOT NULL, createdAt TEXT NOT NULL)`,

  `CREATE TABLE printer (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name TEXT NOT NULL, uri TEXT NOT NULL, createdAt TEXT NOT NULL)`,
  `CREATE TABLE print_run (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, number INTEGER NOT NULL UNIQUE, name TEXT NOT NULL, state TEXT NOT NULL, options TEXT NOT NULL, copies INTEGER NOT NULL, recipients INTEGER NOT NULL,
    sheets INTEGER NOT NULL, pages INTEGER NOT NULL, size INTEGER NOT NULL, printerId INTEGER, jobId INTEGER, said TEXT, who TEXT NOT NULL, createdAt TEXT NOT NULL, updatedAt TEXT NOT NULL)`,
  `CREATE TABLE print_run_copy (runId INTEGER NOT NULL REFERENCES print_run(id) ON DELETE CASCADE, copyId INTEGER NOT NULL, place INTEGER NOT NULL, recipient TEXT NOT NULL, postalCode TEXT NOT NULL, sheet INTEGER NOT NULL, PRIMARY KEY (runId, copyId)) WITHOUT ROWID`,
  `CREATE INDEX print_run_copy_by_copy ON print_run_copy (copyId)`,

  `CREATE TABLE register (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, name TEXT NOT NULL, kind TEXT NOT NULL, settings TEXT NOT NULL, sealed TEXT NOT NULL, mailings TEXT, position INTEGER NOT NULL, tries INTEGER NOT NULL, nextTryAt TEXT NOT NULL,
    said TEXT, reportedAt TEXT, paused INTEGER NOT NULL, createdAt TEXT NOT NULL)`,

  // Who may do what, and who did it.
  `ALTER TABLE account ADD COLUMN role TEXT NOT NULL DEFAULT 'administrator'`,
  `ALTER TABLE account ADD COLUMN seesValues INTEGER NOT NULL DEFAULT 1`,
  `ALTER TABLE account ADD COLUMN seesPasswords INTEGER NOT NULL DEFAULT 1`,
  `ALTER TABLE account ADD COLUMN disabledAt TEXT`,
  `ALTER TABLE account ADD COLUMN lastSeenAt TEXT`,
  `CREATE TABLE invitation (tokenHash TEXT PRIMARY KEY NOT NULL, email TEXT NOT NULL, name TEXT NOT NULL, role TEXT NOT NULL, seesValues INTEGER NOT NULL, seesPasswords INTEGER NOT NULL, who TEXT NOT NULL, createdAt TEXT NOT NULL, expiresAt TEXT NOT NULL)`,
  `CREATE TABLE history (id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL, at TEXT NOT NULL, accountId INTEGER, who TEXT NOT NULL, action TEXT NOT NULL, subject TEXT NOT NULL, detail TEXT)`,
  `CREATE INDEX history_by_time ON history (at)`,
];

/** Senders, envelopes, bounces, paper, the register, and who may do what. */
export class DeliveryAndLedger1764200000000 implements MigrationInterface {
  name = 'DeliveryAndLedger1764200000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const sql of steps) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const trigger of ['copy_counted', 'copy_recounted', 'copy_uncounted']) await runner.query(`DROP TRIGGER ${trigger}`);
    for (const index of [
      'copy_by_trouble',
      'copy_trouble_counted',
      'copy_by_since',
      'copy_by_recipient',
      'copy_by_template',
      'copy_for_paper',
      'delivery_due',
      'delivery_sent',
      'delivery_token',
      'delivery_by_address',
    ])
      await runner.query(`DROP INDEX ${index}`);
    for (const [table, columns] of Object.entries({
      delivery: [
        'kind',
        'senderId',
        'serverId',
        'token',
        'domain',
        'recipients',
        'accepted',
        'refused',
        'leaseUntil',
        'handedAt',
        'sentAt',
        'size',
      ],
      copy: ['wantsPaper', 'trouble', 'troubleCode', 'metadata', 'isProtected'],
      account: ['role', 'seesValues', 'seesPasswords', 'disabledAt', 'lastSeenAt'],
    }))
      for (const column of columns) await runner.query(`ALTER TABLE ${table} DROP COLUMN ${column}`);
    await runner.query('CREATE INDEX delivery_due ON delivery (state, held, nextTryAt)');
    await runner.query('CREATE VIRTUAL TABLE copy_search USING fts5(text, tokenize = "unicode61 remove_diacritics 2")');
    await runner.query('INSERT INTO copy_search (rowid, text) SELECT rowid, text FROM copy_words');
    await runner.query('DROP TABLE copy_terms');
    await runner.query('DROP TABLE copy_words');
    for (const table of [
      'history',
      'invitation',
      'register',
      'print_run_copy',
      'print_run',
      'printer',
      'saved_view',
      'copy_count',
      'incoming_report',
      'delivery_copy',
      'delivery_message',
      'sender',
      'mail_server',
    ])
      await runner.query(`DROP TABLE ${table}`);
  }
}
