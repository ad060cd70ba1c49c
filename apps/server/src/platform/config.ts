import { existsSync, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { BACKUPS, DATABASE } from '@mailbag/folder/layout';

const number = (name: string, fallback: number): number => {
  const value = Number(process.env[name]);
  return process.env[name] !== undefined && Number.isFinite(value) ? value : fallback;
};

const list = (name: string): string[] =>
  (process.env[name] ?? '')
    .split(',')
    .map((one) => one.trim().toLowerCase())
    .filter(Boolean);

/** @throws Error when it is set and no address */
const url = (name: string): URL | null => {
  const value = process.env[name]?.trim();
  if (!value) return null;
  if (!/^https?:\/\//.test(value) || !URL.canParse(value)) {
    console.error(`${name} is not an address such as https://mailbag.example.org: ${value}`);
    process.exit(1);
  }
  return new URL(value);
};

/** What the surroundings decide. Everything has a default that suits one machine. */
export const config = {
  host: process.env.MAILBAG_HOST ?? '127.0.0.1',
  port: number('MAILBAG_PORT', 4180),
  /** Where people reach it, such as https://mailbag.example.org; null: wherever they ask. */
  address: url('MAILBAG_ADDRESS'),
  /** Which proxies in front of it are believed when they say who asks: how many there are, or their addresses; false: none. */
  proxies: /^\d+$/.test(process.env.MAILBAG_PROXIES ?? '') ? number('MAILBAG_PROXIES', 0) : list('MAILBAG_PROXIES').join(', ') || false,
  dataFolder: resolve(process.env.MAILBAG_DATA ?? 'data'),
  /** Where backups are kept; on another disk they survive this one. */
  backupFolder: resolve(process.env.MAILBAG_BACKUPS ?? join(process.env.MAILBAG_DATA ?? 'data', BACKUPS)),
  /** Whether the administrator has said that the key is lost for good. */
  newKey: process.env.MAILBAG_NEW_KEY === '1',
  webFolder: resolve(import.meta.dirname, '../../../web/dist'),
  /** The pages of intakes, which strangers reach. */
  pagesFolder: resolve(import.meta.dirname, '../../../pages/dist'),
  /** The manual, and the pictures in it. */
  manualFolder: resolve(import.meta.dirname, '../../../../docs/manual'),
  picturesFolder: resolve(import.meta.dirname, '../../../../docs/screenshots'),
  /** Whether a stand-in post office's page is shown beside it, under /post-office. */
  postOffice: process.env.MAILBAG_POST_OFFICE === '1',
  /** 1: visitors of intakes may ask as often as is usual; greater: so many times as often, for a site behind one address, and for tests. */
  visitorLimits: number('MAILBAG_VISITOR_LIMITS', 1),
  /** 1: retries as the schedule says; smaller: faster, for the demo and tests. */
  retryPace: number('MAILBAG_RETRY_PACE', 1),
  /** Port on which bounces are taken, whatever the settings say; null: as they say. */
  inboundPort: process.env.MAILBAG_INBOUND_PORT === undefined ? null : number('MAILBAG_INBOUND_PORT', 0),
  /** 1: days of reminders are days; smaller: shorter, for tests. */
  reminderPace: number('MAILBAG_REMINDER_PACE', 1),
  /** Seconds between questions to a printer that prints. */
  printerSeconds: number('MAILBAG_PRINTER_SECONDS', 3),
  /** Seconds between looks into the bounce mailbox. */
  mailboxSeconds: number('MAILBAG_MAILBOX_SECONDS', 60),
  /** Milliseconds after which a mail server that says nothing counts as gone. */
  mailTimeout: number('MAILBAG_MAIL_TIMEOUT', 30_000),
  /** Whether every answer is held against the contract, as in tests. */
  checksAnswers: process.env.MAILBAG_CHECK_ANSWERS === '1',
  threads: number('MAILBAG_THREADS', 2),
  /** Database servers that may be reached, as names or name:port; empty: all. */
  databaseHosts: list('MAILBAG_DATABASE_HOSTS'),
  /** What may be reached on this machine and its own wire, as names, addresses or either with :port; `all`: everything; empty: nothing. */
  localTargets: list('MAILBAG_LOCAL_TARGETS'),
  templateLimit: 50 * 1024 * 1024,
  sheetLimit: 200 * 1024 * 1024,
};

/** The database; its folder is made on the first use. */
export function databasePath(): string {
  if (!existsSync(config.dataFolder)) mkdirSync(config.dataFolder, { recursive: true });
  return join(config.dataFolder, DATABASE);
}
