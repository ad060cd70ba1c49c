import type { Box } from './form-writer.js';
import { FormWriter } from './form-writer.js';

const box = (x: number, y: number, w: number, h = 18): Box => ({ x, y, w, h });

/** One page with ticks, a menu and a signature. */
export function shedPermit(): Uint8Array {
  const form = new FormWriter('Shed and glasshouse permit').page();
  form
    .text(56, 70, 'Shed and glasshouse permit', { size: 20, bold: true })
    .text(56, 86, 'Larkmere Allotment Office', { size: 9, grey: 0.35 });
  form.heading(118, '1  Who and where');
  form.field(
    { kind: 'text', name: 'permit.plot', tip: 'Plot number', required: true, maxLength: 8, boxes: [[0, box(56, 138, 110)]] },
    'Plot number',
  );
  form.field({ kind: 'text', name: 'permit.site', tip: 'Site', boxes: [[0, box(176, 138, 160)]] }, 'Site');
  form.field({ kind: 'text', name: 'permit.name', tip: 'Name of the tenant', boxes: [[0, box(346, 138, 193)]] }, 'Tenant');
  form.heading(186, '2  What is allowed');
  form.field(
    { kind: 'tick', name: 'permit.shed', tip: 'Shed', on: 'On', boxes: [[0, box(56, 204, 12, 12)]] },
    'A shed up to 6 m\u00b2, no higher than 2.20 m',
  );
  form.field(
    { kind: 'tick', name: 'permit.greenhouse', tip: 'Greenhouse', on: 'On', boxes: [[0, box(56, 226, 12, 12)]] },
    'A glasshouse up to 8 m\u00b2',
  );
  form.field(
    {
      kind: 'menu',
      name: 'permit.roof',
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
  form.field({ kind: 'text', name: 'permit.until', tip: 'Permit valid until', boxes: [[0, box(226, 262, 150)]] }, 'Valid until');
  form.heading(310, '3  Conditions');
  form.field(
    { kind: 'text', name: 'permit.conditions', tip: 'Conditions', multiline: true, boxes: [[0, box(56, 330, 483, 80)]] },
    'Conditions',
  );
  form.field(
    { kind: 'signature', name: 'permit.signature', tip: 'Signature of the office', boxes: [[0, box(56, 450, 300, 60)]] },
    'For the office',
  );
  return form.bytes();
}
