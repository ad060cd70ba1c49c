import { t } from '@mailbag/core/words';
import type { Saving } from './document-desk';

const words: Record<Saving['state'], string> = {
  saved: t`Saved`,
  saving: t`Saving …`,
  waiting: t`Saving …`,
  failed: t`Not saved`,
  away: t`Kept here; the server does not answer`,
  'signed-out': t`Kept here until you have signed in`,
};

/** How far a document is saved. */
export const savedWords = ({ state }: Saving): string => words[state];
