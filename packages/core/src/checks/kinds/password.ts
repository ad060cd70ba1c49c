import type { CheckKind } from '../check.js';

/** The passwords of a record's copies can be had: not too long, and two different ones where there are two (ISO 32000-2, 7.6.4.3). Never shown. */
export const password: CheckKind = {
  order: 260,
  findings: {
    'passwords-same': {
      title: 'Both passwords are the same',
      sentence: () =>
        'The password to open the copy is the permissions password too, so the limits would hold for nobody. Choose two different ones under Output.',
    },
    'password-too-long': {
      title: 'Password is too long',
      sentence: ({ details }) =>
        `The password of this copy has ${details.length} bytes; ${details.limit} are the most that a PDF can have. Choose a shorter one under Output.`,
    },
  },
  begin: ({ passwordFault }) =>
    passwordFault
      ? {
          see({ record }, say) {
            const fault = passwordFault(record);
            if (!fault) return;
            const [code, details] = fault.code === 'password-both' ? ['passwords-same', {}] : ['password-too-long', fault.fields];
            say({ code, severity: 'stop', row: record.row, column: null, template: null, field: null, label: null, value: '', details });
          },
        }
      : null,
};
