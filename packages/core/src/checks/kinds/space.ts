import { t } from '../../words/words.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

/** Spaces that nobody sees and every form prints: no-break, of odd widths, of no width at all (Unicode, White_Space and Default_Ignorable). */
const ODD = /[\u00a0\u1680\u2000-\u200b\u202f\u205f\u3000\u2060\ufeff]/;
const isPlain = /^\S+( \S+)*$/;

/** Values that are printed as they stand do not start or end with a space, and have none doubled or of an odd kind. */
export const space: CheckKind = {
  order: 130,
  column: { switch: 'spaces', says: t`has no stray or odd spaces`, proposed: () => true },
  findings: {
    'stray-space': { title: t`Stray space`, sentence: ({ column }) => t`“${column}” starts or ends with a space, which would be printed.` },
    'odd-space': { title: t`Odd space inside`, sentence: ({ column }) => t`“${column}” has doubled or invisible spaces inside.` },
  },
  begin: valueCheck('spaces', () => ({ text }) => {
    if (isPlain.test(text) && !ODD.test(text)) return null;
    if (text.trim() === '') return null;
    if (text !== text.trim()) return { code: 'stray-space', severity: 'look', mend: text.trim() };
    // Line breaks and tabs inside are meant.
    const mend = text.replace(/[\u200b\u2060\ufeff]/g, '').replace(/[ \u00a0\u1680\u2000-\u200a\u202f\u205f\u3000]+/g, ' ');
    return mend === text ? null : { code: 'odd-space', severity: 'look', mend: mend.trim() };
  }),
};
