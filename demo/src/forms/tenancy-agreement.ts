import type { Box } from './form-writer.js';
import { FormWriter } from './form-writer.js';

const box = (x: number, y: number, w: number, h = 18): Box => ({ x, y, w, h });

/** Two pages, names in a hierarchy, the tenant's name on both pages. */
export function tenancyAgreement(): Uint8Array {
  const form = new FormWriter('Tenancy agreement').page();
  form
    .text(56, 70, 'Tenancy agreement', { size: 20, bold: true })
    .text(56, 86, 'Larkmere Allotment Office, Quay Street 2, 04471 Larkmere', { size: 9, grey: 0.35 });
  form.heading(118, '1  The plot');
  form.field(
    { kind: 'text', name: 'tenancy.plot.no', tip: 'Plot number', required: true, maxLength: 8, boxes: [[0, box(56, 138, 110)]] },
    'Plot number',
  );
  form.field({ kind: 'text', name: 'tenancy.plot.site', tip: 'Site', boxes: [[0, box(176, 138, 240)]] }, 'Site');
  form.field(
    { kind: 'text', name: 'tenancy.plot.area', tip: 'Area in square metres', align: 2, boxes: [[0, box(426, 138, 113)]] },
    'Area (m\u00b2)',
  );
  form.heading(186, '2  The tenant');
  form.field(
    {
      kind: 'text',
      name: 'tenancy.tenant.name',
      tip: 'Full name of the tenant',
      required: true,
      boxes: [
        [0, box(56, 206, 330)],
        [1, box(56, 560, 300)],
      ],
    },
    'Name',
  );
  form.field({ kind: 'text', name: 'tenancy.tenant.born', tip: 'Date of birth', boxes: [[0, box(396, 206, 143)]] }, 'Born');
  form.field({ kind: 'text', name: 'tenancy.tenant.street', tip: 'Street and house number', boxes: [[0, box(56, 244, 230)]] }, 'Street');
  form.field(
    { kind: 'text', name: 'tenancy.tenant.postcode', tip: 'Postal code', comb: true, maxLength: 5, boxes: [[0, box(296, 244, 90)]] },
    'Postal code',
  );
  form.field({ kind: 'text', name: 'tenancy.tenant.town', tip: 'Town', boxes: [[0, box(396, 244, 143)]] }, 'Town');
  form.field({ kind: 'text', name: 'tenancy.tenant.email', tip: 'E-mail address', boxes: [[0, box(56, 282, 330)]] }, 'E-mail');
  form.field({ kind: 'text', name: 'tenancy.tenant.phone', tip: 'Telephone', boxes: [[0, box(396, 282, 143)]] }, 'Telephone');
  form.heading(330, '3  Rent and water');
  form.field({ kind: 'text', name: 'tenancy.rent.yearly', tip: 'Yearly rent', align: 2, boxes: [[0, box(56, 350, 110)]] }, 'Yearly rent');
  form.field(
    {
      kind: 'menu',
      name: 'tenancy.rent.concession',
      tip: 'Concession',
      boxes: [[0, box(176, 350, 130)]],
      options: [
        ['none', 'None'],
        ['pension', 'Pensioner 25 %'],
        ['study', 'In training 20 %'],
        ['family', 'Large family 15 %'],
      ],
    },
    'Concession',
  );
  form.field({ kind: 'text', name: 'tenancy.rent.water', tip: 'Water charge', align: 2, boxes: [[0, box(316, 350, 100)]] }, 'Water');
  form.field(
    { kind: 'text', name: 'tenancy.rent.total', tip: 'To pay', required: true, align: 2, boxes: [[0, box(426, 350, 113)]] },
    'To pay',
  );
  form.field(
    { kind: 'tick', name: 'tenancy.has.water', tip: 'Water supply at the plot', on: 'Ja', boxes: [[0, box(56, 382, 12, 12)]] },
    'Water supply at the plot',
  );
  form.field(
    { kind: 'tick', name: 'tenancy.has.greenhouse', tip: 'Greenhouse on the plot', boxes: [[0, box(216, 382, 12, 12)]] },
    'Greenhouse',
  );
  form.field(
    { kind: 'tick', name: 'tenancy.has.shed', tip: 'Shed up to 6 square metres', boxes: [[0, box(346, 382, 12, 12)]] },
    'Shed up to 6 m\u00b2',
  );
  form.heading(426, '4  Term');
  form.field({ kind: 'text', name: 'tenancy.term.from', tip: 'Start of the tenancy', boxes: [[0, box(56, 446, 150)]] }, 'From');
  form.field({ kind: 'text', name: 'tenancy.term.until', tip: 'End of the tenancy (until)', boxes: [[0, box(216, 446, 150)]] }, 'Until');
  form.field({ kind: 'text', name: 'tenancy.deposit', tip: 'Key deposit', align: 2, boxes: [[0, box(426, 446, 113)]] }, 'Key deposit');
  form.paragraph(56, 484, [
    'The tenant keeps the plot cultivated, the paths open and the water butts covered. The office may inspect the plot',
    'with seven days\u2019 notice.',
    'Either side may end the tenancy in writing by the last day of October. Rent and water are due on the first day of the term.',
  ]);
  form.heading(534, '5  Remarks');
  form.field(
    { kind: 'text', name: 'tenancy.remarks', tip: 'Remarks', multiline: true, boxes: [[0, box(56, 554, 483, 96)]] },
    'Remarks of the office',
  );
  form.text(56, 800, 'Page 1 of 2', { size: 8, grey: 0.4 });
  form.page().text(56, 70, 'Rules of the site', { size: 16, bold: true });
  form.paragraph(
    56,
    100,
    [
      '1. Gates are locked after use. Keys are not lent.',
      '2. Fires are lit from November to March only, and never unwatched.',
      '3. Sheds and glasshouses need a permit before they are built.',
      '4. Hoses are used before nine in the morning and after six in the evening.',
      '5. Compost stays on the plot; other waste is taken home.',
      '6. Dogs are kept on a lead. Bees need the consent of the neighbours.',
      '7. Trees grow no higher than three metres. Hedges stay below one metre and twenty.',
      '8. The key deposit is given back with the key.',
    ],
    10,
  );
  form.heading(530, '6  Signed');
  form.text(56, 553, 'Name of the tenant', { size: 7.5, grey: 0.35 });
  form.field(
    { kind: 'signature', name: 'tenancy.signature', tip: 'Signature of the tenant', boxes: [[1, box(56, 610, 300, 60)]] },
    'Signature of the tenant',
  );
  form.field({ kind: 'text', name: 'tenancy.signed_on', tip: 'Signed on', boxes: [[1, box(376, 652, 163)]] }, 'Date');
  form.text(56, 800, 'Page 2 of 2', { size: 8, grey: 0.4 });
  return form.bytes();
}
