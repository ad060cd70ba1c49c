import { calculate, recogniseCalculation } from './calculation.js';

const values: Record<string, string> = {
  a: '2',
  b: '3.5',
  'rate.low': '10',
  'rate.high': '30',
  name: 'Ada',
  none: '',
  'Net price': '100',
  tick: 'Off',
};
const worked = (script: string): string | null => {
  const calculation = recogniseCalculation(script);
  return calculation && calculate(calculation, Object.keys(values), (name) => values[name] ?? null);
};

// What the published PDF script API and JavaScript (ECMA-262) make of the same scripts.
test.each([
  ['AFSimple_Calculate("SUM", new Array("a", "b"));', '5.5'],
  ['AFSimple_Calculate("AVG", ["a", "b", "none"])', '1.833333'],
  ['/* total */ AFSimple_Calculate("PRD", "a, b"); // done', '7'],
  ['AFSimple_Calculate("SUM", ["rate"])', '40'],
  ['AFSimple_Calculate("MAX", ["a"]); AFSimple_Calculate("MIN", ["b"]);', '3.5'],
  ['if (event.value != 0) { AFSimple_Calculate("SUM", new Array("a")); } else AFSimple_Calculate("SUM", new Array("b"));', '3.5'],
  ['event.value = this.getField("a").value + this.getField("b").value;', '5.5'],
  ['event.value = getField("a").value * (getField("b").value - 1) / 2', '2.5'],
  ['var x = Number(this.getField("a").value); var y = x * 0.19; event.value = (x + y).toFixed(2);', '2.38'],
  ['var f = this.getField("none").value; if (f == "") event.value = ""; else event.value = f * 2', ''],
  ['event.value = this.getField("a").value > 1 ? "yes" : "no"', 'yes'],
  ['event.value = Math.round(this.getField("b").value * 1.5 * 100) / 100', '5.25'],
  ['AFSimple_Calculate("SUM", ["a"]); if (event.value == 2) event.value = event.value * 10;', '20'],
  ['/** BVCALC a + b * 2 EVCALC **/ event.value = AFMakeNumber(getField("a").value) + 99;', '9'],
  ['/** BVCALC Net\\ price / a + none EVCALC **/', '50'],
  ['event.value = this.getField("name").value + " " + this.getField("a").value', 'Ada 2'],
  ['event.value = this.getField("a").value / this.getField("none").value', ''],
])('%s gives %p', (script, expected) => {
  expect(worked(script)).toBe(expected);
});

test.each([
  'app.alert("hello"); event.value = getField("a").value',
  'for (var i = 0; i < 9; i++) event.value = i',
  'event.value = 3',
  'event.value = eval("1")',
  'while (true) {}',
  'event.value = this.getField("a").rect',
  'AFSimple_Calculate("POW", ["a"])',
  `event.value = ${'('.repeat(500)}1${')'.repeat(500)}`,
  '/* never ends',
  '',
])('%s is beyond working out a value from fields', (script) => {
  expect(recogniseCalculation(script)).toBeNull();
});

test('inputs that are all empty give nothing', () => {
  const calculation = recogniseCalculation('AFSimple_Calculate("SUM", ["a", "b"])')!;
  expect(calculate(calculation, ['a', 'b'], () => '')).toBe('');
});
