import { Script, createContext } from 'node:vm';
import { calculate, recogniseCalculation } from './calculation.js';

/** A random source that says the same at each run (Park and Miller, 1988). */
function randomOf(seed: number): <T>(choices: readonly T[]) => T {
  let state = seed;
  return (choices) => choices[(state = (state * 48_271) % 2_147_483_647) % choices.length]!;
}

const fields: Record<string, string> = { a: '2', b: '3.5', c: '-7', d: '0', name: 'Ada', blank: '', big: '1234567' };

/** What a JavaScript engine that is not ours makes of a script (V8, ECMA-262), with the two things that a form offers it: fields and the event. */
function byEngine(script: string): string {
  const event: { value: unknown } = { value: '' };
  const valueOf = (name: string): string | number => {
    const text = fields[name] ?? '';
    return text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : text;
  };
  const getField = (name: string): { value: string | number } => ({ value: valueOf(name) });
  new Script(script).runInContext(createContext({ event, getField }), { timeout: 1000 });
  const { value } = event;
  if (typeof value === 'number') return Number.isFinite(value) ? String(Math.round(value * 1e6) / 1e6) : '';
  return typeof value === 'string' ? value : '';
}
function byOurs(script: string): string | null {
  const calculation = recogniseCalculation(script);
  return calculation && calculate(calculation, Object.keys(fields), (name) => fields[name] ?? null);
}

/** An expression of numbers, fields, operators and functions, as authors of forms write them. */
function expression(pick: ReturnType<typeof randomOf>, depth: number): string {
  const inner = (): string => expression(pick, depth - 1);
  if (depth === 0) return pick(['1', '0', '2.5', '100', '.5', ...['a', 'b', 'c', 'd', 'big'].map((name) => `getField("${name}").value`)]);
  return pick<() => string>([
    () => `(${inner()} ${pick(['+', '-', '*', '/', '%'])} ${inner()})`,
    () => `${inner()} ${pick(['+', '-', '*'])} ${inner()}`,
    () => `(${inner()} ${pick(['<', '>', '<=', '>=', '==', '!=', '===', '!=='])} ${inner()} ? ${inner()} : ${inner()})`,
    () => `Math.${pick(['round', 'floor', 'ceil', 'abs'])}(${inner()})`,
    () => `Math.${pick(['min', 'max'])}(${inner()}, ${inner()})`,
    () => `-(${inner()})`,
    () => `Number(${inner()})`,
    () => `(${inner()} && ${inner()} ? ${inner()} : ${inner()})`,
    () => `(!(${inner()}) || ${inner()} ? ${inner()} : ${inner()})`,
  ])();
}

test.each(Array.from({ length: 20 }, (_, at) => at + 1))(
  'scripts that work out a number give what a JavaScript engine makes of them, row %i',
  (seed) => {
    const pick = randomOf(seed * 7919);
    let known = 0;
    for (let count = 0; count < 60; count++) {
      const script = pick<() => string>([
        () => `event.value = ${expression(pick, 3)} + 0 * getField("a").value;`,
        () => `var x = ${expression(pick, 2)}; event.value = x + getField("b").value;`,
        () =>
          `if (${expression(pick, 1)} > ${expression(pick, 1)}) event.value = ${expression(pick, 2)}; else event.value = getField("c").value;`,
        () => `var t = 0; t += ${expression(pick, 1)}; t *= ${expression(pick, 1)}; event.value = t - getField("d").value;`,
      ])();
      const ours = byOurs(script);
      if (ours === null) continue;
      known++;
      expect([script, ours]).toEqual([script, byEngine(script)]);
    }
    // Nearly all that is written so is understood.
    expect(known).toBeGreaterThan(50);
  },
);

test.each([
  'event.value = getField("name").value + " lives here";',
  'event.value = "No. " + getField("a").value + "/" + getField("b").value;',
  'event.value = getField("blank").value + getField("a").value;',
  'event.value = getField("blank").value == "" ? getField("a").value : "some";',
  'event.value = Number(getField("name").value) + getField("a").value;',
  'event.value = +getField("blank").value + getField("a").value;',
  'event.value = parseFloat("12 kg") + getField("a").value;',
  'event.value = parseFloat(getField("blank").value) + getField("a").value;',
  'event.value = parseInt(getField("b").value) + getField("a").value;',
  'event.value = getField("name").value < "Bea" ? "before" : "after";',
  "var s = getField('name').value; if (s != '') { event.value = s } else { event.value = getField('a').value }",
  'event.value = (getField("b").value * 3).toFixed(1);',
  'event.value = (1 / 3 + getField("d").value).toFixed(4);',
  'event.value = getField("c").value % 4;',
  'event.value = getField("a").value / getField("d").value;',
  'event.value = getField("big").value * getField("big").value;',
])('%s', (script) => expect([script, byOurs(script)]).toEqual([script, byEngine(script)]));
