import { createCipheriv, createDecipheriv, createHmac, randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { KEY } from '@mailbag/folder/layout';
import { config } from './config.js';

let known: Buffer | null = null;
/** The key lies beside the database, never in it. That it is there and the right one is looked at before anything else (folder-key.ts). */
const key = (): Buffer => (known ??= readFileSync(join(config.dataFolder, KEY)));
/** It is read again. */
export const forgetKey = (): void => void (known = null);

/** Encrypts a secret for the database: AES-256-GCM, nonce and tag in front. */
export function seal(secret: string): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', key(), nonce);
  const body = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), body]).toString('base64');
}

/** @throws Error when the secret was sealed with another key */
export function unseal(sealed: string): string {
  const bytes = Buffer.from(sealed, 'base64');
  const decipher = createDecipheriv('aes-256-gcm', key(), bytes.subarray(0, 12));
  decipher.setAuthTag(bytes.subarray(12, 28));
  return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
}

/** Thirty-two bytes that only this installation can work out again, for a purpose named by the label. */
export const derivedSeed = (label: string): Uint8Array => new Uint8Array(createHmac('sha256', key()).update(`seed ${label}`).digest());
