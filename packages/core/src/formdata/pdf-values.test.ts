import { formOf, stream } from '../../../../testing/raw-form.js';
import { readFilledPdf } from './pdf-values.js';

const box = (name: string, x: number, width: number, value: string, limit: number): string =>
  `/FT/Tx/T(${name})/MaxLen ${limit}/V(${value})/Rect[${x} 150 ${x + width} 166]/DA(/Helv 10 Tf 0 g)`;
const print =
  'BT /F1 9 Tf 1 0 0 1 20 154 Tm (Registration number) Tj ET BT /F1 9 Tf 1 0 0 1 142 154 Tm (-) Tj ET BT /F1 9 Tf 1 0 0 1 172 154 Tm (-) Tj ET';
const printed = { page: '/Contents 8 0 R/Resources<</Font<</F1 4 0 R>>>>', more: [stream('', print)] };

test('a filled form is read box by box, and what stands over several boxes once more as a whole', async () => {
  const form = formOf([box('f1', 110, 30, '123', 3), box('f2', 148, 22, '45', 2), box('f3', 178, 40, '6789', 4)], printed);
  const record = await readFilledPdf(form, 'form.pdf');
  expect([...record].map(([name, { text }]) => [name, text])).toEqual([
    ['f1', '123'],
    ['f2', '45'],
    ['f3', '6789'],
    ['Registration number', '123456789'],
  ]);
});

test('boxes without a value make no whole of nothing', async () => {
  const form = formOf([box('f1', 110, 30, '', 3), box('f2', 148, 22, '', 2), box('f3', 178, 40, '', 4)], printed);
  expect((await readFilledPdf(form, 'form.pdf')).get('Registration number')).toEqual({ text: '', value: null });
});
