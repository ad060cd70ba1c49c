import type { FitRule } from './appearance/text-layout.js';
import type { Protection } from './protect/protection.js';
import type { Fit } from '../value.js';

/** What is to be known of one value in a copy. `characters`: those that no face can draw. `unseen`: chosen entries of a list for which its box is not high enough. */
export interface FillNote {
  field: string;
  fit: Fit;
  characters: string[];
  unseen?: string[];
}

export interface FillOptions {
  /** What is done with text that does not fit; shrunk to 5 points where nothing is said. */
  fit?: FitRule;
  /** Copy code for the stamps of the compiled template. */
  code?: string;
  /** What the pattern of a line of text on the copy says of it. */
  lineOf?: (pattern: string) => string;
  /** Passwords, and what tells this copy apart from others with the same. */
  protect?: { protection: Protection; copy: string };
  /** PNG or JPEG files by field, drawn into the field's boxes with their aspect kept. */
  images?: Readonly<Record<string, Uint8Array>>;
}
