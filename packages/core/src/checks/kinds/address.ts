import { t } from '../../words/words.js';
import { addressFault } from '../../mail/address.js';
import { addressesIn } from '../../mail/recipients.js';
import { trimEnds } from '../../text/trim.js';
import type { CheckKind, FindingWords } from '../check.js';
import { aboutValue, valueCheck } from '../check.js';

/** A mend where only one can be meant: spaces around, a doubled @, a comma for a dot in the domain. */
function certainMend(text: string): string | null {
  const bare = text
    .trim()
    .replace(/@{2,}/g, '@')
    .replace(/^mailto:/i, '')
    .replace(/^<(.*)>$/, '$1')
    .replace(/,(?=[a-z]{2,}$)/i, '.');
  const mended = trimEnds(bare, /[.,;]/, 'end');
  return mended !== text && addressFault(mended) === null ? mended : null;
}

const isWrong: FindingWords = {
  title: t`Not an e-mail address`,
  sentence: ({ value, details }) => t`“${value}” cannot be mailed to: ${details.why}.`,
};

/** The recipient's address can be mailed to. */
export const address: CheckKind = {
  order: 20,
  findings: {
    'address-wrong': isWrong,
    'address-missing': {
      title: t`No e-mail address`,
      sentence: ({ column }) => t`No address in “${column}”. The copy is made and kept, but not mailed.`,
    },
  },
  begin: ({ addressColumn, severalAddresses = false }) =>
    addressColumn === null
      ? null
      : {
          see({ row }, say) {
            const { text } = row.cell(addressColumn);
            const base = aboutValue(row.row, addressColumn, text.trim());
            if (text.trim() === '') return say({ ...base, code: 'address-missing', severity: 'look' });
            const why = addressesIn(text, severalAddresses).fault;
            if (why) say({ ...base, value: text, code: 'address-wrong', severity: 'stop', details: { why }, mend: certainMend(text) });
          },
        },
};

/** Every other column of addresses holds such (RFC 5321, 4.1.2). */
export const otherAddress: CheckKind = {
  order: 50,
  column: { switch: 'email', says: t`is an e-mail address`, proposed: ({ kind }) => kind === 'email' },
  findings: { 'address-wrong': isWrong },
  begin: valueCheck('email', ({ addressColumn }) => ({ text }, _, { name }) => {
    const why = name === addressColumn || text.trim() === '' ? null : addressFault(text);
    return why ? { code: 'address-wrong', severity: 'look', details: { why }, mend: certainMend(text) } : null;
  }),
};
