import type { Finish } from '@mailbag/core';

const words: Record<Finish, { title: string; text: string }> = {
  flattened: { title: 'Flattened', text: 'The values are drawn into the page, and no field is left.' },
  locked: { title: 'Locked', text: 'The fields stay in the copy, but nobody can change them. Their values can be read by programs.' },
  open: { title: 'Open', text: 'The copy is filled in and can be filled in further.' },
};

/** A finish in words; flattened where nothing is said. */
export const finishWords = (finish: Finish | undefined): { title: string; text: string } => words[finish ?? 'flattened'];
