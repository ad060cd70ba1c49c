import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { KEY } from '@mailbag/folder/layout';
import { config } from '../platform/config.js';
import { forgetKey } from '../platform/secret-box.js';
import { codeOfToken, copyPlace, personalLink } from './personal-link.js';

const folder = mkdtempSync(join(tmpdir(), 'mailbag-key-'));
const before = config.dataFolder;
const withKey = (byte: number): void => {
  writeFileSync(join(folder, KEY), Buffer.alloc(32, byte));
  forgetKey();
};
beforeAll(() => void (config.dataFolder = folder));
beforeEach(() => withKey(7));
afterAll(() => {
  config.dataFolder = before;
  forgetKey();
  rmSync(folder, { recursive: true });
});

const place = { at: 'https://forms.example.org/in/check', intakeId: 3, round: 1 };
const CODE = '4KQ8-ZT0V-7QX';
const tokenOf = (link: string): string => link.split('#')[1]!;

test('a link says whose it is behind the # alone, and is the same each time it is made', () => {
  const link = personalLink(place, CODE);
  expect(link).toMatch(/^https:\/\/forms\.example\.org\/in\/check#4KQ8-ZT0V-7QX\.[\w-]{22}$/);
  expect(personalLink(place, CODE)).toBe(link);
  expect(codeOfToken(place, tokenOf(link))).toBe(CODE);
});

test.each([
  ['another intake', { ...place, intakeId: 4 }],
  ['a later round, since earlier links are to hold no longer', { ...place, round: 2 }],
])('it does not hold for %s', (_, other) => expect(codeOfToken(other, tokenOf(personalLink(place, CODE)))).toBeNull());

test('it does not hold in another folder', () => {
  const token = tokenOf(personalLink(place, CODE));
  withKey(8);
  expect(codeOfToken(place, token)).toBeNull();
});

test.each([
  ['no seal', CODE],
  ['an empty one', `${CODE}.`],
  ['nothing', ''],
  ['a short seal', `${CODE}.abc`],
  ['letters beyond ASCII', `${CODE}.${'ä'.repeat(22)}`],
])('%s is no link', (_, token) => expect(codeOfToken(place, token)).toBeNull());

test('what a copy is told holds its link only where the mailing has such', () => {
  const batch = { batch: 4, today: '2027-01-02', locale: 'en-GB', zone: 'UTC' };
  expect(copyPlace(batch, place, 0, CODE)).toMatchObject({ number: 1, code: CODE, link: personalLink(place, CODE) });
  expect(copyPlace(batch, undefined, 0, CODE)).not.toHaveProperty('link');
});
