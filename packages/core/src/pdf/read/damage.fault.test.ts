import { shedPermit } from '../../../../../demo/src/forms/shed-permit.js';
import { formsByOthers } from '../../../../../testing/forms-by-others.js';
import { isMailbagError } from '../../errors/catalogue.js';
import { damaged } from '../../testing/damage.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { formOf, stream } from '../../../../../testing/raw-form.js';
import type { CompileOptions } from '../plan/compile.js';
import type { Finish } from '../finish.js';
import { compileTemplate } from '../plan/compile.js';
import { isFillable } from '../field.js';
import { fillCopy } from '../fill/fill.js';
import { inspectTemplate } from './inspect.js';

let options: CompileOptions;
let forms: Uint8Array[];
beforeAll(async () => {
  // The library tells on the console what it leaves out.
  jest.spyOn(console, 'warn').mockImplementation(() => undefined);
  options = { fonts: await testFonts(), faces: testFaces() };
  forms = [
    shedPermit(),
    ...(await Promise.all(Object.values(formsByOthers).map((make) => make()))),
    formOf(['/FT/Tx/T(a)/Rect[10 10 90 30]/V(kept)', '/FT/Btn/T(b)/Rect[10 40 20 50]'], {
      page: '/Contents 7 0 R',
      more: [stream('', 'q 0 g 5 5 5 5 re f Q')],
    }),
  ];
});

/** DAMAGED=10000 runs as many. */
const COUNT = Number(process.env.DAMAGED ?? 1500);

test(`${COUNT} randomly damaged forms end in a copy or in an error of the catalogue, each within two seconds`, async () => {
  const ends = new Map<string, number>();
  const wrong: string[] = [];
  for (let seed = 1; seed <= COUNT; seed++) {
    const bytes = damaged(forms[seed % forms.length]!, seed);
    // Time of the processor, so that a machine that is busy elsewhere changes nothing.
    const from = process.cpuUsage();
    let cause: unknown;
    const end = await compileTemplate(bytes, { ...options, finish: (['flattened', 'locked', 'open'] as Finish[])[seed % 3]! })
      .then((compiled) => {
        const fillable = compiled.description.fields.filter(isFillable);
        const copy = fillCopy(
          compiled,
          Object.fromEntries(fillable.map((field) => [field.name, field.onValues[0] ?? field.options[0]?.value ?? 'Abc'])),
        );
        return copy.bytes.length > 0 ? 'copy' : 'nothing';
      })
      .catch((error: unknown) => {
        cause = isMailbagError(error) ? error.cause : undefined;
        return isMailbagError(error) ? error.code : `seed ${seed}: ${String(error)}`;
      });
    const { user, system } = process.cpuUsage(from);
    const time = (user + system) / 1000;
    ends.set(end, (ends.get(end) ?? 0) + 1);
    if (end.startsWith('seed') || end === 'nothing') wrong.push(end);
    // A fault of our own is no damage of the file.
    if (cause instanceof TypeError || cause instanceof RangeError) wrong.push(`seed ${seed}: ${cause.stack}`);
    if (time > 2000) wrong.push(`seed ${seed}: ${Math.round(time)} ms`);
  }
  expect(wrong).toEqual([]);
  // Most damage is small, and most of what is damaged a little can still be filled.
  expect(ends.get('copy')! / COUNT).toBeGreaterThan(0.6);
  if (process.env.DAMAGED) console.log(Object.fromEntries(ends), Math.round(process.memoryUsage.rss() / 1048576), 'MB');
}, 1_200_000);

describe('a torn file is put together again', () => {
  const whole = shedPermit();
  const text = Buffer.from(whole).toString('latin1');
  const names = async (file: string): Promise<string[]> =>
    (await inspectTemplate(Uint8Array.from(file, (char) => char.charCodeAt(0)))).fields.map(({ name }) => name);

  test.each([
    ['without its cross-reference and trailer', (file: string) => file.slice(0, file.lastIndexOf('xref\n0'))],
    [
      'with a cross-reference that leads elsewhere',
      (file: string) => file.replace(/(\d{10}) 00000 n/g, (_, at: string) => `${String(Number(at) + 17).padStart(10, '0')} 00000 n`),
    ],
    ['with something in front of it', (file: string) => `HTTP/1.1 200 OK\r\n\r\n${file}`],
    ['without the node of its page tree', (file: string) => file.replace('/Type/Pages', '/Type/Pagez')],
    ['without its catalog', (file: string) => file.replace('/Type/Catalog', '/Type/Katalog')],
  ])('%s', async (_name, tear) => {
    const found = await names(tear(text));
    expect(found).toEqual(expect.arrayContaining(['permit.plot', 'permit.shed', 'permit.conditions']));
  });
});
