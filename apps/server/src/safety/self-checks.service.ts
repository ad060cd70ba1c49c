import type { SelfCheckAnswer } from '@mailbag/contract';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { LiveService } from '../live/live.service.js';
import { SettingsService } from '../settings/settings.service.js';
import { Pool } from '../work/pool.js';
import { Jobs } from '../jobs/jobs.service.js';

const NAME = 'self-check';

/** Looks whether the folder is whole: quickly at each start, by digests when somebody asks. */
@Injectable()
export class SelfChecks implements OnApplicationBootstrap {
  constructor(
    private readonly pool: Pool,
    private readonly settings: SettingsService,
    private readonly live: LiveService,
    private readonly jobs: Jobs,
  ) {
    jobs.register<{ thorough: boolean }>('self-check', {
      title: 'Checking whether the folder is whole',
      atOnce: 1,
      retry: [],
      run: ({ payload }) => this.look(payload.thorough),
    });
  }

  onApplicationBootstrap(): Promise<void> {
    return this.run(false);
  }

  async answer(): Promise<SelfCheckAnswer> {
    return { running: await this.jobs.isUnderWay('self-check'), last: await this.settings.get<SelfCheckAnswer['last']>(NAME) };
  }

  /** Has it looked. @param thorough also compares every digest */
  run(thorough: boolean): Promise<void> {
    return this.jobs.add({ kind: 'self-check', payload: { thorough }, merge: (a, b) => ({ thorough: a.thorough || b.thorough }) });
  }

  private async look(thorough: boolean): Promise<void> {
    await this.settings.set(NAME, await this.pool.run('selfCheck', { thorough }));
    this.live.notify('safety', 0);
  }
}
