import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { config } from './config.js';
import { sealedFor, targetOf } from './stored-secret.js';
import { derivedSeed, forgetKey, seal, unseal } from './secret-box.js';

const before = config.dataFolder;
const useKey = (bytes: Buffer): void => {
  writeFileSync(join(config.dataFolder, 'secret.key'), bytes);
  forgetKey();
};
beforeAll(() => {
  config.dataFolder = mkdtempSync(join(tmpdir(), 'mailbag-secrets-'));
  useKey(randomBytes(32));
});
afterAll(() => {
  rmSync(config.dataFolder, { recursive: true });
  config.dataFolder = before;
  forgetKey();
});

test.each(['', 'plots-and-paths', 'ünïcødé 名前 👍🏽', 'x'.repeat(10_000), '\u0000'])('what was sealed is opened again: %#', (secret) => {
  expect(unseal(seal(secret))).toBe(secret);
});

test('the same secret never looks the same, and what is kept tells nothing of it', () => {
  const sealed = Array.from({ length: 50 }, () => seal('plots-and-paths'));
  expect(new Set(sealed).size).toBe(50);
  for (const one of sealed) expect(Buffer.from(one, 'base64').toString('latin1')).not.toContain('plots');
});

test('every changed byte is found (NIST SP 800-38D: the tag covers nonce and text)', () => {
  const bytes = Buffer.from(seal('plots-and-paths'), 'base64');
  for (let at = 0; at < bytes.length; at++) {
    const changed = Buffer.from(bytes);
    changed[at]! ^= 1;
    expect(() => unseal(changed.toString('base64'))).toThrow();
  }
  expect(() => unseal('')).toThrow();
  expect(() => unseal('not base64 at all')).toThrow();
});

test('another key opens nothing, and derives other seeds', () => {
  const sealed = seal('plots-and-paths');
  const seed = derivedSeed('copies');
  expect(seed).toHaveLength(32);
  expect(Buffer.from(derivedSeed('copies')).equals(Buffer.from(seed))).toBe(true);
  expect(Buffer.from(derivedSeed('tokens')).equals(Buffer.from(seed))).toBe(false);
  useKey(randomBytes(32));
  expect(() => unseal(sealed)).toThrow();
  expect(Buffer.from(derivedSeed('copies')).equals(Buffer.from(seed))).toBe(false);
});

describe('a secret that is not given again', () => {
  const target = targetOf('mail.example', 587, 'starttls');
  const before = (): { sealed: string; target: string } => ({ sealed: seal('old'), target });
  test('stays for the target that it was given for', () => {
    const known = before();
    expect(sealedFor(undefined, known, target, 'the mail server')).toBe(known.sealed);
  });
  test.each([
    ['another host', targetOf('evil.example', 587, 'starttls')],
    ['another port', targetOf('mail.example', 25, 'starttls')],
    ['a way that is less secured', targetOf('mail.example', 587, 'none')],
  ])('is asked for again for %s', (_, other) => {
    expect(() => sealedFor(undefined, before(), other, 'the mail server')).toThrow(/the mail server/);
  });
  test('a new one is taken wherever it leads, an empty one clears it, and none stays none', () => {
    expect(unseal(sealedFor('new', before(), targetOf('evil.example'), 'x'))).toBe('new');
    expect(sealedFor('', before(), target, 'x')).toBe('');
    expect(sealedFor(undefined, null, target, 'x')).toBe('');
    expect(sealedFor(undefined, { sealed: '', target: 'other' }, target, 'x')).toBe('');
  });
  test('parts of a target cannot be mistaken for one another', () => {
    expect(targetOf('a', 'b')).not.toBe(targetOf('a","b'));
    expect(targetOf('mail', 25)).not.toBe(targetOf('mail', '25'));
    expect(targetOf(null)).not.toBe(targetOf('null'));
  });
});
