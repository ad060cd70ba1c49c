import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { MailingPlan } from '@mailbag/contract';
import { PASSWORD_KEPT } from '@mailbag/core';
import { config } from '../platform/config.js';
import { derivedSeed, forgetKey, seal, unseal } from '../platform/secret-box.js';
import { passwordText, sealedIfClear, sealedPlan, toldPlan, withPasswordPatterns } from './plan-passwords.js';

const before = config.dataFolder;
const newKey = (): void => {
  writeFileSync(join(config.dataFolder, 'secret.key'), randomBytes(32));
  forgetKey();
};
beforeAll(() => {
  config.dataFolder = mkdtempSync(join(tmpdir(), 'mailbag-key-'));
});
beforeEach(newKey);
afterAll(() => {
  rmSync(config.dataFolder, { recursive: true });
  config.dataFolder = before;
  forgetKey();
});
const plan = (openPassword?: string, permissionsPassword?: string) =>
  ({
    name: 'x',
    output: {
      folder: '',
      file: 'x',
      ...(openPassword === undefined ? {} : { openPassword }),
      ...(permissionsPassword === undefined ? {} : { permissionsPassword }),
    },
  }) as MailingPlan;

test('a secret is opened by its key alone, is another text each time, and is noticed when somebody changed it', () => {
  const [one, two] = [seal('gärten 🌱'), seal('gärten 🌱')];
  expect([unseal(one), unseal(two), one === two]).toEqual(['gärten 🌱', 'gärten 🌱', false]);
  const changed = Buffer.from(one, 'base64');
  changed[changed.length - 1]! ^= 1;
  expect(() => unseal(changed.toString('base64'))).toThrow();
  const seed = derivedSeed('codes');
  expect([Buffer.from(seed).equals(derivedSeed('codes')), Buffer.from(seed).equals(derivedSeed('others'))]).toEqual([true, false]);
  newKey();
  expect(() => unseal(one)).toThrow();
  expect(Buffer.from(seed).equals(derivedSeed('codes'))).toBe(false);
});

test('passwords of a plan are kept encrypted, told in clear to those who may see them, and to nobody else', () => {
  const stored = sealedPlan(plan('{{ plot }}', 'office'), null);
  expect(stored.output.openPassword).toMatch(/^sealed:/);
  expect(JSON.stringify(stored)).not.toContain('office');
  expect(toldPlan(stored, true).output).toMatchObject({ openPassword: '{{ plot }}', permissionsPassword: 'office' });
  expect(toldPlan(stored, false).output).toMatchObject({ openPassword: PASSWORD_KEPT, permissionsPassword: PASSWORD_KEPT });
  // A plan without any has none.
  expect(toldPlan(plan(), false).output).toEqual({ folder: '', file: 'x' });
});

test('one that was not shown stays, one that was not changed keeps its bytes, another takes its place, and an empty one takes it away', () => {
  const stored = sealedPlan(plan('{{ plot }}'), null);
  expect(sealedPlan(plan(PASSWORD_KEPT), stored).output.openPassword).toBe(stored.output.openPassword);
  expect(sealedPlan(plan('{{ plot }}'), stored).output.openPassword).toBe(stored.output.openPassword);
  const other = sealedPlan(plan('{{ name }}'), stored);
  expect(passwordText(other.output.openPassword)).toBe('{{ name }}');
  expect(sealedPlan(plan(''), stored).output.openPassword).toBe('');
});

test('two that are the same are refused, also where one of them was not shown', () => {
  expect(() => sealedPlan(plan('same', 'same'), null)).toThrow(expect.objectContaining({ code: 'password-both' }));
  const stored = sealedPlan(plan('same', 'other'), null);
  expect(() => sealedPlan(plan(PASSWORD_KEPT, 'same'), stored)).toThrow(expect.objectContaining({ code: 'password-both' }));
});

test('what was encrypted with a key that is gone is said to be lost where it is needed, and nowhere else', () => {
  const stored = sealedPlan(plan('{{ plot }}'), null);
  newKey();
  expect(() => passwordText(stored.output.openPassword)).toThrow(expect.objectContaining({ code: 'password-lost' }));
  expect(toldPlan(stored, true).output.openPassword).toBe(PASSWORD_KEPT);
  expect(withPasswordPatterns(stored, () => 'changed').output.openPassword).toBe(stored.output.openPassword);
  expect(passwordText(sealedPlan(plan('new'), stored).output.openPassword)).toBe('new');
});

test('plans of earlier versions kept them in clear; they are encrypted once', () => {
  const once = sealedIfClear(plan('clear'));
  expect(passwordText(once.output.openPassword)).toBe('clear');
  expect(sealedIfClear(once).output.openPassword).toBe(once.output.openPassword);
  expect(passwordText(plan('clear').output.openPassword)).toBe('clear');
  expect(passwordText(withPasswordPatterns(once, (text) => text.toUpperCase()).output.openPassword)).toBe('CLEAR');
});
