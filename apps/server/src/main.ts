import 'reflect-metadata';
import { isMailbagError } from '@mailbag/core/errors';
import { lockFolder } from '@mailbag/folder/lock';
import type { FolderLock } from '@mailbag/folder/lock';
import type { INestApplicationContext } from '@nestjs/common';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { RequestListener } from 'node:http';
import { config } from './platform/config.js';
import { FrontDoor } from './platform/front-door.js';
import { programLiesIn } from './platform/program.js';
import { guardTargets } from './platform/targets.js';
import { assertKey } from './safety/folder-key.js';

/** Milliseconds until a server that is told to stop is gone, whatever is under way. */
const LONGEST_STOP = 9500;
/** Milliseconds that requests which are being answered get when the server stops. */
const LAST_ANSWERS = 1500;

// What Mailbag writes is nobody else's: data, copies, keys.
process.umask(0o077);
programLiesIn(import.meta.url);
guardTargets();

const door = new FrontDoor();
let lock: FolderLock | null = null;
let app: (INestApplicationContext & { close(): Promise<void> }) | null = null;
let stopping = false;

/** No new work, what is under way finished or given back, streams ended, and out. The next start goes on by itself. */
async function stop(): Promise<void> {
  if (stopping) return;
  stopping = true;
  setTimeout(() => process.exit(0), LONGEST_STOP).unref();
  const closed = door.close(LAST_ANSWERS);
  await app?.close().catch((error: unknown) => console.error(error));
  await closed;
  lock?.release();
  process.exit(0);
}

/** The port first, then the folder, then what is in it: whoever starts a second time is told so before anything is touched, or even loaded. */
async function start(): Promise<void> {
  const port = await door.listen(config.port, config.host);
  lock = lockFolder(config.dataFolder);
  assertKey(config.dataFolder, config.newKey);
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => void stop());
  const [{ NestFactory }, { AppModule }, { setUpWeb }, { Jobs }] = await Promise.all([
    import('@nestjs/core'),
    import('./app.module.js'),
    import('./web-application.js'),
    import('./jobs/jobs.service.js'),
  ]);
  const made = await NestFactory.create<NestExpressApplication>(AppModule, {
    logger: ['error', 'warn'],
    abortOnError: false,
    // Bodies are read by the guard, once it knows who sends them.
    bodyParser: false,
  });
  app = made;
  setUpWeb(made);
  await made.init();
  if (stopping) return;
  await made.get(Jobs).open();
  door.open(made.getHttpAdapter().getInstance() as RequestListener);
  if (process.send) {
    process.send({ port });
    // Whoever started the server is gone, so nobody could end it any more.
    process.once('disconnect', () => void stop());
  } else console.log(`Mailbag listens on http://${config.host}:${port}`);
}

start().catch((error: unknown) => {
  console.error(isMailbagError(error) ? error.message : error);
  process.exit(1);
});
