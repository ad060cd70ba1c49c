/** What became different about a field. */
export type FieldChange = 'renamed' | 'moved' | 'retyped' | 'options' | 'limit' | 'page' | 'required';

/** A field of the old edition with the one of the new edition that it has become, by their names. */
export interface FieldPair {
  old: string;
  new: string;
  changes: FieldChange[];
  /** From 0 to 1; below DOUBTFUL a person should look. */
  sure: number;
}

export interface Comparison {
  pairs: FieldPair[];
  gone: string[];
  added: string[];
  /** Share of the old fields that were found again, from 0 to 1; next to none: another form altogether. */
  likeness: number;
}

/** Pairs that are less sure than this are settled by a person. */
export const DOUBTFUL = 0.55;
