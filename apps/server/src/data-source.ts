import type { DataSourceOptions } from 'typeorm';
import { AccountEntity, SessionEntity } from './accounts/accounts.entity.js';
import { ConnectionEntity } from './databases/connections.entity.js';
import { MailingEntity } from './mailings/mailings.entity.js';
import { Driver } from './persistence/driver.js';
import { databasePath } from './platform/config.js';
import { MailServerEntity, SenderEntity } from './senders/senders.entity.js';
import { SettingEntity } from './settings/settings.entity.js';
import { SourceEntity } from './sources/sources.entity.js';
import { TemplateEntity, TemplateRevisionEntity } from './templates/templates.entity.js';
import { BUSY_TIMEOUT } from './persistence/main-connection.js';
import { FirstTables1764000000000 } from './migrations/0001-first-tables.js';
import { RecordsFromAnywhere1764100000000 } from './migrations/0002-records-from-anywhere.js';
import { DeliveryAndLedger1764200000000 } from './migrations/0003-delivery-and-ledger.js';
import { SafeKeeping1764300000000 } from './migrations/0004-safe-keeping.js';
import { OlderFolders1764400000000 } from './migrations/0005-older-folders.js';
import { WaitingDeliveries1764500000000 } from './migrations/0006-waiting-deliveries.js';
import { Keys1764600000000 } from './migrations/0007-keys.js';
import { Jobs1764700000000 } from './migrations/0008-jobs.js';
import { Principals1764800000000 } from './migrations/0009-principals.js';
import { SourceKinds1764900000000 } from './migrations/0010-source-kinds.js';
import { Layouts1765000000000 } from './migrations/0011-layouts.js';
import { MailingChanges1765100000000 } from './migrations/0012-mailing-changes.js';
import { CopiesOfItems1765200000000 } from './migrations/0013-copies-of-items.js';
import { SourcePictures1765300000000 } from './migrations/0014-source-pictures.js';
import { Intakes1765400000000 } from './migrations/0015-intakes.js';
import { PersonalLinks1765500000000 } from './migrations/0016-personal-links.js';
import { Languages1765600000000 } from './migrations/0017-languages.js';
import { Wastebasket1765700000000 } from './migrations/0018-wastebasket.js';
import { BatchMails1765800000000 } from './migrations/0019-batch-mails.js';
import { PlainNames1765900000000 } from './migrations/0020-plain-names.js';
import { SettingsWastebasket1766000000000 } from './migrations/0021-settings-wastebasket.js';

/** How the database is opened; tables come from migrations only. */
export const dataSourceOptions = (): DataSourceOptions => ({
  type: 'better-sqlite3',
  driver: Driver,
  database: databasePath(),
  prepareDatabase: (database: { pragma(text: string): unknown }) => {
    // Deleted rows are overwritten, and free pages can be given back (SQLite, PRAGMA secure_delete and auto_vacuum).
    database.pragma('auto_vacuum = INCREMENTAL');
    database.pragma('secure_delete = ON');
    database.pragma('journal_mode = WAL');
    // A slow disk must not hold the event loop: what was committed is synced beside it (log-sync.ts), and carried into the database by threads
    // (SQLite, PRAGMA synchronous and wal_autocheckpoint).
    database.pragma('synchronous = NORMAL');
    database.pragma('wal_autocheckpoint = 0');
    database.pragma('foreign_keys = ON');
    // Whoever waits for the write lock waits without holding the event loop (main-connection.ts).
    database.pragma(`busy_timeout = ${BUSY_TIMEOUT}`);
  },
  entities: [
    AccountEntity,
    SessionEntity,
    ConnectionEntity,
    MailingEntity,
    MailServerEntity,
    SenderEntity,
    SettingEntity,
    SourceEntity,
    TemplateEntity,
    TemplateRevisionEntity,
  ],
  migrations: [
    FirstTables1764000000000,
    RecordsFromAnywhere1764100000000,
    DeliveryAndLedger1764200000000,
    SafeKeeping1764300000000,
    OlderFolders1764400000000,
    WaitingDeliveries1764500000000,
    Keys1764600000000,
    Jobs1764700000000,
    Principals1764800000000,
    SourceKinds1764900000000,
    Layouts1765000000000,
    MailingChanges1765100000000,
    CopiesOfItems1765200000000,
    SourcePictures1765300000000,
    Intakes1765400000000,
    PersonalLinks1765500000000,
    Languages1765600000000,
    Wastebasket1765700000000,
    BatchMails1765800000000,
    PlainNames1765900000000,
    SettingsWastebasket1766000000000,
  ],
  migrationsRun: true,
  synchronize: false,
});
