import { translated } from '@mailbag/core/words';

/** Parts of a mailing, as the server calls them, one after another. */
export const partsWords = (parts: readonly string[]): string => parts.map((part) => translated(part)).join(', ');
