import { addressFault } from '../../mail/address.js';
import type { CheckKind } from '../check.js';

/** The recipient's address can be mailed to. */
export const address: CheckKind = ({ addressColumn }) =>
  addressColumn === null
    ? null
    : {
        see({ row }, say) {
          const value = row.cell(addressColumn).text.trim();
          const base = { row: row.row, column: addressColumn, template: null, field: null, label: null, value };
          if (value === '') return say({ ...base, code: 'address-missing', severity: 'look', details: {} });
          const why = addressFault(value);
          if (why) say({ ...base, code: 'address-wrong', severity: 'stop', details: { why } });
        },
      };
