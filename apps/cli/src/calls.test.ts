import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shedPermit } from '../../../demo/src/forms/shed-permit.js';

/** How the command is called, rightly and wrongly: 0 done, 1 refused with nothing written, 2 called wrongly; answers on standard output, all else beside it. */
const folder = mkdtempSync(join(tmpdir(), 'mailbag-calls-'));
const put = (name: string, content: string | Uint8Array): string => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const mailbag = (...args: string[]): { status: number | null; out: string; err: string } => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(process.cwd(), 'apps/cli/bin/mailbag.mjs'), ...args], {
    encoding: 'utf8',
  });
  return { status, out: stdout, err: stderr };
};
const form = put('permit.pdf', shedPermit());
const sheet = put('rows.csv', 'Plot;Name;Since\r\nA-1;Zoë Quist;01.02.2027\r\nA-2;Łucja Brand;15.03.2027\r\n');
const values = put('values.json', JSON.stringify({ 'permit.plot': 'A-1' }));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const commands = ['inspect', 'questions', 'blanks', 'compare', 'layout', 'fill', 'read', 'records', 'backup', 'restore', 'check-folder'];

test.each(commands)('%s --help says how it is called and what it does', (command) => {
  const { status, out, err } = mailbag(command, '--help');
  expect([status, err]).toEqual([0, '']);
  expect(out).toMatch(new RegExp(`^mailbag ${command} `));
  expect(out.split('\n').filter(Boolean).length).toBeGreaterThan(1);
});

test('without a command, and with one that there is none of, every command is named', () => {
  for (const args of [[], ['frobnicate'], ['toString']]) {
    const { status, out, err } = mailbag(...args);
    expect([status, out]).toEqual([2, '']);
    for (const command of commands) expect(err).toContain(`mailbag ${command} `);
  }
  expect(mailbag('--help').status).toBe(0);
});

test.each<[string, string[], RegExp]>([
  ['no file', ['inspect'], /Name a file/],
  ['two files', ['inspect', form, form], /One file at a time, not 2/],
  ['an option that is not known', ['inspect', form, '--xml'], /--xml/],
  ['values and records both', ['fill', form, '--values', values, '--records', sheet, '--out', 'x'], /values|records/],
  ['neither of them', ['fill', form, '--out', 'x'], /values|records/],
  ['nowhere to write', ['fill', form, '--values', values], /Say with --out/],
  [
    'a finish that there is none of',
    ['fill', form, '--values', values, '--out', 'x', '--finish', 'signed'],
    /--finish is one of .*, not "signed"/,
  ],
  ['a row that is none', ['records', sheet, '--headings', '0'], /number of a row, from 1, not "0"/],
])('%s: called wrongly, with how it is called rightly', (_, args, why) => {
  const { status, out, err } = mailbag(...args);
  expect([status, out]).toEqual([2, '']);
  expect(err).toMatch(why);
  expect(err).toContain(`mailbag ${args[0]} `);
});

test.each<[string, string[], RegExp]>([
  ['a file that is not there', ['inspect', join(folder, 'gone.pdf')], /There is no file/],
  ['a folder', ['inspect', folder], /is a folder/],
  ['values that are no JSON', ['fill', form, '--values', sheet, '--out', join(folder, 'no.pdf')], /is not JSON/],
  ['a folder that is no data folder', ['check-folder', '--data', folder], /./],
])('%s: refused with a sentence, and nothing is written', (_, args, why) => {
  const before = readdirSync(folder).sort();
  const { status, out, err } = mailbag(...args);
  expect([status, out]).toEqual([1, '']);
  expect(err).toMatch(why);
  expect(err).not.toMatch(/\n {4}at /);
  expect(readdirSync(folder).sort()).toEqual(before);
});

test('records are told as lines for people and as JSON for programs, what is odd beside them', () => {
  const lines = mailbag('records', sheet);
  expect(lines.status).toBe(0);
  expect(lines.out).toBe('Plot\tName\tSince\nA-1\tZoë Quist\t01.02.2027\nA-2\tŁucja Brand\t15.03.2027\n');
  expect(lines.err).toContain('2 records, 3 columns: Plot (');
  const json = JSON.parse(mailbag('records', sheet, '--json').out) as {
    columns: { name: string }[];
    records: { text: string; value: unknown }[][];
    notes: string[];
  };
  expect(json.columns.map(({ name }) => name)).toEqual(['Plot', 'Name', 'Since']);
  expect(json.records[0]![2]).toEqual({ text: '01.02.2027', value: '2027-02-01' });
  expect(json.notes).toEqual([]);
});

test('inspect tells where each label comes from and what it stands under', () => {
  const fields = JSON.parse(mailbag('inspect', form, '--json').out) as {
    name: string;
    label: string;
    labelFrom: string;
    section: string | null;
  }[];
  expect(fields.every(({ labelFrom, label }) => ['print', 'tooltip', 'name'].includes(labelFrom) && label !== '')).toBe(true);
  expect(fields.find(({ name }) => name === 'permit.plot')).toMatchObject({ label: 'Plot number', section: 'Who and where' });
  expect(fields.find(({ name }) => name === 'permit.roof')).toMatchObject({
    label: 'Roof',
    labelFrom: 'print',
    section: 'What is allowed',
  });
});

test('whoever reads only the beginning of an answer breaks nothing', () => {
  const { status, stderr } = spawnSync(
    'sh',
    ['-c', `"${process.execPath}" apps/cli/bin/mailbag.mjs inspect "${form}" --json | head -c 20 > /dev/null`],
    { encoding: 'utf8' },
  );
  expect([status, stderr]).toEqual([0, '']);
});

/** A page with a line to write on and a box to tick, without fields. */
const flat = put(
  'flat.pdf',
  new TextEncoder().encode(
    [
      '%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj 2 0 obj<</Type/Pages/Count 1/Kids[3 0 R]>>endobj',
      '3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Contents 4 0 R/Resources<</Font<</F 5 0 R>>>>>>endobj',
      '5 0 obj<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>endobj',
      '4 0 obj<</Length 146>>stream\nBT /F 9 Tf 20 150 Td (Plot number) Tj ET 80 148 m 200 148 l S 20 100 9 9 re S BT /F 9 Tf 34 101 Td (Water is wanted) Tj ET BT /F 9 Tf 20 40 Td (-) Tj ET\nendstream endobj',
      'trailer<</Root 1 0 R>>\n%%EOF',
    ].join('\n'),
  ),
);

test('questions tells what a person would be asked, and why the rest is left', () => {
  const { status, out } = mailbag('questions', form);
  const told = JSON.parse(out) as {
    questions: { question: string; kind: string; fields: { form: number; name: string; piece: string | null }[] }[];
    left: unknown[];
  };
  expect(status).toBe(0);
  expect(told.questions.flatMap(({ fields }) => fields.map(({ name }) => name))).toContain('permit.plot');
  expect(new Set(told.questions.map(({ question }) => question)).size).toBe(told.questions.length);
});

test('blanks of a flat form, named and given to layout, are fields that compare finds again', () => {
  const found = mailbag('blanks', flat);
  expect(found.status).toBe(0);
  const blanks = JSON.parse(found.out) as { kind: string; label: string }[];
  expect(blanks.map(({ kind, label }) => [kind, label])).toEqual([['text', 'Plot number'], ['checkbox', 'Water is wanted']]); // prettier-ignore
  const fields = put('fields.json', JSON.stringify(blanks.map((blank, index) => ({ ...blank, name: `f${index}` }))));
  const renamed = put('renamed.json', JSON.stringify(blanks.map((blank, index) => ({ ...blank, name: `g${index}` }))));
  const [first, second] = [join(folder, 'first.pdf'), join(folder, 'second.pdf')];
  expect(mailbag('layout', flat, '--fields', fields, '--out', first)).toMatchObject({ status: 0, err: '2 fields written.\n' });
  expect(mailbag('layout', flat, '--fields', renamed, '--out', second).status).toBe(0);
  expect(JSON.parse(mailbag('compare', first, second).out)).toEqual({
    pairs: [
      { old: 'f0', new: 'g0', changes: ['renamed'] },
      { old: 'f1', new: 'g1', changes: ['renamed'] },
    ],
    gone: [],
    added: [],
  });
});

test('layout writes nothing where a field cannot be drawn, and says which', () => {
  const bad = put('bad.json', JSON.stringify([{ name: 'far', kind: 'text', page: 1, rect: [900, 10, 950, 20] }]));
  const { status, err } = mailbag('layout', flat, '--fields', bad, '--out', join(folder, 'never.pdf'));
  expect([status, err]).toEqual([1, '“far” lies outside page 1. Move it onto the page.\n']);
  expect(readdirSync(folder).filter((one) => one.startsWith('never'))).toEqual([]);
});
test('compare wants two files', () => {
  expect(mailbag('compare', form).status).toBe(2);
});
