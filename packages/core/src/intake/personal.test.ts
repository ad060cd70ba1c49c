import type { FillRule } from '../map/registry.js';
import type { Column, SourceRecord } from '../tables/record.js';
import { typedText } from '../tables/typed-text.js';
import type { IntakePlan, IntakeQuestion } from './intake.js';
import { addedQuestion } from './make-intake.js';
import type { MadeIntake } from './make-intake.js';
import { intakeColumns } from './answer-record.js';
import { planAsking } from '../testing/intake-plan.js';
import { alignWithMailing, answerChanges, knownAnswers, knownBeside } from './personal.js';

const column = (name: string): FillRule => ({ kind: 'column', column: name });
const question = (id: string, name: string, kind: IntakeQuestion['kind'], more: Partial<IntakeQuestion> = {}): IntakeQuestion => ({
  ...addedQuestion(id, name, name, kind),
  ...more,
});
const planOf = (...questions: IntakeQuestion[]): IntakePlan => planAsking(questions);
const made = (plan: IntakePlan, maps: MadeIntake['maps']): MadeIntake => ({ plan, maps, pictures: [], left: [] });
const columnsOf = (...names: string[]): Column[] =>
  names.map((name) => ({ name, slug: name.toLowerCase(), kind: 'text', values: 0, samples: [] }) as unknown as Column);
const record = (...texts: string[]): SourceRecord => ({ row: 1, cells: texts.map((text) => typedText(text)) });

test('questions take the columns that fill the same fields, and the others make room for them', () => {
  const { plan, maps, recordWords } = alignWithMailing(
    made(planOf(question('q1', 'Full name', 'text'), question('q2', 'Name', 'text'), question('q3', 'E-mail address', 'e-mail')), {
      7: { holder: column('Full name'), witness: column('Name') },
    }),
    { maps: { 7: { holder: column('Name') } }, addressColumn: 'Mail', columns: [] },
  );
  expect(Object.values(plan.questions).map((one) => one.column)).toEqual(['Name', 'Name (2)', 'Mail']);
  expect(maps[7]).toEqual({ holder: column('Name'), witness: column('Name (2)') });
  expect(recordWords).toEqual({});
});

test('what the records say of a tick is told by what maps it', () => {
  const [own, theirs] = [
    [
      { from: 'yes', to: 'On' },
      { from: 'no', to: 'Off' },
    ],
    [
      { from: 'mit Laube', to: 'On' },
      { from: 'ohne', to: 'Off' },
    ],
  ];
  const { plan, recordWords } = alignWithMailing(
    made(planOf(question('q1', 'Shed', 'yes or no')), { 7: { shed: { kind: 'translate', column: 'Shed', table: own! } } }),
    { maps: { 7: { shed: { kind: 'translate', column: 'Laube', table: theirs! } } }, addressColumn: null, columns: [] },
  );
  expect(recordWords).toEqual({ q1: { yes: 'mit Laube', no: 'ohne' } });
  const columns = columnsOf('Laube');
  expect(knownAnswers(plan, recordWords, columns, record('Mit  Laube'))).toEqual({ q1: 'yes' });
  expect(answerChanges(plan, recordWords, columns, record('mit Laube'), { q1: 'no' }, '2027-01-02')).toEqual([
    { column: 'Laube', was: 'mit Laube', now: 'ohne' },
  ]);
});

test('what is put together of several columns is asked as these, each once', () => {
  const whole: FillRule = { kind: 'compose', parts: [{ column: 'First' }, { text: ' ' }, { column: 'Last' }] };
  const both = planOf(question('q1', 'Full name', 'text'), question('q2', 'Town', 'text'), question('q3', 'Holder', 'text'));
  const { plan, maps, recordWords } = alignWithMailing(
    made(both, { 7: { name: column('Full name'), town: column('Town'), holder: column('Holder') } }),
    { maps: { 7: { name: whole, town: column('Last'), holder: whole } }, addressColumn: null, columns: [] },
  );
  expect(plan.sections[0]!.questions.map((id) => [plan.questions[id]!.column, plan.questions[id]!.isAway])).toEqual([
    ['First', false],
    ['Last', false],
    ['Holder', true],
  ]);
  expect(maps[7]).toEqual({ name: whole, town: column('Last'), holder: whole });
  expect(knownAnswers(plan, recordWords, columnsOf('First', 'Last'), record('Fine', 'Quist'))).toEqual({ q1: 'Fine', q2: 'Quist' });
});

test('what the mailing works out is not asked, and filled as the mailing fills it from what is known', () => {
  const sum: FillRule = { kind: 'arithmetic', do: 'sum', of: [column('Rent'), column('Water')], round: null, empty: 'stop' } as never;
  const { plan, maps } = alignWithMailing(
    made(planOf(question('q1', 'To pay', 'amount'), question('q2', 'Today', 'date'), question('q3', 'Signed on', 'date')), {
      7: { pay: column('To pay'), day: column('Today'), signed: column('Signed on') },
    }),
    {
      maps: { 7: { pay: sum, day: { kind: 'copy-fact', fact: 'today' }, signed: { kind: 'blank' } } },
      addressColumn: null,
      columns: ['Rent', 'Water'],
    },
  );
  expect(Object.values(plan.questions).map(({ column: own, isAway }) => [own, isAway])).toEqual([
    ['To pay', true],
    ['Today', true],
    ['Signed on', false],
  ]);
  expect(plan.questions.q1!.doubt).toBe('The mailing works this out from Rent, Water, so it is not asked.');
  expect(maps[7]).toEqual({ pay: sum, day: { kind: 'copy-fact', fact: 'today' }, signed: column('Signed on') });
  const own = {
    ...plan,
    personal: {
      mailingId: 1,
      site: '',
      until: null,
      ask: '',
      accept: 'person' as const,
      round: 1,
      columns: ['Rent', 'Water'],
      recordWords: {},
    },
  };
  expect(intakeColumns(own)).toEqual(['Submission', 'Received', 'To pay', 'Today', 'Signed on', 'Rent', 'Water']);
  expect(knownBeside(own, columnsOf('Rent', 'Water', 'Secret'), record('20', ' 3 ', 'x'))).toEqual({ Rent: '20', Water: '3' });
});

const kinds = planOf(
  question('born', 'Born', 'date'),
  question('kind', 'Kind', 'one of', { options: [{ value: 'whole year', say: 'The whole year' }] }),
  question('tools', 'Tools', 'some of', {
    options: [
      { value: 'spade', say: 'Spade' },
      { value: 'hoe', say: 'Hoe' },
    ],
  }),
  question('shed', 'Shed', 'yes or no'),
  question('sign', 'Signature', 'signature'),
  question('bees', 'Bees', 'number', { when: { of: column('Shed'), test: 'is', values: ['yes'] } }),
);
const names = columnsOf('Born', 'Kind', 'Tools', 'Shed', 'Signature', 'Bees');

test('every kind of answer is known by what the record says, and what cannot be an answer is asked', () => {
  const answers = record('1990-03-12', 'the whole  year', 'Hoe; spade', 'X', 'old.png', '3');
  expect(knownAnswers(kinds, {}, names, answers)).toEqual({
    born: '12.03.1990',
    kind: 'whole year',
    tools: ['hoe', 'spade'],
    shed: 'yes',
    bees: '3',
  });
  expect(knownAnswers(kinds, {}, names, record('soon', 'summer', 'hoe, rake', 'perhaps', '', ''))).toEqual({});
});

test('only what is said otherwise changes the record: not a date in another order, not what is hidden or was never known', () => {
  const known = record('1990-03-12', 'summer', 'spade', 'no', '', '3');
  const same = { born: '12/03/1990', tools: ['spade'], shed: 'no', bees: '9' };
  expect(answerChanges(kinds, {}, names, known, same, '2027-01-02')).toEqual([]);
  expect(answerChanges(kinds, {}, names, known, { ...same, born: '13.3.1990', tools: ['spade', 'hoe'] }, '2027-01-02')).toEqual([
    { column: 'Born', was: '1990-03-12', now: '1990-03-13' },
    { column: 'Tools', was: 'spade', now: 'spade, hoe' },
  ]);
  // Shown now, since the shed is said to be there.
  expect(answerChanges(kinds, {}, names, known, { ...same, shed: 'yes' }, '2027-01-02')).toEqual([
    { column: 'Shed', was: 'no', now: 'yes' },
    { column: 'Bees', was: '3', now: '9' },
  ]);
  expect(answerChanges(kinds, {}, names, known, { ...same, born: '' }, '2027-01-02')).toEqual([
    { column: 'Born', was: '1990-03-12', now: '' },
  ]);
});
