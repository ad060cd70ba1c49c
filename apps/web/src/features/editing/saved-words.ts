import type { Saving } from './document-desk';

const words: Record<Saving['state'], string> = {
  saved: 'Saved',
  saving: 'Saving …',
  waiting: 'Saving …',
  failed: 'Not saved',
  away: 'Kept here; the server does not answer',
  'signed-out': 'Kept here until you have signed in',
};

/** How far a document is saved. */
export const savedWords = ({ state }: Saving): string => words[state];
