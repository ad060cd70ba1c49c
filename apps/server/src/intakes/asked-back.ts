import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { derivedSeed } from '../platform/secret-box.js';

/** Letters of the seal: 132 bits. */
const SEAL = 22;
const seal = (id: string, random: string): string =>
  createHmac('sha256', derivedSeed('answers that are asked back')).update(`${id} ${random}`).digest('base64url').slice(0, SEAL);

/** A key under which a visitor sends an answer anew that the office asked back: it comes in the place of the earlier one. @param id of the submission */
export function keyOfMend(id: number): string {
  const random = randomBytes(9).toString('base64url');
  return `mend-${id}-${random}-${seal(String(id), random)}`;
}

/** The submission in whose place an answer comes; null: in nobody's. Nobody but the office makes such keys. */
export function mendedBy(key: string): number | null {
  const [, id, random, given] = /^mend-(\d{1,12})-([\w-]{12})-([\w-]{22})$/.exec(key) ?? [];
  if (id === undefined || random === undefined || given === undefined) return null;
  return timingSafeEqual(Buffer.from(seal(id, random)), Buffer.from(given)) ? Number(id) : null;
}
