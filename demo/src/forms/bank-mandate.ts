import type { Box } from './form-writer.js';
import { FormWriter } from './form-writer.js';

const box = (x: number, y: number, w: number, h = 18): Box => ({ x, y, w, h });
const PAGE = 'topmostSubform[0].Page1[0]';

/** One page with the cryptic names that some programs give, comb boxes and choices. */
export function bankMandate(): Uint8Array {
  const form = new FormWriter('Bank mandate').page();
  form.text(56, 70, 'Bank mandate', { size: 20, bold: true }).text(56, 86, 'Direct debit for plot rent and water', { size: 9, grey: 0.35 });
  form.heading(118, '1  For which plot');
  form.field({ kind: 'text', name: `${PAGE}.f1_01[0]`, tip: 'Plot number', maxLength: 8, boxes: [[0, box(56, 138, 110)]] }, 'Plot');
  form.field({ kind: 'text', name: `${PAGE}.f1_02[0]`, tip: 'Name of the tenant', boxes: [[0, box(176, 138, 363)]] }, 'Tenant');
  form.heading(186, '2  The account');
  form.field(
    { kind: 'text', name: `${PAGE}.f1_03[0]`, tip: 'Account holder', required: true, boxes: [[0, box(56, 206, 483)]] },
    'Account holder',
  );
  form.field(
    { kind: 'text', name: `${PAGE}.f1_04[0]`, tip: 'IBAN', required: true, comb: true, maxLength: 22, boxes: [[0, box(56, 246, 483, 20)]] },
    'IBAN',
  );
  form.field({ kind: 'text', name: `${PAGE}.f1_05[0]`, tip: 'Bank', boxes: [[0, box(56, 288, 330)]] }, 'Name of the bank');
  form.field(
    {
      kind: 'menu',
      name: `${PAGE}.c1_01[0]`,
      tip: 'Collection day',
      boxes: [[0, box(396, 288, 143)]],
      options: [
        ['01', '1st of the month'],
        ['15', '15th of the month'],
      ],
    },
    'Collection day',
  );
  form.heading(336, '3  How often');
  form.field({
    kind: 'radio',
    name: `${PAGE}.r1_01[0]`,
    tip: 'Payment',
    choices: [
      ['1', 0, box(56, 352, 13, 13)],
      ['2', 0, box(196, 352, 13, 13)],
      ['4', 0, box(336, 352, 13, 13)],
    ],
  });
  form.text(74, 362, 'Once a year', { size: 9 }).text(214, 362, 'Twice a year', { size: 9 }).text(354, 362, 'Every quarter', { size: 9 });
  form.field(
    { kind: 'text', name: `${PAGE}.f1_06[0]`, tip: 'Amount of each payment', align: 2, boxes: [[0, box(56, 398, 150)]] },
    'Amount each time',
  );
  form.field({ kind: 'text', name: `${PAGE}.f1_07[0]`, tip: 'First payment on', boxes: [[0, box(216, 398, 170)]] }, 'First payment on');
  form.paragraph(56, 442, [
    'I allow the Larkmere Allotment Office to collect the amounts due from this account, and ask my bank to honour',
    'these collections. Within eight weeks I can ask for the amount to be paid back.',
  ]);
  form.heading(498, '4  Signed');
  form.field(
    { kind: 'signature', name: `${PAGE}.s1_01[0]`, tip: 'Signature of the account holder', boxes: [[0, box(56, 520, 300, 60)]] },
    'Signature of the account holder',
  );
  form.field({ kind: 'text', name: `${PAGE}.f1_08[0]`, tip: 'Place and date', boxes: [[0, box(376, 562, 163)]] }, 'Place and date');
  return form.bytes();
}
