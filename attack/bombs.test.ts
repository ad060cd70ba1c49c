import type { Bomb } from '../testing/bombs.js';
import { pdfBombs, sheetBombs } from '../testing/bombs.js';
import { RunningMailbag } from '../testing/running-mailbag.js';
import { longestWait, peakMegabytes } from '../testing/watching.js';

/** Of every format that is taken in, files that come to far more than their size: each ends with a sentence, in bounded time and memory, and nobody else waits. */
const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

const thrown = (bombs: readonly Bomb[]): readonly Bomb[] => bombs.filter(({ isTwin }) => !isTwin || process.env.ATTACK === 'whole');

/** Milliseconds and MB above what the server takes at rest. */
const LONGEST = 35_000;
const MOST_MEMORY = 700;

/** Memory that the server takes at most beyond that at its start, while something is done. */
async function measured<T>(work: () => Promise<T>): Promise<{ result: T; took: number; wait: number; memory: number }> {
  const peak = peakMegabytes(mailbag.pid);
  const from = Date.now();
  const done = work();
  const wait = await longestWait(mailbag.address, done);
  const result = await done;
  return { result, took: Date.now() - from, wait, memory: peak.stop() - peak.before };
}

const says = (error: unknown): string => (error instanceof Error ? error.message : String(error));

test.each(thrown(sheetBombs).map((bomb) => [bomb.what, bomb] as const))(
  '%s ends with a sentence or a bounded number of records',
  async (_, bomb) => {
    const bytes = await bomb.bytes();
    const { result, took, wait, memory } = await measured(async () => {
      let fileId: string;
      try {
        ({ fileId } = await mailbag.client.upload<{ fileId: string }>('/api/sources/files', bomb.file, bytes));
      } catch (error) {
        return says(error);
      }
      const { id } = await mailbag.client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: bomb.file, reading: {} });
      const source = await mailbag.client.until<Source>(`/api/sources/${id}`, ({ state }) => state !== 'reading');
      await mailbag.client.send('DELETE', `/api/sources/${id}`);
      return source.error?.message ?? `${source.count} records`;
    });
    expect(result).not.toMatch(/went wrong|: 500/);
    expect({ took: took < LONGEST || took, wait: wait < 1000 || wait, memory: memory < MOST_MEMORY || memory }).toEqual({
      took: true,
      wait: true,
      memory: true,
    });
    if (process.env.ATTACK_SAYS) console.log(bomb.what, { result, took, wait, memory });
  },
);

test.each(thrown(pdfBombs).map((bomb) => [bomb.what, bomb] as const))(
  'a PDF form with a bomb in it ends with a sentence or as a plain form: %s',
  async (_, bomb) => {
    const bytes = await bomb.bytes();
    const { result, took, wait, memory } = await measured(() =>
      mailbag.client
        .upload<{ template: { fields: number } }>('/api/templates', bomb.file, bytes)
        .then(({ template }) => `${template.fields} fields`, says),
    );
    expect(result).not.toMatch(/went wrong|: 500/);
    expect({ took: took < LONGEST || took, wait: wait < 1000 || wait, memory: memory < MOST_MEMORY || memory }).toEqual({
      took: true,
      wait: true,
      memory: true,
    });
    if (process.env.ATTACK_SAYS) console.log(bomb.what, { result, took, wait, memory });
  },
);

test('all the same, a form and a sheet that are none are read afterwards', async () => {
  const { fileId } = await mailbag.client.upload<{ fileId: string }>(
    '/api/sources/files',
    'fine.csv',
    new TextEncoder().encode('a,b\n1,2\n'),
  );
  const { id } = await mailbag.client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: 'fine', reading: {} });
  expect(await mailbag.client.until<Source>(`/api/sources/${id}`, ({ state }) => state !== 'reading')).toMatchObject({
    state: 'ready',
    count: 1,
  });
});

interface Source {
  state: string;
  count: number;
  error: { message: string } | null;
}
