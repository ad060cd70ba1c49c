import { createHmac, timingSafeEqual } from 'node:crypto';
import type { BatchContext, FillContext } from '@mailbag/core';
import { fillContext } from '@mailbag/core';
import { derivedSeed } from '../platform/secret-box.js';

/** Where the personal links of a mailing lead. */
export interface LinkPlace {
  /** The address of the page, without what stands behind the #. */
  at: string;
  intakeId: number;
  /** Grows when earlier links are to hold no longer. */
  round: number;
}

/** 132 bits: nobody finds one by trying. */
const CHARACTERS = 22;
const seal = ({ intakeId, round }: Omit<LinkPlace, 'at'>, code: string): string =>
  createHmac('sha256', derivedSeed(`personal links ${intakeId} ${round}`))
    .update(code)
    .digest('base64url')
    .slice(0, CHARACTERS);

/** The personal link of a copy. What tells whose it is stands behind the #, which no server and no log is told. */
export const personalLink = (place: LinkPlace, code: string): string => `${place.at}#${code}.${seal(place, code)}`;

/** The copy code of what stands behind the # of a personal link; null: nobody was given it. */
export function codeOfToken(place: Omit<LinkPlace, 'at'>, token: string): string | null {
  const [code = '', given = ''] = token.split('.');
  const own = Buffer.from(seal(place, code));
  const theirs = Buffer.from(given);
  return own.length === theirs.length && timingSafeEqual(own, theirs) ? code : null;
}

/** See `fillContext`; with the personal link of the copy. @param links null or left out: the mailing has none */
export const copyPlace = (batch: BatchContext, links: LinkPlace | null | undefined, ordinal: number, code: string): FillContext => ({
  ...fillContext(batch, ordinal, code),
  ...(links && { link: personalLink(links, code) }),
});
