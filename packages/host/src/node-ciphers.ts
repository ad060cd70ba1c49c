import { createCipheriv, createDecipheriv, createHash, createHmac } from 'node:crypto';
import type { Ciphers } from '@mailbag/core';

const NO_IV = new Uint8Array(16);
const bytes = (buffer: Buffer): Uint8Array => new Uint8Array(buffer.buffer, buffer.byteOffset, buffer.length);

/** Node's side of core's ciphers. */
export const nodeCiphers: Ciphers = {
  digest: (bits, ...parts) => {
    const hash = createHash(`sha${bits}`);
    for (const part of parts) hash.update(part);
    return bytes(hash.digest());
  },
  hmac: (key, ...parts) => {
    const hash = createHmac('sha256', key);
    for (const part of parts) hash.update(part);
    return bytes(hash.digest());
  },
  encryptCbc(key, iv, data) {
    const cipher = createCipheriv(key.length === 16 ? 'aes-128-cbc' : 'aes-256-cbc', key, iv ?? NO_IV).setAutoPadding(false);
    return bytes(cipher.update(data));
  },
  encryptPadded(key, iv, data) {
    const cipher = createCipheriv('aes-256-cbc', key, iv);
    return [bytes(cipher.update(data)), bytes(cipher.final())];
  },
  decryptCbc(key, iv, data, isPadded) {
    const cipher = createDecipheriv(key.length === 16 ? 'aes-128-cbc' : 'aes-256-cbc', key, iv ?? NO_IV).setAutoPadding(isPadded);
    return bytes(Buffer.concat([cipher.update(data), cipher.final()]));
  },
  encryptBlock(key, block) {
    const cipher = createCipheriv('aes-256-ecb', key, null).setAutoPadding(false);
    return bytes(Buffer.concat([cipher.update(block), cipher.final()]));
  },
};
