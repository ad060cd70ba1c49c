import { nodeCiphers } from '../../../../../host/src/node-ciphers.js';
import { formOf } from '../../../../../../testing/raw-form.js';
import { testFaces, testFonts } from '../../../testing/platform.js';
import type { Finish } from '../../finish.js';
import { compileTemplate } from '../../plan/compile.js';
import { fillCopy } from '../fill.js';
import { readValues } from '../../read/read.js';
import { passwordBytes } from './password-hash.js';
import type { ProtectionOptions } from './protection.js';
import { permissionBits, prepareProtection, usualPermissions } from './protection.js';

const seed = new Uint8Array(32).fill(3);
async function protectedCopy(options: Partial<ProtectionOptions>, finish: Finish = 'flattened', copy = 'one'): Promise<Uint8Array> {
  const pdf = formOf(['/FT/Tx/T(a)/Rect[10 10 210 30]/TU(A tip)']);
  const values = { a: 'secret Łąkowski' };
  const compiled = await compileTemplate(pdf, { fonts: await testFonts(), faces: testFaces(), characters: [values.a], finish });
  return fillCopy(compiled, values, { protect: { protection: prepareProtection({ ciphers: nodeCiphers, seed, ...options }), copy } }).bytes;
}

/** What pdf.js reads with a password; the name of its error when it refuses. */
async function opened(bytes: Uint8Array, password?: string): Promise<{ text: string; permissions: number[] | null } | string> {
  const pdfjs = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const task = pdfjs.getDocument({
    data: bytes.slice(),
    verbosity: 0,
    isEvalSupported: false,
    ...(password === undefined ? {} : { password }),
  });
  try {
    const pdf = await task.promise;
    const page = await pdf.getPage(1);
    const { items } = await page.getTextContent();
    const permissions = await pdf.getPermissions();
    return { text: items.map((item) => ('str' in item ? item.str : '')).join(''), permissions };
  } catch (error) {
    return (error as Error).name;
  } finally {
    await task.destroy();
  }
}

test('a copy with an opening password opens in another reader with that password and with no other', async () => {
  const bytes = await protectedCopy({ openPassword: 'Larkmere ß 2027' });
  expect(await opened(bytes, 'Larkmere ß 2027')).toMatchObject({ text: expect.stringContaining('secret') });
  expect(await opened(bytes, 'larkmere ß 2027')).toBe('PasswordException');
  expect(await opened(bytes)).toBe('PasswordException');
  expect(Buffer.from(bytes).toString('latin1')).not.toContain(Buffer.from('A tip').toString('hex'));
});

test('a permissions password limits those who open without it, and lifts the limits for who has it', async () => {
  const bytes = await protectedCopy({ permissionsPassword: 'the office', permissions: ['print'] });
  const guest = await opened(bytes);
  // Bits 3 and 12 printing, 10 reading aloud: ISO 32000-2, table 22. pdf.js gives the values of the bits.
  expect(guest).toMatchObject({ permissions: [4, 512, 2048] });
  expect(await opened(bytes, 'the office')).toMatchObject({ text: expect.stringContaining('secret') });
});

test('values of an open copy come back with its password', async () => {
  const bytes = await protectedCopy({ openPassword: 'x' }, 'open');
  expect(await readValues(bytes, 'copy.pdf', 'x')).toEqual({ a: 'secret Łąkowski' });
  await expect(readValues(bytes, 'copy.pdf')).rejects.toMatchObject({ code: 'pdf-password' });
});

test('the same seed gives the same bytes, and no string or stream of two copies is encrypted alike but for what they share', async () => {
  const [one, again, two] = await Promise.all(['one', 'one', 'two'].map((copy) => protectedCopy({ openPassword: 'x' }, 'flattened', copy)));
  expect(Buffer.from(one!).equals(Buffer.from(again!))).toBe(true);
  const streams = (bytes: Uint8Array): string[] =>
    Buffer.from(bytes)
      .toString('latin1')
      .split('endobj')
      .flatMap((object) => {
        const [head, data] = object.split('\nstream\n');
        return data === undefined ? [] : [`${head!.slice(0, head!.indexOf(' 0 obj'))} ${data.split('\nendstream')[0]}`];
      });
  const shared = streams(one!).filter((stream) => streams(two!).includes(stream));
  // The page's own content and whatever else varies is not among them, although both copies show the same text.
  expect(streams(one!).length).toBeGreaterThan(shared.length);
  const vectors = streams(one!).map((stream) => stream.slice(stream.indexOf(' ') + 1, stream.indexOf(' ') + 17));
  expect(new Set(vectors).size).toBe(vectors.length);
});

test('copies with passwords of their own have keys of their own', async () => {
  const seeds = [1, 2].map((byte) => new Uint8Array(32).fill(byte));
  const [one, two] = seeds.map((own) => prepareProtection({ ciphers: nodeCiphers, seed: own, openPassword: 'x' }));
  expect(Buffer.from(one!.key).equals(Buffer.from(two!.key))).toBe(false);
  expect(/\/UE<([0-9a-f]+)>/.exec(one!.dict)![1]).not.toBe(/\/UE<([0-9a-f]+)>/.exec(two!.dict)![1]);
});

test('P has its reserved bits set and bits 1 and 2 clear (ISO 32000-2, table 22)', () => {
  for (const permissions of [[], ['print'], ['modify', 'copy', 'annotate', 'fill', 'assemble', 'print']] as const) {
    const bits = permissionBits(permissions) >>> 0;
    expect(bits & 0xfffff0c0).toBe(0xfffff0c0 & ~0);
    expect(bits & 3).toBe(0);
  }
});

test('passwords are made alike before they are hashed (RFC 4013), and refused when they are longer than 127 bytes (ISO 32000-2, 7.6.4.3.2)', () => {
  expect(passwordBytes('I\u00adX')).toEqual(passwordBytes('IX'));
  expect(passwordBytes('\u2168')).toEqual(passwordBytes('IX'));
  expect(passwordBytes('a\u00a0b')).toEqual(passwordBytes('a b'));
  expect(passwordBytes(`${'ł'.repeat(63)}x`)).toHaveLength(127);
  expect(() => passwordBytes('ł'.repeat(64))).toThrow('A password has 128 bytes; 127 are the most that a PDF can have.');
});

test('an opening password that is the permissions password too is refused, also when they are only written differently', () => {
  const options = { ciphers: nodeCiphers, seed: new Uint8Array(32), openPassword: 'IX', permissionsPassword: '\u2168' };
  expect(() => prepareProtection(options)).toThrow('are the same, so the limits would hold for nobody');
});

test('open copies may be filled with a permissions password, others not (ISO 32000-2, table 22, bit 9)', () => {
  expect(usualPermissions('open')).toContain('fill');
  expect(permissionBits(usualPermissions('open')) & 0x100).toBe(0x100);
  expect(permissionBits(usualPermissions('flattened')) & 0x100).toBe(0);
});
