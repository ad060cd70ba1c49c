import { RunningMailbag } from '../testing/running-mailbag.js';

/** A file whose reading ends with the server is tried a second time, and then left to a person: it must not bring the server down at every start. */
const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

interface Source {
  state: string;
  count: number;
  progress: number;
  error: { code: string; message: string } | null;
}
const ROWS = 200_000;
const rows = (from: number): Uint8Array =>
  new TextEncoder().encode(`Plot,Name\n${Array.from({ length: ROWS }, (_, at) => `P-${from + at},Tenant ${from + at}`).join('\n')}\n`);
let id: number;
const source = (): Promise<Source> => mailbag.client.get(`/api/sources/${id}`);
/** How often a reading is said to have been tried, asked while no server runs. */
function triedBeside(): number {
  const database = mailbag.beside();
  const { attempts } = database.prepare('SELECT attempts FROM source WHERE id = ?').get(id) as { attempts: number };
  database.close();
  return attempts;
}
const isUnderWay = ({ state, progress }: Source): boolean => state === 'reading' && progress > 0;

test('a reading that a kill broke off begins again, twice; then it says so and waits for a person', async () => {
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/sources/files', 'rows.csv', rows(0));
  ({ id } = await mailbag.client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: 'rows.csv', reading: {} }));
  for (let kills = 0; kills < 2; kills++) {
    await mailbag.client.until<Source>(`/api/sources/${id}`, isUnderWay);
    await mailbag.kill();
    await mailbag.startAgain();
  }
  expect(await source()).toMatchObject({ state: 'failed', count: 0, error: { code: 'source-reading-breaks-off' } });
  expect((await source()).error!.message).toMatch(/stopped 2 times while it read “rows.csv”/);
});

test('a person can have it read again, and a stop in peace is no failure of the file', async () => {
  await mailbag.client.send('PUT', `/api/sources/${id}/reading`, {});
  for (let stops = 0; stops < 3; stops++) {
    await mailbag.client.until<Source>(`/api/sources/${id}`, isUnderWay);
    await mailbag.stop();
    expect(triedBeside()).toBe(0);
    await mailbag.startAgain();
  }
  expect(await mailbag.client.until<Source>(`/api/sources/${id}`, ({ state }) => state !== 'reading')).toMatchObject({
    state: 'ready',
    count: ROWS,
    error: null,
  });
});

test('a new reading that is broken off for good leaves the records of the one before', async () => {
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/sources/files', 'later.csv', rows(ROWS));
  await mailbag.client.send('PUT', `/api/sources/${id}/reading`, { fileIds: [fileId] });
  for (let kills = 0; kills < 2; kills++) {
    await mailbag.client.until<Source>(`/api/sources/${id}`, isUnderWay);
    await mailbag.kill();
    await mailbag.startAgain();
  }
  expect(await source()).toMatchObject({ state: 'ready', count: ROWS, error: { code: 'source-reading-breaks-off' } });
  const { records } = await mailbag.client.get<{ records: { cells: { text: string }[] }[] }>(
    `/api/sources/${id}/records?from=${ROWS - 1}&count=1`,
  );
  expect(records[0]!.cells[0]!.text).toBe(`P-${ROWS - 1}`);
});
