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
  const kept = sealedPlan(plan('{{ plot }}', 'office'), null);
  expect(kept.output.openPassword).toMatch(/^sealed:/);
  expect(JSON.stringify(kept)).not.toContain('office');
  expect(toldPlan(kept, true).output).toMatchObject({ openPassword: '{{ plot }}', permissionsPassword: 'office' });
  expect(toldPlan(kept, false).output).toMatchObject({ openPassword: PASSWORD_KEPT, permissionsPassword: PASSWORD_KEPT });
  // A plan without any has none.
  expect(toldPlan(plan(), false).output).toEqual({ folder: '', file: 'x' });
});

test('one that was not shown stays, one that was not changed keeps its bytes, another takes its place, and an empty one takes it away', () => {
  const kept = sealedPlan(plan('{{ plot }}'), null);
  expect(sealedPlan(plan(PASSWORD_KEPT), kept).output.openPassword).toBe(kept.output.openPassword);
  expect(sealedPlan(plan('{{ plot }}'), kept).output.openPassword).toBe(kept.output.openPassword);
  const other = sealedPlan(plan('{{ name }}'), kept);
  expect(passwordText(other.output.openPassword)).toBe('{{ name }}');
  expect(sealedPlan(plan(''), kept).output.openPassword).toBe('');
});

test('two that are the same are refused, also where one of them was not shown', () => {
  expect(() => sealedPlan(plan('same', 'same'), null)).toThrow(expect.objectContaining({ code: 'password-both' }));
  const kept = sealedPlan(plan('same', 'other'), null);
  expect(() => sealedPlan(plan(PASSWORD_KEPT, 'same'), kept)).toThrow(expect.objectContaining({ code: 'password-both' }));
});

test('what was encrypted with a key that is gone is said to be lost where it is needed, and nowhere else', () => {
  const kept = sealedPlan(plan('{{ plot }}'), null);
  newKey();
  expect(() => passwordText(kept.output.openPassword)).toThrow(expect.objectContaining({ code: 'password-lost' }));
  expect(toldPlan(kept, true).output.openPassword).toBe(PASSWORD_KEPT);
  expect(withPasswordPatterns(kept, () => 'changed').output.openPassword).toBe(kept.output.openPassword);
  expect(passwordText(sealedPlan(plan('new'), kept).output.openPassword)).toBe('new');
});

test('plans of earlier versions kept them in clear; they are encrypted once', () => {
  const once = sealedIfClear(plan('clear'));
  expect(passwordText(once.output.openPassword)).toBe('clear');
  expect(sealedIfClear(once).output.openPassword).toBe(once.output.openPassword);
  expect(passwordText(plan('clear').output.openPassword)).toBe('clear');
  expect(passwordText(withPasswordPatterns(once, (text) => text.toUpperCase()).output.openPassword)).toBe('CLEAR');
});
