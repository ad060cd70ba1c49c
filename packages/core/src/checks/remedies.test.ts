import { parseRule } from '../map/registry.js';
import type { FillRule } from '../map/registry.js';
import type { Finding } from './finding.js';
import { remediesOf, remedied } from './remedies.js';

const site: FillRule = { kind: 'column', column: 'Site' };
const finding = (details: Finding['details']): Finding => ({
  code: 'overflows', severity: 'look', row: 2, column: 'Site', template: 0, field: 'a', label: 'Site', value: 'North', details,
}); // prettier-ignore
const long = finding({ lost: 'th', length: 5, limit: 3, remedies: { smaller: 4.3, wrap: true } });

test('what helps is offered, best first, and each leads to a rule that can be read', () => {
  expect(remediesOf(long, site)).toEqual(['smaller', 'wrap', 'shorten']);
  const made = remediesOf(long, site).map((remedy) => remedied(site, remedy, long));
  expect(made).toEqual([
    { kind: 'fitted', of: site, tooLong: 'shrink', smallest: 4 },
    { kind: 'fitted', of: site, tooLong: 'wrap', smallest: 5 },
    { kind: 'shorten', of: site, to: 3, at: 'word', mark: '' },
  ]);
  for (const rule of made) expect(parseRule(rule)).toEqual({ rule, fault: null });
});

test('one remedy after another is put together, not nested', () => {
  const wrapped = remedied(site, 'wrap', long);
  const smaller = remedied(wrapped, 'smaller', long);
  expect(smaller).toEqual({ kind: 'fitted', of: site, tooLong: 'shrink', smallest: 4 });
  const short = remedied(smaller, 'shorten', long);
  expect(short).toEqual({ kind: 'fitted', of: { kind: 'shorten', of: site, to: 3, at: 'word', mark: '' }, tooLong: 'shrink', smallest: 4 });
  expect(remedied(short, 'shorten', finding({ limit: 2 }))).toMatchObject({ of: { kind: 'shorten', of: site, to: 2 } });
});

test('nothing is offered that does not help', () => {
  expect(remediesOf(finding({ lost: 'North', length: 5, limit: 0, remedies: { smaller: null, wrap: false } }), site)).toEqual([]);
  expect(remediesOf(finding({ characters: ['Entry L'] }), site)).toEqual([]);
  expect(remediesOf(long, { kind: 'piece', of: site, box: { piece: { what: 'characters', from: 1, to: 2 }, isLast: true } })).toEqual([]);
  expect(remediesOf(long, undefined)).toEqual([]);
});
