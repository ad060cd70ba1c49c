import type { Box } from './form-writer.js';
import { FormWriter } from './form-writer.js';

const box = (x: number, y: number, w: number, h = 18): Box => ({ x, y, w, h });

/** Children that one sheet has lines for. */
export const LINES = 3;

/** One page with a table of three children, a box for the painted sign of their bed and one for the signature of the office. */
export function childrensPlot(): Uint8Array {
  const form = new FormWriter('Children’s plot').page();
  form.text(56, 70, 'Children’s plot', { size: 20, bold: true }).text(56, 86, 'Larkmere Allotment Office', { size: 9, grey: 0.35 });
  form.heading(118, '1  The family’s plot');
  form.field({ kind: 'text', name: 'children.plot', tip: 'Plot', required: true, boxes: [[0, box(56, 138, 110)]] }, 'Plot');
  form.field({ kind: 'text', name: 'children.family', tip: 'Tenant', boxes: [[0, box(176, 138, 363)]] }, 'Tenant');
  form.heading(186, '2  Who digs');
  for (let line = 1; line <= LINES; line++) {
    const y = 206 + (line - 1) * 36;
    const name = (own: string): string => `children.row${line}.${own}`;
    form.field({ kind: 'text', name: name('name'), tip: `Name of child ${line}`, boxes: [[0, box(56, y, 240)]] }, `Name of child ${line}`);
    form.field({ kind: 'text', name: name('age'), tip: `Age of child ${line}`, align: 1, boxes: [[0, box(306, y, 50)]] }, 'Age');
    form.field({ kind: 'text', name: name('bed'), tip: `Bed of child ${line}`, boxes: [[0, box(366, y, 173)]] }, 'Bed');
  }
  form.heading(336, '3  The sign at the bed');
  form.field({ kind: 'picture', name: 'children.sign', tip: 'Sign at the bed', boxes: [[0, box(56, 352, 120, 120)]] });
  form.paragraph(196, 372, [
    'Each family paints a sign for its bed in the spring.',
    'Whoever cannot read yet finds the bed by it.',
    'A sheet has lines for three children; further ones stand on another sheet.',
  ]);
  form.field(
    { kind: 'signature', name: 'children.office', tip: 'Signature of the office', boxes: [[0, box(56, 520, 220, 60)]] },
    'For the office',
  );
  return form.bytes();
}
