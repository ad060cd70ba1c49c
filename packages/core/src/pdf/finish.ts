/** What becomes of the fields: drawn into the page, kept and read-only, or kept to be filled further. */
export const finishes = ['flattened', 'locked', 'open'] as const;
export type Finish = (typeof finishes)[number];
