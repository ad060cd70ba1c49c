import { nodeCiphers } from './node-ciphers.js';

const bytes = (hex: string): Uint8Array => new Uint8Array(Buffer.from(hex.replace(/\s/g, ''), 'hex'));
const hex = (data: Uint8Array): string => Buffer.from(data).toString('hex');

/** Vectors of NIST SP 800-38A, F.2.5 and F.1.5; FIPS 180-4 ("abc"); RFC 4231, test case 2. */
const key = bytes('603deb1015ca71be2b73aef0857d77811f352c073b6108d72d9810a30914dff4');
const iv = bytes('000102030405060708090a0b0c0d0e0f');
const block = bytes('6bc1bee22e409f96e93d7e117393172a');

test('AES-256 in CBC mode as NIST SP 800-38A, F.2.5 has it', () => {
  const encrypted = nodeCiphers.encryptCbc(key, iv, block);
  expect(hex(encrypted)).toBe('f58c4c04d6e5f1ba779eabfb5f7bfbd6');
  expect(hex(nodeCiphers.decryptCbc(key, iv, encrypted, false))).toBe(hex(block));
});
test('one block of AES-256 as NIST SP 800-38A, F.1.5 has it', () => {
  expect(hex(nodeCiphers.encryptBlock(key, block))).toBe('f3eed1bdb5d2a03c064b5a7e3db181f8');
});
test('SHA-256, SHA-384 and SHA-512 as FIPS 180-4 has them, over parts as over the whole', () => {
  const parts = [Buffer.from('a'), Buffer.from('bc')];
  expect(hex(nodeCiphers.digest(256, ...parts))).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
  expect(hex(nodeCiphers.digest(384, ...parts)).slice(0, 32)).toBe('cb00753f45a35e8bb5a03d699ac65007');
  expect(hex(nodeCiphers.digest(512, ...parts)).slice(0, 32)).toBe('ddaf35a193617abacc417349ae204131');
});
test('HMAC with SHA-256 as RFC 4231, test case 2 has it', () => {
  expect(hex(nodeCiphers.hmac(Buffer.from('Jefe'), Buffer.from('what do ya want for nothing?')))).toBe(
    '5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843',
  );
});
