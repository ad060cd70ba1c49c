import { setTimeout as pause } from 'node:timers/promises';
import { pathToFileURL } from 'node:url';
import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import { waitingForTurn } from './writers-turn.js';

test('a thread that writes block after block lets a change of the server go first, and goes on afterwards', async () => {
  const blocks = new Int32Array(new SharedArrayBuffer(4));
  // As built: a thread cannot load what the tests compile.
  const built = pathToFileURL(resolve('apps/server/dist/persistence/writers-turn.js')).href;
  const thread = new Worker(
    `const { workerData: blocks } = require('node:worker_threads');
     import(${JSON.stringify(built)}).then(({ letOthersFirst }) => {
       for (;;) {
         letOthersFirst();
         Atomics.add(blocks, 0, 1);
         Atomics.wait(blocks, 0, -1, 1);
       }
     });`,
    { eval: true, workerData: blocks },
  );
  const isWriting = async (): Promise<void> => {
    const before = Atomics.load(blocks, 0);
    while (Atomics.load(blocks, 0) < before + 5) await pause(5);
  };
  try {
    await isWriting();
    const written = await waitingForTurn(async () => {
      await pause(10);
      const before = Atomics.load(blocks, 0);
      await pause(150);
      return Atomics.load(blocks, 0) - before;
    });
    // Its patience has an end, so one may pass where the machine stalls; without a turn there would be a hundred.
    expect(written).toBeLessThan(5);
    await isWriting();
  } finally {
    await thread.terminate();
  }
});
