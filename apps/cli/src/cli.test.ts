import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shedPermit } from '../../../demo/src/forms/shed-permit.js';
import { readByOther } from '../../../testing/other-reader.js';

const folder = mkdtempSync(join(tmpdir(), 'mailbag-cli-'));
const path = (name: string): string => join(folder, name);
const put = (name: string, content: string | Uint8Array): string => {
  writeFileSync(path(name), content);
  return path(name);
};
/** The built command, as a person calls it. */
const mailbag = (...args: string[]): { status: number | null; out: string; err: string } => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [join(process.cwd(), 'apps/cli/bin/mailbag.mjs'), ...args], {
    encoding: 'utf8',
  });
  return { status, out: stdout, err: stderr };
};
const form = put('permit.pdf', shedPermit());
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('inspect tells every field as JSON, and as lines for people', () => {
  const { status, out } = mailbag('inspect', form, '--json');
  expect(status).toBe(0);
  const fields = JSON.parse(out) as { name: string }[];
  expect(fields.find(({ name }) => name === 'permit.roof')).toMatchObject({
    type: 'combo',
    page: 1,
    maxLen: null,
    options: [
      { value: 'felt', label: 'Felt' },
      { value: 'green', label: 'Green roof' },
      { value: 'sheet', label: 'Corrugated sheet' },
    ],
    onStates: [],
    flags: [],
    value: null,
    alternateName: 'Roof',
    partialName: 'roof',
    label: 'Roof',
  });
  expect(mailbag('inspect', form).out).toContain('permit.plot\tPlot number\trequired, at most 8');
});

describe('fill', () => {
  const values = put(
    'values.json',
    JSON.stringify({ 'permit.plot': 'A-17', 'permit.name': 'Сергій Гончар', 'permit.shed': true, 'permit.roof': 'Green roof' }),
  );

  test.each(['flattened', 'locked', 'open'])('makes a copy that is %s, and read tells its values', async (finish) => {
    const out = path(`${finish}.pdf`);
    expect(mailbag('fill', form, '--values', values, '--out', out, '--finish', finish)).toMatchObject({ status: 0, err: '' });
    const read = mailbag('read', out, '--json');
    if (finish === 'flattened') {
      expect(read.status).toBe(1);
      expect(read.err).toContain('has no form fields');
      const [page] = await readByOther(new Uint8Array(readFileSync(out)));
      for (const text of ['A-17', 'Сергій Гончар', 'Green roof']) expect(page!.text).toContain(text);
    } else {
      expect(JSON.parse(read.out)).toMatchObject({
        values: {
          'permit.plot': 'A-17',
          'permit.name': 'Сергій Гончар',
          'permit.shed': 'On',
          'permit.roof': 'green',
          'permit.greenhouse': 'Off',
        },
      });
    }
  });

  test('with passwords: read needs the one that opens', () => {
    const out = path('locked-up.pdf');
    expect(
      mailbag(
        'fill',
        form,
        '--values',
        values,
        '--out',
        out,
        '--finish',
        'open',
        '--open-password',
        'pass',
        '--permissions-password',
        'office',
      ).status,
    ).toBe(0);
    expect(mailbag('read', out, '--json')).toMatchObject({ status: 1 });
    expect(JSON.parse(mailbag('read', out, '--json', '--password', 'pass').out)).toMatchObject({ values: { 'permit.plot': 'A-17' } });
  });

  test.each([
    [{ 'permit.plott': 'x' }, 'no field named “permit.plott”'],
    [{ 'permit.roof': 'Thatch' }, 'It accepts “Felt”, “Green roof”, “Corrugated sheet”'],
    [{ 'permit.plot': 'A-17 and more' }, 'takes 8 at most'],
    [{ 'permit.shed': 'perhaps' }, 'It accepts “On”'],
    [{ 'permit.name': '김 Kim' }, 'can draw “김”'],
    [{ 'permit.name': { first: 'Anneke' } }, 'neither text nor true or false'],
  ])('refuses %j, says why, and writes nothing', (wrong, why) => {
    const out = path('never.pdf');
    const { status, err } = mailbag('fill', form, '--values', put('wrong.json', JSON.stringify(wrong)), '--out', out);
    expect(err).toContain(why);
    expect(status).toBe(1);
    expect(existsSync(out)).toBe(false);
  });

  test('fills one copy a record of a sheet, named from its data', async () => {
    const sheet = put('people.csv', 'Plot,Tenant,Shed\nA-01,Anneke Duyvis,yes\nA-02,Łukasz Wrona,no\n');
    const map = put('map.json', JSON.stringify({ 'permit.plot': 'Plot', 'permit.name': 'Tenant', 'permit.shed': { kind: 'translate', column: 'Shed', table: [{ from: 'yes', to: 'On' }, { from: 'no', to: 'Off' }] } })); // prettier-ignore
    const out = path('copies');
    expect(mailbag('fill', form, '--records', sheet, '--map', map, '--out', out, '--name', '{{plot}}.pdf').status).toBe(0);
    expect(readdirSync(out).sort()).toEqual(['A-01.pdf', 'A-02.pdf']);
    expect((await readByOther(new Uint8Array(readFileSync(join(out, 'A-02.pdf')))))[0]!.text).toContain('Łukasz Wrona');
  });

  test('refuses a sheet with a value that has no translation, with its row, and makes no copy', () => {
    const sheet = put('doubt.csv', 'Plot,Shed\nA-01,yes\nA-02,perhaps\n');
    const map = put(
      'map2.json',
      JSON.stringify({ 'permit.shed': { kind: 'translate', column: 'Shed', table: [{ from: 'yes', to: 'On' }] } }),
    );
    const { status, err } = mailbag('fill', form, '--records', sheet, '--map', map, '--out', path('none'));
    expect(status).toBe(1);
    expect(err).toContain('Row 3: ');
    expect(existsSync(path('none'))).toBe(false);
  });
});

test.each([
  [['fill', 'x.pdf', '--finish', 'flat', '--values', 'v', '--out', 'o'], 'flattened, locked, open'],
  [['fill', 'x.pdf', '--out', 'o'], 'either --values or --records'],
  [['fill'], 'Name a file'],
  [['inspect', 'x.pdf', '--jason'], '--jason'],
  [['mend'], 'no command "mend"'],
])('a wrong call %j ends with 2 and says what is wrong', (args, why) => {
  const { status, err } = mailbag(...args);
  expect(err).toContain(why);
  expect(status).toBe(2);
});

test('a missing file and a file that is no form end with 1 and a sentence', () => {
  expect(mailbag('inspect', path('gone.pdf'))).toMatchObject({ status: 1, err: expect.stringContaining('There is no file') });
  expect(mailbag('inspect', put('letter.pdf', 'Dear'))).toMatchObject({
    status: 1,
    err: expect.stringContaining('letter.pdf is not a PDF'),
  });
});

describe('check', () => {
  const sheet = put('to-check.csv', 'Plot;Name;Area;Born\nA-17;Ada Quist;187,5;5.3.1984\nB-2;VERA VAN DER BERG;much;\n');
  const map = put(
    'rules-of-check.json',
    JSON.stringify({
      'permit.plot': 'Plot',
      'permit.name': { kind: 'shape', of: 'Name', letters: 'names' },
      'permit.conditions': { kind: 'arithmetic', do: 'product', of: ['Area', { number: '2' }], round: { decimals: 1, how: 'half-up' } },
    }),
  );

  test('tells of every record what stands in the way, in the shape that programs read', () => {
    const { status, out } = mailbag('check', form, '--records', sheet, '--map', map, '--json');
    expect(status).toBe(0);
    const told = JSON.parse(out) as { records: number; stop: number; findings: { severity: string }[] };
    expect(told.records).toBe(2);
    expect(told.stop).toBe(told.findings.filter(({ severity }) => severity === 'stop').length);
    expect(told.findings).toContainEqual({
      row: 3,
      column: 'Area',
      field: 'permit.conditions',
      check: 'computed',
      severity: 'stop',
      says: expect.stringContaining('“much” is not a number') as string,
      mend: null,
    });
  });

  test.each([
    [{ 'permit.plot': 'Parcel' }, /has no column "?Parcel/],
    [
      { 'permit.plot': { kind: 'shape', of: 'Plot', letters: 'shouted' } },
      /rule for “permit.plot” .* a part of the rule “shape” is missing/,
    ],
    [{ 'permit.none': 'Plot' }, /no field named “permit.none”/],
  ])('a map that cannot be is refused with the reason: %j', (given, why) => {
    const { status, err } = mailbag('check', form, '--records', sheet, '--map', put('bad.json', JSON.stringify(given)));
    expect({ status, err }).toEqual({ status: 1, err: expect.stringMatching(why) as string });
  });

  test('rules of every kind fill the same copies on the command line', async () => {
    const good = put('good.csv', 'Plot;Name;Area;Born\nA-17;ADA VAN DER QUIST;187,5;5.3.1984\n');
    expect(mailbag('fill', form, '--records', good, '--map', map, '--out', path('ruled'), '--name', '{{plot}}.pdf').status).toBe(0);
    const [page] = await readByOther(new Uint8Array(readFileSync(join(path('ruled'), 'A-17.pdf'))));
    const texts = page!.pieces.map(({ text }) => text);
    expect(texts).toEqual(expect.arrayContaining(['A-17', 'Ada van der Quist']));
    expect(texts.some((text) => /^375[.,]0$/.test(text))).toBe(true);
  });
});
