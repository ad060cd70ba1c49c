import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { MailbagError } from '@mailbag/core';
import { Piscina } from 'piscina';
import { config } from '../platform/config.js';
import type { TaskName, TaskResult, Tasks } from './tasks.js';

/** Worker threads for everything that computes for long. */
@Injectable()
export class Pool implements OnApplicationShutdown {
  private readonly piscina = new Piscina({
    filename: new URL('./worker.js', import.meta.url).href,
    minThreads: 1,
    maxThreads: config.threads,
    idleTimeout: 30_000,
    resourceLimits: { maxOldGenerationSizeMb: 1024 },
  });

  /** @throws MailbagError as the task does */
  async run<Name extends TaskName>(name: Name, input: Tasks[Name]['input']): Promise<Tasks[Name]['output']> {
    const result = (await this.piscina.run({ name, input })) as TaskResult<Tasks[Name]['output']>;
    if (!result.ok) throw new MailbagError(result.code, result.fields);
    return result.output;
  }

  async onApplicationShutdown(): Promise<void> {
    await this.piscina.destroy();
  }
}
