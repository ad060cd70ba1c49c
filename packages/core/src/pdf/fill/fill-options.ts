import type { Protection } from './protect/protection.js';
import type { FitRule } from '../value.js';

export interface FillOptions {
  /** What is done with text that does not fit; shrunk to 5 points where nothing is said. */
  fit?: FitRule;
  /** The same for single fields, by name. */
  fits?: Readonly<Record<string, FitRule>>;
  /** Copy code for the stamps of the compiled template. */
  code?: string;
  /** Personal link for the stamps that hold it. */
  link?: string;
  /** What the pattern of a line of text on the copy says of it. */
  lineOf?: (pattern: string) => string;
  /** Passwords, and what tells this copy apart from others with the same. */
  protect?: { protection: Protection; copy: string };
  /** PNG or JPEG files by field, drawn into the field's boxes with their aspect kept. */
  images?: Readonly<Record<string, Uint8Array>>;
}
