import { dirname } from 'node:path';
import type { TableExcerpt, TemplateDescription } from '@mailbag/core';
import { formOf } from '../../../../testing/raw-form.js';
import { ownDatabase } from '../../../../testing/own-database.js';
import { fileKey } from '../files/file-key.js';
import { put } from '../files/files.js';
import { config } from '../platform/config.js';
import type { TaskResult } from '../work/tasks.js';
import { paperWish } from './paper-wish.js';
import { choose } from './who-runs.js';
import work from './worker.js';

jest.mock('../platform/targets.js', () => ({ guardTargets: () => undefined }));

const before = config.dataFolder;
let close: () => Promise<void>;
beforeAll(async () => {
  const own = await ownDatabase();
  close = own.close;
  config.dataFolder = dirname(own.database.options.database as string);
});
afterAll(async () => {
  await close();
  config.dataFolder = before;
});

test('a thread is given the key of a file and answers what is in it', async () => {
  const key = fileKey('spool', 'upload-1');
  await put(key, formOf(['/FT/Tx/T(plot)/Rect[10 60 110 80]']));
  const inspected = (await work({ name: 'inspect', input: { key, file: 'form.pdf' } })) as TaskResult<TemplateDescription>;
  expect(inspected).toMatchObject({ ok: true, output: { fields: [{ name: 'plot' }] } });
  const sheet = fileKey('sources', 'upload-2');
  await put(sheet, 'Plot,Name\r\nA-1,Ada\r\n');
  const read = (await work({ name: 'excerpt', input: { key: sheet, file: 'rows.csv', reading: {} } })) as TaskResult<TableExcerpt>;
  expect(read.ok && JSON.stringify(read.output)).toContain('A-1');
});

test('what is wrong with what it was given comes back as an error of the catalogue; what is wrong with us is thrown', async () => {
  const key = fileKey('spool', 'upload-3');
  await put(key, 'no form at all');
  expect(await work({ name: 'inspect', input: { key, file: 'letter.txt' } })).toEqual({
    ok: false,
    code: 'pdf-not-a-pdf',
    fields: { file: 'letter.txt' },
  });
  expect(await work({ name: 'inspect', input: { key: 'spool/gone', file: 'x.pdf' } })).toMatchObject({ ok: false, code: 'file-gone' });
  await expect(work({ name: 'nothing' as never, input: null as never })).rejects.toThrow();
});

test('who asks for paper is known by the values that say so, whatever their case', () => {
  const columns = [{ name: 'Name' }, { name: 'By post' }];
  const paper = { wantsColumn: 'By post', wantsValues: ['Yes', ' please '] } as never;
  const record = (...texts: string[]) => ({ row: 2, cells: texts.map((text) => ({ text, value: text })) });
  const wishes = paperWish({ paper }, columns);
  expect([wishes(record('Ada', 'YES')), wishes(record('Ada', 'please')), wishes(record('Ada', 'no')), wishes(record('Ada', ' '))]).toEqual([
    true,
    true,
    false,
    false,
  ]);
  expect(paperWish({ paper: null }, columns)(record('Ada', 'yes'))).toBe(false);
  expect(paperWish({ paper: { wantsColumn: 'Gone', wantsValues: ['yes'] } as never }, columns)(record('Ada', 'yes'))).toBe(false);
});

test.each([
  ['new', [null, 'has-one', 'has-one', null]],
  ['changed', ['none-yet', null, 'unchanged', 'none-yet']],
  ['selection', [null, 'not-selected', 'not-selected', 'not-selected']],
  ['everybody', [null, null, null, null]],
] as const)('whoever chooses “%s” gets those records and knows of the others why not', (who, expected) => {
  const candidate = (row: number, hasOne: boolean, isChanged: boolean) =>
    ({ record: { row, cells: [] }, hasOne, isChanged, ordinal: row - 2, key: String(row), values: '' }) as never;
  const why = choose({ who, rows: [2] } as never);
  expect([candidate(2, false, false), candidate(3, true, true), candidate(4, true, false), candidate(5, false, false)].map(why)).toEqual(
    expected,
  );
});
