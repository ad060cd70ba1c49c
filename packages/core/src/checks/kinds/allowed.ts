import { distance } from 'fastest-levenshtein';
import { normalised } from '../../map/choose.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';
import { list } from '../finding.js';

/** Values are among those that a person has allowed; case and stray spaces do not count. */
export const allowed: CheckKind = {
  order: 180,
  column: { switch: 'allowed', says: 'is one of these', proposed: () => false },
  findings: {
    'not-allowed': {
      title: 'Not an allowed value',
      sentence: ({ column, value, details }) => `“${column}” does not allow “${value}”. It allows ${list(details.accepted)}.`,
    },
  },
  begin: valueCheck('allowed', () => ({ text }, values) => {
    const wanted = normalised(text);
    if (values.length === 0 || wanted === '' || values.some((value) => normalised(value) === wanted)) return null;
    const near = values.filter((value) => distance(normalised(value), wanted) <= 1 && wanted.length > 3);
    return { code: 'not-allowed', severity: 'stop', details: { accepted: values }, mend: near.length === 1 ? near[0]! : null };
  }),
};
