import { randomOf } from '../testing/damage.js';
import { num } from './fill/appearance/number.js';
import { ByteWriter, joined } from './byte-writer.js';
import { fingerprint } from './fingerprint.js';

const written = (work: (writer: ByteWriter) => unknown): string => {
  const writer = new ByteWriter(4);
  work(writer);
  return Buffer.from(writer.done()).toString('latin1');
};

test.each([
  [0, '0'],
  [-0.0004, '0'],
  [12, '12'],
  [1.5, '1.5'],
  [-1.005, '-1.005'],
  [0.05, '0.05'],
  [841.8898, '841.89'],
  [1234567.891, '1234567.891'],
  [-1110.6667, '-1110.667'],
  [Number.NaN, '0'],
  [3e9, '3000000000'],
])('%d is written as %s: at most three decimals, no exponent (ISO 32000-2, 7.3.3)', (value, text) => {
  expect(written((writer) => writer.number(value))).toBe(text);
});

test('numbers are written alike by the writer of bytes and the one of texts', () => {
  const random = randomOf(7);
  for (let count = 0; count < 5000; count++) {
    const value = (random() - 0.5) * 10 ** Math.floor(random() * 7);
    expect(written((writer) => writer.number(value))).toBe(num(value));
  }
});

test('a writer grows, keeps what it wrote, and gives stretches of it', () => {
  const long = 'x'.repeat(100_000);
  expect(written((writer) => writer.text('a').text(long).ascii('b').byte(0x63).bytes(Uint8Array.of(0xff)))).toBe(`a${long}bc\u00ff`);
  const writer = new ByteWriter().text('hello');
  expect(Buffer.from(writer.slice(1, 3)).toString()).toBe('el');
  expect(writer.clear().length).toBe(0);
  expect([...joined(Uint8Array.of(1), Uint8Array.of(), Uint8Array.of(2, 3))]).toEqual([1, 2, 3]);
});

test('a fingerprint tells contents apart that differ in one byte, wherever it stands, and lengths too', () => {
  const bytes = Uint8Array.from({ length: 61 }, (_, index) => index * 7);
  const all = new Set([fingerprint(bytes), fingerprint(bytes.subarray(0, 60))]);
  for (let at = 0; at < bytes.length; at++) all.add(fingerprint(bytes.map((byte, index) => (index === at ? byte ^ 0x80 : byte))));
  expect(all.size).toBe(bytes.length + 2);
  // The same bytes from any place in a buffer.
  const shifted = new Uint8Array(64);
  shifted.set(bytes, 3);
  expect(fingerprint(shifted.subarray(3))).toBe(fingerprint(bytes));
});
