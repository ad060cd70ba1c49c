import { t } from '../../words/words.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

/** Control characters (Unicode, Cc) but tabs and line breaks, and what stands for a character that was lost. */
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f\ufffd\ufffe\uffff]/g;

export const control: CheckKind = {
  order: 140,
  column: { switch: 'control', says: t`has no control characters`, proposed: () => true },
  findings: {
    'control-character': {
      title: t`Control character`,
      sentence: ({ column, details }) => t`“${column}” holds ${details.characters?.join(', ')}, which no form can print.`,
    },
  },
  begin: valueCheck('control', () => ({ text }) => {
    const found = text.match(CONTROL);
    if (!found) return null;
    const names = [...new Set(found)].map((char) => `U+${char.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}`);
    // A lost character cannot be guessed.
    const mend = text.includes('\ufffd') ? null : text.replace(CONTROL, '');
    return { code: 'control-character', severity: 'look', details: { characters: names }, mend };
  }),
};
