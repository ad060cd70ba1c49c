import { createHash } from 'node:crypto';
import { keyDigests, valueDigests } from './record-digest.js';

/** Digests stand in folders of earlier versions: what they are made of must never change, or everybody would run once more. */
const cells = ['P-1', 'Zoë'].map((text) => ({ text, value: text }));
const columns = [{ name: 'Plot' }, { name: 'Name' }];
const first32 = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 32);

test('the digest of a key, and of values, is that of their lengths and texts behind the salt', () => {
  expect(keyDigests('salt', columns, 'Plot')({ row: 2, cells })).toBe(first32('salt3:key3:p-1'));
  expect(valueDigests('salt', columns, ['Name', 'Plot'])({ row: 2, cells })).toBe(first32('salt6:values3:Zoë3:P-1'));
});
