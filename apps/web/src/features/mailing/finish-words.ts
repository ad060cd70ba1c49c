import { t } from '@mailbag/core/words';
import type { Finish } from '@mailbag/core';

const words: Record<Finish, { title: string; text: string }> = {
  flattened: { title: t`Flattened`, text: t`The values are drawn into the page, and no field is left.` },
  locked: { title: t`Locked`, text: t`The fields stay in the copy, but nobody can change them. Their values can be read by programs.` },
  open: { title: t`Open`, text: t`The copy is filled in and can be filled in further.` },
};

/** A finish in words; flattened where nothing is said. */
export const finishWords = (finish: Finish | undefined): { title: string; text: string } => words[finish ?? 'flattened'];
