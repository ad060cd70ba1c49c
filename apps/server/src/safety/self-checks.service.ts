import type { SelfCheckAnswer } from '@mailbag/contract';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { isMailbagError } from '@mailbag/core';
import { LiveService } from '../live/live.service.js';
import { SettingsService } from '../settings/settings.service.js';
import { Pool } from '../work/pool.js';

const NAME = 'self-check';

/** Looks whether the folder is whole: quickly at each start, by digests when somebody asks. */
@Injectable()
export class SelfChecks implements OnApplicationBootstrap {
  private readonly logger = new Logger('self-check');
  private running: Promise<void> | null = null;

  constructor(
    private readonly pool: Pool,
    private readonly settings: SettingsService,
    private readonly live: LiveService,
  ) {}

  onApplicationBootstrap(): void {
    void this.run(false);
  }

  async answer(): Promise<SelfCheckAnswer> {
    return { running: this.running !== null, last: await this.settings.get<SelfCheckAnswer['last']>(NAME) };
  }

  /** @param thorough also compares every digest */
  run(thorough: boolean): Promise<void> {
    this.running ??= this.look(thorough)
      .catch((error: unknown) => {
        if (!isMailbagError(error) || error.code !== 'server-stops') this.logger.error(error);
      })
      .finally(() => {
        this.running = null;
        this.live.tell('safety', 0);
      });
    return this.running;
  }

  private async look(thorough: boolean): Promise<void> {
    await this.settings.set(NAME, await this.pool.run('selfCheck', { thorough }));
  }
}
