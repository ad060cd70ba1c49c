import { field } from '../testing/field.js';
import type { FieldMap } from '../map/field-map.js';
import type { SourceRecord } from '../tables/record.js';
import { randomPlaces } from './picks.js';
import type { Counted } from './survey.js';
import { MOST_COUNTED, MapSurvey, countedRecords } from './survey.js';

const batch = { batch: 1, today: '2027-01-02', locale: 'en-GB', zone: 'UTC' };
const columns = ['Name', 'Shed'].map((name) => ({ name }));
const record = (row: number, ...texts: string[]): SourceRecord => ({ row, cells: texts.map((text) => ({ text, value: text })) });
const fields = [field('name'), field('shed', { kind: 'checkbox', onValues: ['On'] }), field('no-rule'), field('number')];
const map: FieldMap = {
  name: { kind: 'column', column: 'Name' },
  shed: { kind: 'translate', column: 'Shed', table: [{ from: 'yes', to: 'On' }, { from: 'no', to: 'Off' }] }, // prettier-ignore
  number: { kind: 'copy-fact', fact: 'number' },
};
const records = [
  record(2, 'Ada', 'yes'),
  record(3, 'Bea Brandt', 'no'),
  record(4, '', ''),
  record(5, 'Ada', 'perhaps'),
  record(6, 'Cleo', 'yes'),
];

test('a survey counts what each field takes: the usual values, the empty, those that cannot be, the longest', () => {
  const survey = new MapSurvey([{ fields, map }], columns, batch);
  records.forEach((one, index) => survey.see(one, index));
  const { fields: told, ...rest } = survey.done();
  expect(rest).toEqual({ records: 5, longest: 1, emptiest: 2 });
  expect(told.map((one) => one.field)).toEqual(['name', 'shed', 'number']);
  expect(told[0]).toMatchObject({
    template: 0,
    empty: 1,
    stopped: 0,
    distinct: 3,
    values: [{ value: 'Ada', count: 2, index: 0 }, { value: 'Bea Brandt', count: 1, index: 1 }, { value: 'Cleo' }],
    longest: { value: 'Bea Brandt', index: 1 },
  });
  expect(told[1]).toMatchObject({ empty: 2, stopped: 1, distinct: 1, values: [{ value: 'On', count: 2, index: 0 }] });
  // Every number is the number of the list behind it.
  const counts: [string, Counted, number[]][] = [
    ['name', { of: 'empty' }, [2]],
    ['name', { of: 'value', value: 'Ada' }, [0, 3]],
    ['shed', { of: 'empty' }, [1, 2]],
    ['shed', { of: 'stopped' }, [3]],
    ['shed', { of: 'value', value: 'On' }, [0, 4]],
    ['number', { of: 'value', value: '4' }, [3]],
    ['no-rule', { of: 'empty' }, []],
  ];
  for (const [name, counted, places] of counts) {
    const isIn = countedRecords({ fields, map }, name, counted, columns, batch);
    expect(records.flatMap((one, index) => (isIn(one, index) ? [index] : []))).toEqual(places);
  }
});

test('of very many values only so many are counted one by one, and the longest is found all the same', () => {
  const survey = new MapSurvey([{ fields, map }], columns, batch);
  for (let index = 0; index < MOST_COUNTED + 50; index++) survey.see(record(index + 2, `Tenant ${index}`, 'yes'), index);
  survey.see(record(9999, 'Someone with a much longer name', 'yes'), 9999);
  const [name, shed] = survey.done().fields;
  expect(name).toMatchObject({ distinct: MOST_COUNTED, longest: { value: 'Someone with a much longer name', index: 9999 } });
  expect(name!.values).toHaveLength(12);
  expect(shed!.values).toEqual([{ value: 'On', count: MOST_COUNTED + 51, index: 0 }]);
});

test('records by chance are the same for the same seed, each once, and spread over all', () => {
  expect(randomPlaces(480, 6, 1)).toEqual(randomPlaces(480, 6, 1));
  expect(randomPlaces(480, 6, 1)).not.toEqual(randomPlaces(480, 6, 2));
  expect(randomPlaces(3, 10, 7)).toEqual([0, 1, 2]);
  expect(randomPlaces(0, 5, 7)).toEqual([]);
  const drawn = Array.from({ length: 400 }, (_, seed) => randomPlaces(100, 5, seed)).flat();
  expect(new Set(drawn).size).toBe(100);
  expect(drawn.reduce((sum, one) => sum + one, 0) / drawn.length).toBeCloseTo(49.5, -1);
});
