import { randomBytes } from 'node:crypto';
import { MailbagError } from '@mailbag/core';
import type { Challenge, Solution } from 'altcha-lib';
import { createChallenge, verifySolution } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/sha';

/** Minutes for which a puzzle holds. */
const MINUTES = 10;
/** What the digest of an answer begins with (hexadecimal): one in 65,536 does. A device takes a second or less, who sends thousands takes hours. */
const BEGINS = '0000';
/** Puzzles that were used up and are not over yet; the oldest goes first. */
const MOST_USED = 50_000;

const isRecord = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value);

/** What a visitor's device sends back: the puzzle as it was given, and its answer. Null: it is nothing of the kind. */
function readProof(text: string): { challenge: Challenge; solution: Solution } | null {
  try {
    const given = JSON.parse(Buffer.from(text, 'base64').toString('utf8')) as unknown;
    if (!isRecord(given) || !isRecord(given['challenge']) || !isRecord(given['solution'])) return null;
    const { challenge, solution } = given;
    return isRecord(challenge['parameters']) && typeof challenge['signature'] === 'string'
      ? { challenge: challenge as unknown as Challenge, solution: solution as unknown as Solution }
      : null;
  } catch {
    return null;
  }
}

/** Puzzles that cost a device some work, so that sending very much costs very much. They hold for one intake, for some minutes, and once. */
export class Puzzles {
  private readonly hmacSignatureSecret = randomBytes(32).toString('hex');
  private readonly used = new Map<string, number>();

  /** @param now milliseconds */
  constructor(private readonly now: () => number = Date.now) {}

  /** A puzzle for an intake. @param word its address */
  make(word: string): Promise<Challenge> {
    return createChallenge({
      algorithm: 'SHA-256',
      cost: 1,
      keyPrefix: BEGINS,
      expiresAt: Math.floor(this.now() / 1000) + MINUTES * 60,
      data: { word },
      deriveKey,
      hmacSignatureSecret: this.hmacSignatureSecret,
    });
  }

  /** @param proof see `readProof`; undefined: none was sent @throws MailbagError intake-puzzle: it proves nothing, or has done so before */
  async take(word: string, proof: string | undefined): Promise<void> {
    const given = proof === undefined || proof.length > 4000 ? null : readProof(proof);
    const signature = given?.challenge.signature ?? '';
    if (!given || this.used.has(signature) || given.challenge.parameters.data?.['word'] !== word) throw new MailbagError('intake-puzzle');
    const { verified } = await verifySolution({ ...given, deriveKey, hmacSignatureSecret: this.hmacSignatureSecret });
    // Of two that come with the same answer at the same time, one is taken.
    if (!verified || this.used.has(signature)) throw new MailbagError('intake-puzzle');
    this.used.set(signature, this.now());
    if (this.used.size > MOST_USED) this.used.delete(this.used.keys().next().value!);
  }
}
