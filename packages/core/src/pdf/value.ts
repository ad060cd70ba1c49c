/** What goes into a field: text or an option, an on-value or true/false for buttons, several options for lists. */
export type FieldValue = string | boolean | string[];
export type FieldValues = Record<string, FieldValue>;

/** How a value sits in its box. `tight`: only at a smaller type size; `overflows`: not even then. */
export type Fit = 'fits' | 'tight' | 'overflows';

/** What is done with text that does not fit its box at the size the form asks for, in width or in height. Each is told by `Fit` all the same. */
export type TooLong =
  /** Smaller type, down to `smallest`; what is still too long is clipped by the box. */
  | 'shrink'
  /** The size stays and the box clips. */
  | 'clip'
  /** Smaller type, then further lines, where the box is high enough for them. */
  | 'wrap'
  /** Smaller type, then only as many characters as fit. */
  | 'cut';

export interface FitRule {
  tooLong: TooLong;
  /** Smallest type size, points. */
  smallest: number;
}
/** What would make a value fit that does not: type down to a size in points, or further lines in the same box. */
export interface Remedies {
  /** Size, points; null: no type that can be read is small enough. */
  smaller: number | null;
  wrap: boolean;
}

/**
 * What is to be known of one value in a copy. `characters`: those that no face can draw. `unseen`: chosen entries of a list for which its box is not high enough.
 * `lost`: what of a text that does not fit cannot be seen, and what would help.
 */
export interface FillNote {
  field: string;
  fit: Fit;
  characters: string[];
  unseen?: string[];
  lost?: string;
  remedies?: Remedies;
}
