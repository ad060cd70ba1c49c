import { t } from '../../words/words.js';
import { graphemeCount } from '../../text/graphemes.js';
import type { CheckKind } from '../check.js';

/** Characters below which every password is tried in minutes by anybody who has the file (common practice, no source). */
const SHORT = 6;

/** The passwords of a record's copies can be had: not too long, and two different ones where there are two (ISO 32000-2, 7.6.4.3). Never shown. */
export const password: CheckKind = {
  order: 260,
  findings: {
    'password-empty': {
      title: t`Password is empty`,
      sentence: () =>
        t`The password to open this copy would be empty, so anybody could open it: the values that it is made of are empty. Fill them in, or choose others under Output.`,
    },
    'password-weak': {
      title: t`Password is weak`,
      sentence: ({ details }) =>
        t`The password to open this copy has only ${details.length} character${details.length === 1 ? '' : 's'}, so it is soon guessed. Compose it of more values under Output.`,
    },
    'passwords-same': {
      title: t`Both passwords are the same`,
      sentence: () =>
        t`The password to open the copy is the permissions password too, so the limits would hold for nobody. Choose two different ones under Output.`,
    },
    'password-too-long': {
      title: t`Password is too long`,
      sentence: ({ details }) =>
        t`The password of this copy has ${details.length} bytes; ${details.limit} are the most that a PDF can have. Choose a shorter one under Output.`,
    },
  },
  begin: ({ passwordFault, openPassword }) =>
    passwordFault || openPassword
      ? {
          see({ record: { row }, record }, say) {
            const about = { row, column: null, template: null, field: null, label: null, value: '' };
            const fault = passwordFault?.(record);
            if (fault) {
              const [code, details] = fault.code === 'password-both' ? ['passwords-same', {}] : ['password-too-long', fault.fields];
              say({ ...about, code, severity: 'stop', details });
            }
            if (!openPassword) return;
            const length = graphemeCount(openPassword(record));
            if (length === 0) say({ ...about, code: 'password-empty', severity: 'stop', details: {} });
            else if (length < SHORT) say({ ...about, code: 'password-weak', severity: 'look', details: { length } });
          },
        }
      : null,
};
