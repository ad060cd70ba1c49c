import type { Comparison } from '@mailbag/core';
import { settle } from './settled-pairs';

const comparison: Comparison = {
  pairs: [
    { old: 'name', new: 'name', changes: [], sure: 1 },
    { old: 'town', new: 'city', changes: ['renamed'], sure: 0.9 },
    { old: 'phone', new: 'telephone', changes: ['renamed', 'limit'], sure: 0.8 },
    { old: 'code', new: 'number', changes: ['renamed'], sure: 0.4 },
  ],
  gone: ['fax'],
  added: ['mail'],
  likeness: 0.8,
};
const names = (pairs: { old: string }[]): string[] => pairs.map(({ old }) => old);

test('pairs are told apart by what changed; what is doubtful does not go along before a person has settled it', () => {
  const found = settle(comparison, new Map());
  expect([names(found.same), names(found.renamed), names(found.changed), names(found.doubtful)]).toEqual([
    ['name'],
    ['town'],
    ['phone'],
    ['code'],
  ]);
  expect(names(found.pairs)).toEqual(['name', 'town', 'phone']);
});
test('a pair that is settled as the same goes along', () => {
  const found = settle(comparison, new Map([['code', 'number']]));
  expect(found.doubtful).toEqual([]);
  expect(found.pairs).toContainEqual({ old: 'code', new: 'number' });
});
test('a pair that is settled as another is gone and new', () => {
  const found = settle(comparison, new Map([['code', null]]));
  expect([found.gone, found.added]).toEqual([
    ['fax', 'code'],
    ['mail', 'number'],
  ]);
  expect(names(found.pairs)).not.toContain('code');
});
test('one that is gone and one that is new are joined by hand', () => {
  const found = settle(comparison, new Map([['fax', 'mail']]));
  expect([found.gone, found.added]).toEqual([[], []]);
  expect(found.pairs).toContainEqual({ old: 'fax', new: 'mail' });
});
