import { t } from '../words/words.js';
import type { Remedies } from '../pdf/value.js';

/** `stop`: this record cannot run. `look`: a person should look. */
export type Severity = 'stop' | 'look';

/** What a check has to say about one record. */
export interface Finding {
  /** What was found; its heading and sentence stand with the check that finds it. */
  code: string;
  severity: Severity;
  /** Row in the sheet. */
  row: number;
  /** Column it is about; null: none. */
  column: string | null;
  /** Place of the template in the packet; null: none. */
  template: number | null;
  /** Name of the field; null: none. */
  field: string | null;
  /** Label of the field for people. */
  label: string | null;
  value: string;
  details: {
    why?: string;
    accepted?: string[];
    limit?: number;
    length?: number;
    rows?: number[];
    characters?: string[];
    /** What of the value cannot be seen; empty: characters are cut off above or below. */
    lost?: string;
    /** What would make it fit. */
    remedies?: Remedies;
    /** Values that are like it and would be right, the nearest first. */
    near?: string[];
  };
  /** What the value should be, where one can be proposed. */
  mend?: string | null;
}

/** Where a face for some characters comes from. */
export const facesAdvice = (characters: readonly string[] = []): string =>
  characters.some((char) => /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]/u.test(char))
    ? t`Faces for Chinese, Japanese and Korean come with “npm run faces”.`
    : t`Put a TrueType face that has them into the folder of faces, or change the value.`;

/** What may be meant, behind a sentence; empty: nothing is like it. */
export const proposed = (near: readonly string[] | undefined): string =>
  near?.length ? t` The nearest ${near.length === 1 ? t`is` : t`are`} ${list(near)}.` : '';

/** Values for a sentence, the first eight of them. */
export const list = (values: readonly string[] | undefined): string => {
  const shown = (values ?? [])
    .slice(0, 8)
    .map((value) => `“${value}”`)
    .join(', ');
  return (values?.length ?? 0) > 8 ? t`${shown} and ${values!.length - 8} more` : shown;
};
