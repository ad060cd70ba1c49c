import { existsSync, mkdirSync, readdirSync, statSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { BackupRequest, BackupsAnswer } from '@mailbag/contract';
import { MailbagError, isMailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { backupName, isBackupName } from '@mailbag/folder';
import { Injectable, Logger } from '@nestjs/common';
import { LiveService } from '../live/live.service.js';
import { config } from '../platform/config.js';
import { SettingsService } from '../settings/settings.service.js';
import { Pool } from '../work/pool.js';
import { Jobs } from '../jobs/jobs.service.js';

const NAME = 'backups';
const HOUR = 3_600_000;
/** Milliseconds between looks whether a backup is due, and after one that failed. */
const [LOOK, AFTER_FAILURE] = [5 * 60_000, HOUR];

type Stored = BackupRequest & { failed: BackupsAnswer['failed'] };
const usual: Stored = { isOn: false, everyHours: 24, keep: 7, failed: null };

/** Takes backups by schedule and on demand, and keeps so many of them. */
@Injectable()
export class Backups {
  private readonly logger = new Logger('backups');

  constructor(
    private readonly pool: Pool,
    private readonly settings: SettingsService,
    private readonly live: LiveService,
    private readonly jobs: Jobs,
  ) {
    jobs.register('backup', { title: 'Backup', atOnce: 1, retry: [], run: () => this.takeNow() });
    jobs.register('backup-schedule', { title: 'Checking whether a backup is due', atOnce: 1, retry: [], run: () => this.lookWhetherDue() });
    jobs.every({ kind: 'backup-schedule' }, LOOK);
  }

  private async stored(): Promise<Stored> {
    return { ...usual, ...(await this.settings.get<Stored>(NAME)) };
  }

  /** Why the last backup could not be taken. */
  async failure(): Promise<Pick<BackupsAnswer, 'failed'>> {
    return { failed: (await this.stored()).failed };
  }

  /** Backups that are there, newest first. */
  private list(): BackupsAnswer['backups'] {
    if (!existsSync(config.backupFolder)) return [];
    return readdirSync(config.backupFolder)
      .filter(isBackupName)
      .map((name) => {
        const { size, mtime } = statSync(join(config.backupFolder, name));
        return { name, size, takenAt: mtime.toISOString() };
      })
      .sort((a, b) => (a.name < b.name ? 1 : -1));
  }

  async answer(): Promise<BackupsAnswer> {
    return { ...(await this.stored()), folder: config.backupFolder, running: await this.jobs.isUnderWay('backup'), backups: this.list() };
  }

  async save({ isOn, everyHours, keep }: BackupRequest): Promise<BackupsAnswer> {
    await this.settings.set(NAME, { ...(await this.stored()), isOn, everyHours, keep });
    await this.lookWhetherDue();
    return this.answer();
  }

  private async lookWhetherDue(): Promise<void> {
    const { isOn, everyHours, failed } = await this.stored();
    if (!isOn) return;
    const now = Date.now();
    if (failed && now - Date.parse(failed.at) < AFTER_FAILURE) return;
    const [last] = this.list();
    // A time that lies ahead comes from a clock that was set back.
    const age = last ? now - Date.parse(last.takenAt) : Infinity;
    if (age >= everyHours * HOUR || age < 0) await this.take();
  }

  /** Has a backup taken now, unless one is being taken. */
  async take(): Promise<void> {
    if (!(await this.jobs.isUnderWay('backup'))) await this.jobs.add({ kind: 'backup' });
  }

  private async takeNow(): Promise<void> {
    let failed: Stored['failed'] = null;
    try {
      mkdirSync(config.backupFolder, { recursive: true, mode: 0o700 });
      await this.pool.run('backup', { path: join(config.backupFolder, backupName(new Date())) });
      const { keep } = await this.stored();
      for (const { name } of this.list().slice(keep)) await rm(join(config.backupFolder, name), { force: true });
    } catch (error) {
      if (isMailbagError(error) && error.code === 'server-stops') throw error;
      const told = isMailbagError(error)
        ? error
        : new MailbagError('backup-failed', { path: config.backupFolder, why: (error as NodeJS.ErrnoException).code ?? String(error) });
      if (told !== error) this.logger.error(error);
      failed = { at: new Date().toISOString(), ...told.toJSON() };
    }
    await this.settings.set(NAME, { ...(await this.stored()), failed }).catch((error: unknown) => this.logger.error(error));
    this.live.notify('safety', 0);
  }

  /** @throws MailbagError not-found */
  async remove(name: string): Promise<BackupsAnswer> {
    if (!this.list().some((one) => one.name === name)) throw new MailbagError('not-found', { what: t`backup` });
    await rm(join(config.backupFolder, name), { force: true });
    return this.answer();
  }
}
