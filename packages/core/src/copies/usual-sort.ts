/** The order of the ledger where nothing is said: who asks for days finds the last change first, everybody else the newest copy. */
export const usualSort = ({ text, from, to }: { text?: string | null; from?: string | null; to?: string | null }): 'changed' | 'newest' =>
  (from || to) && !text ? 'changed' : 'newest';
