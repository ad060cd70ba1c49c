import { sha256 } from '@noble/hashes/sha2.js';
import type { Challenge, DeriveKeyFunction } from 'altcha-lib';
import { solveChallenge } from 'altcha-lib';

/** The digest by a library of its own: the browser's is there on secured pages only. */
const deriveKey: DeriveKeyFunction = ({ cost, keyLength = 32 }, salt, password) => {
  let digest: Uint8Array<ArrayBuffer> = new Uint8Array([...salt, ...password]);
  for (let times = 0; times < Math.max(1, cost); times++) digest = new Uint8Array(sha256(digest));
  return Promise.resolve({ parameters: {}, derivedKey: digest.subarray(0, keyLength) });
};

/** Works on a puzzle, in small steps beside what the page does. @returns what proves it, for a header @throws Error after more than a minute */
export async function solved(challenge: Challenge): Promise<string> {
  const solution = await solveChallenge({ challenge, deriveKey });
  if (!solution) throw new Error('The puzzle was not solved in time.');
  return btoa(JSON.stringify({ challenge, solution }));
}
