import type { ChangedAnswer, CorrectionAnswer, RecordViewAnswer, RecordsAnswer } from '@mailbag/contract';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';

/** Records as they are ordered and narrowed, and many of them changed at once. */
const mailbag = new RunningMailbag();
let source: number;
const rows = [
  ['P-10', 'Ölund', '9', '2027-03-01'],
  ['P-9', 'oak', '100', '2026-12-31'],
  ['P-2', '', '20', ''],
  ['P-1', 'Zoë', '', '2027-01-15'],
  ['P-3', 'Oak', '-5', '2027-01-02'],
];
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  const csv = `Plot,Name,Rent,Since\r\n${rows.map((row) => row.join(',')).join('\r\n')}\r\n`;
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/sources/files', 'rows.csv', new TextEncoder().encode(csv));
  const made = await mailbag.client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name: 'rows.csv', reading: { headingRow: 1 } }); // prettier-ignore
  source = made.id;
  await mailbag.client.until<{ state: string }>(`/api/sources/${source}`, ({ state }) => state === 'ready');
});
afterAll(() => mailbag.close());
const plots = async (query: string): Promise<string> => {
  const { ordinals } = await mailbag.client.get<RecordViewAnswer>(`/api/sources/${source}/view?${query}`);
  if (ordinals.length === 0) return '';
  const { records } = await mailbag.client.get<RecordsAnswer>(`/api/sources/${source}/records-at?at=${ordinals.join()}`);
  return records.map(({ cells }) => cells[0]!.text).join(' ');
};

test.each([
  ['numbers within texts by their value', 'order=Plot', 'P-1 P-2 P-3 P-9 P-10'],
  ['numbers as numbers, what is empty last', 'order=Rent', 'P-3 P-10 P-2 P-9 P-1'],
  ['and last as well the other way round', 'order=Rent&down=yes', 'P-9 P-2 P-10 P-3 P-1'],
  ['days as days', 'order=Since', 'P-9 P-3 P-1 P-10 P-2'],
  // Root collation of the Unicode Collation Algorithm (UTS 10): letters before their marks and cases; equal ones as they come.
  ['texts as a dictionary has them', 'order=Name', 'P-9 P-3 P-10 P-1 P-2'],
  ['what holds a text, in any column', 'text=oak', 'P-9 P-3'],
  ['what holds it in one column', 'text=9&column=Rent', 'P-10'],
  ['what is empty in a column', 'only=empty&column=Name', 'P-2'],
  ['what is empty anywhere', 'only=empty', 'P-2 P-1'],
  ['what is filled in, ordered', 'only=filled&column=Name&order=Plot&down=yes', 'P-10 P-9 P-3 P-1'],
  ['nothing', 'text=nobody', ''],
])('%s', async (_, query, expected) => {
  expect(await plots(query)).toBe(expected);
});
test('a column that is not there is named', async () => {
  await expect(plots('order=Weir')).rejects.toThrow('Weir');
});

test('many values are changed in one step, the corrected are found, and the step is undone as one', async () => {
  const { client } = mailbag;
  const { changed, step } = await client.send<ChangedAnswer>('POST', `/api/sources/${source}/corrections/many`, {
    changes: [
      { row: 2, column: 'Name', value: 'first' },
      { row: 2, column: 'Name', value: 'Ada' },
      { row: 2, column: 'Rent', value: '12' },
      { row: 5, column: 'Name', value: 'Zoë' },
      { row: 4, column: 'Name', value: 'Bo' },
    ],
  });
  // Of two changes of one cell the last holds, and what is so already is no change.
  expect(changed).toBe(3);
  expect(await plots('only=corrected')).toBe('P-10 P-2');
  const corrections = await client.get<CorrectionAnswer[]>(`/api/sources/${source}/corrections`);
  expect(corrections.map(({ was, value, recordKey }) => [was, value, recordKey]).sort()).toEqual([
    ['', 'Bo', 'p-2'],
    ['9', '12', 'p-10'],
    ['Ölund', 'Ada', 'p-10'],
  ]);
  await client.send('DELETE', `/api/sources/${source}/steps/${step}`);
  expect([await plots('only=corrected'), await plots('text=Ölund')]).toEqual(['', 'P-10']);
});
test('all or none: where one of the values has no place, none is changed', async () => {
  const changes = [
    { row: 2, column: 'Name', value: 'x' },
    { row: 99, column: 'Name', value: 'y' },
  ];
  await expect(mailbag.client.send('POST', `/api/sources/${source}/corrections/many`, { changes })).rejects.toThrow();
  expect(await plots('text=Ölund')).toBe('P-10');
});

test('as much as can be pasted is taken in one step, with texts of a usual length', async () => {
  const value = 'Allotment by the weir, second gate, '.repeat(3);
  const changes = Array.from({ length: 10_000 }, () => ({ row: 4, column: 'Name', value }));
  const { changed, step } = await mailbag.client.send<ChangedAnswer>('POST', `/api/sources/${source}/corrections/many`, { changes });
  expect(changed).toBe(1);
  await mailbag.client.send('DELETE', `/api/sources/${source}/steps/${step}`);
});

test('a text is replaced in one column or in all, in part or as a whole, and undone as one step', async () => {
  const replace = (what: object): Promise<ChangedAnswer> =>
    mailbag.client.send<ChangedAnswer>('POST', `/api/sources/${source}/replacements`, {
      replace: '',
      column: null,
      isWhole: false,
      ...what,
    });
  const { changed, step } = await replace({ find: 'P-', replace: '$&-' });
  expect([changed, await plots('order=Plot')]).toEqual([5, '$&-1 $&-2 $&-3 $&-9 $&-10']);
  await mailbag.client.send('DELETE', `/api/sources/${source}/steps/${step}`);
  expect((await replace({ find: '9', isWhole: true, replace: '8' })).changed).toBe(1);
  expect((await replace({ find: '8', column: 'Plot' })).changed).toBe(0);
});
