import type { Box } from './form-writer.js';
import { FormWriter } from './form-writer.js';

const box = (x: number, y: number, w: number, h = 18): Box => ({ x, y, w, h });

/**
 * One page with ticks, a menu and a signature.
 * @param edition 2028: the fields have other names, the roof is not asked any more, the height of the shed is, and the conditions stand lower
 */
export function shedPermit(edition: 2027 | 2028 = 2027): Uint8Array {
  const isNew = edition === 2028;
  const name = (own: string): string => (isNew ? `form2028.${own}` : `permit.${own}`);
  const form = new FormWriter('Shed and glasshouse permit').page();
  form
    .text(56, 70, 'Shed and glasshouse permit', { size: 20, bold: true })
    .text(56, 86, 'Larkmere Allotment Office', { size: 9, grey: 0.35 });
  form.heading(118, '1  Who and where');
  form.field(
    { kind: 'text', name: name('plot'), tip: 'Plot number', required: true, maxLength: isNew ? 10 : 8, boxes: [[0, box(56, 138, 110)]] },
    'Plot number',
  );
  form.field({ kind: 'text', name: name('site'), tip: 'Site', boxes: [[0, box(176, 138, 160)]] }, 'Site');
  form.field({ kind: 'text', name: name('name'), tip: 'Name of the tenant', boxes: [[0, box(346, 138, 193)]] }, 'Tenant');
  form.heading(186, '2  What is allowed');
  form.field(
    { kind: 'tick', name: name('shed'), tip: 'Shed', on: 'On', boxes: [[0, box(56, 204, 12, 12)]] },
    'A shed up to 6 m\u00b2, no higher than 2.20 m',
  );
  form.field(
    { kind: 'tick', name: name('greenhouse'), tip: 'Greenhouse', on: 'On', boxes: [[0, box(56, 226, 12, 12)]] },
    'A glasshouse up to 8 m\u00b2',
  );
  if (isNew)
    form.field(
      { kind: 'text', name: name('height'), tip: 'Height of the shed in metres', maxLength: 4, boxes: [[0, box(56, 262, 160)]] },
      'Height of the shed',
    );
  else
    form.field(
      {
        kind: 'menu',
        name: name('roof'),
        tip: 'Roof',
        boxes: [[0, box(56, 262, 160)]],
        options: [
          ['felt', 'Felt'],
          ['green', 'Green roof'],
          ['sheet', 'Corrugated sheet'],
        ],
      },
      'Roof',
    );
  form.field({ kind: 'text', name: name('until'), tip: 'Permit valid until', boxes: [[0, box(226, 262, 150)]] }, 'Valid until');
  const low = isNew ? 20 : 0;
  form.heading(310 + low, isNew ? '3  What is to be kept to' : '3  Conditions');
  form.field(
    { kind: 'text', name: name('conditions'), tip: 'Conditions', multiline: true, boxes: [[0, box(56, 330 + low, 483, 80)]] },
    'Conditions',
  );
  form.field(
    { kind: 'signature', name: name('signature'), tip: 'Signature of the office', boxes: [[0, box(56, 450 + low, 300, 60)]] },
    'For the office',
  );
  return form.bytes();
}
