import { t } from '../../words/words.js';
import { normalised } from '../../map/choose.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';
import { nearest } from '../../text/nearest.js';
import { list, proposed } from '../finding.js';

/** Values are among those that a person has allowed; case and stray spaces do not count. */
export const allowed: CheckKind = {
  order: 180,
  column: { switch: 'allowed', says: t`is one of these`, proposed: () => false },
  findings: {
    'not-allowed': {
      title: t`Not an allowed value`,
      sentence: ({ column, value, details }) =>
        t`“${column}” does not allow “${value}”. It allows ${list(details.accepted)}.${proposed(details.near)}`,
    },
  },
  begin: valueCheck('allowed', () => ({ text }, values) => {
    const wanted = normalised(text);
    if (values.length === 0 || wanted === '' || values.some((value) => normalised(value) === wanted)) return null;
    const { near, sure } = nearest(text, values);
    return { code: 'not-allowed', severity: 'stop', details: { accepted: values, near }, mend: sure };
  }),
};
