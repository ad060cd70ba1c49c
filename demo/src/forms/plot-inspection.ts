import { FormWriter } from './form-writer.js';

/** One page that is filled by hand so far: lines, ticks, a place for remarks and one for a signature, and no field. */
export function plotInspection(): Uint8Array {
  const form = new FormWriter('Plot inspection').page();
  form.text(56, 70, 'Plot inspection', { size: 20, bold: true }).text(56, 86, 'Larkmere Allotment Office', { size: 9, grey: 0.35 });
  form.heading(118, '1  Plot');
  form.text(56, 146, 'Plot').rule(84, 149, 200).text(310, 146, 'Inspected on').rule(376, 149, 163);
  form.text(56, 174, 'Tenant').rule(96, 177, 443);
  form.heading(210, '2  What was found');
  for (const [index, words] of ['Paths are kept open', 'Hedge is below 1.2 m', 'Water butt is covered', 'Shed is in good order'].entries())
    form.square({ x: 56, y: 222 + index * 22, w: 11, h: 11 }).text(76, 231 + index * 22, words, { size: 9 });
  form.text(56, 328, 'Remarks');
  for (const y of [352, 374, 396]) form.rule(56, y, 483);
  form.heading(430, '3  What is to be done');
  form.text(56, 460, 'To be mended by').rule(144, 463, 140);
  form.rule(56, 540, 180).text(56, 552, 'Inspector', { size: 8, grey: 0.35 });
  form.rule(310, 540, 229).text(310, 552, 'Signature', { size: 8, grey: 0.35 });
  return form.bytes();
}
