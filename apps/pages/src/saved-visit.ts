import type { IntakeAnswers } from '@mailbag/core/intake';

/** What a visitor has typed and not sent, as it is kept in this browser. */
export interface SavedVisit {
  /** The version of the page in which they began; they finish in it. */
  edition: number;
  answers: IntakeAnswers;
  /** Where they are: 0 the first page, then the steps. */
  step: number;
  /** Under which it is sent, so that it is one submission however often. */
  key: string;
  /** Whether it was sent. */
  isSent: boolean;
}

const place = (word: string): string => `mailbag-page-${word}`;

/** @param random bytes in hexadecimal */
export const newKey = (random: () => Uint8Array = () => crypto.getRandomValues(new Uint8Array(20))): string =>
  [...random()].map((byte) => byte.toString(16).padStart(2, '0')).join('');

export function savedVisit(word: string, storage: Pick<Storage, 'getItem'>): SavedVisit | null {
  try {
    const saved = JSON.parse(storage.getItem(place(word)) ?? 'null') as SavedVisit | null;
    return saved && typeof saved.edition === 'number' && typeof saved.key === 'string' && typeof saved.answers === 'object' ? saved : null;
  } catch {
    return null;
  }
}

/** Where a browser keeps nothing, the page works all the same. */
export function keepVisit(word: string, visit: SavedVisit | null, storage: Pick<Storage, 'setItem' | 'removeItem'>): void {
  try {
    if (visit) storage.setItem(place(word), JSON.stringify(visit));
    else storage.removeItem(place(word));
  } catch {
    // Full, or switched off.
  }
}
