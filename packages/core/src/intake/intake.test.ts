import type { Condition } from '../map/condition.js';
import { rowReader } from '../map/row.js';
import { evaluateRule } from '../map/registry.js';
import type { Answer } from '../answers/answer.js';
import type { Field } from '../pdf/field.js';
import { field } from '../testing/field.js';
import { someContext } from '../testing/context.js';
import { answerFault, answerFaults } from './answer-faults.js';
import { answerRecord, intakeColumns, receivedText } from './answer-record.js';
import { answerText } from './answer-text.js';
import type { AnswerValue, IntakeAnswers, IntakePlan } from './intake.js';
import { addedQuestion, makeIntake } from './make-intake.js';
import { dependencyLoop, shownSections } from './shown-questions.js';

const alone = (own: Field, section: string | null = null): Answer => ({
  label: own.label,
  section,
  reason: 'alone',
  parts: [{ field: own.name, piece: null, option: null }],
});
const labelled = (name: string, label: string, more: Partial<Field> = {}): Field =>
  field(name, { label, labelFrom: 'print', page: 1, widgets: [{ page: 1, rect: [0, 0, 120, 20], hidden: false }] as never, ...more });

const made = (fields: readonly Field[], answers: readonly Answer[] = fields.map((one) => alone(one))) =>
  makeIntake('Ask', [{ id: 7, name: 'Form', fields: [...fields], answers: [...answers] }]);
const questionsIn = ({ plan }: { plan: IntakePlan }) =>
  plan.sections.flatMap(({ questions }) => questions.map((id) => plan.questions[id]!));
/** What fields take of answers, by their names, as a batch would fill them. */
function filled({ plan, maps }: ReturnType<typeof made>, fields: readonly Field[], answers: IntakeAnswers): Record<string, unknown> {
  const columns = intakeColumns(plan);
  const values = answerRecord(plan, answers, '2027-01-02');
  const cells = columns.map((name) => ({ text: values[name] ?? '', value: values[name] || null }));
  const row = rowReader(columns.map((name) => ({ name })))({ row: 1, cells });
  return Object.fromEntries(
    fields.map((one) => [one.name, maps['7']![one.name] && evaluateRule(maps['7']![one.name]!, one, row, someContext).value]),
  );
}

// The rules of summer time are those of the IANA time zone database.
test.each([
  ['UTC', '2027-01-01T23:30:40.000Z', '2027-01-01 23:30'],
  ['Europe/Berlin', '2027-01-01T23:30:40.000Z', '2027-01-02 00:30'],
  ['Europe/Berlin', '2027-07-01T09:05:00.000Z', '2027-07-01 11:05'],
  ['Pacific/Kiritimati', '2027-01-01T10:00:00.000Z', '2027-01-02 00:00'],
  ['America/New_York', '2027-01-02T04:59:59.000Z', '2027-01-01 23:59'],
])('in %s what came in at %s came in at %s', (zone, at, text) => expect(receivedText(at, zone)).toBe(text));

describe('made in one step', () => {
  const born = ['d', 'm', 'y'].map((name) => labelled(`born_${name}`, 'Born'));
  const bornAnswer: Answer = {
    label: 'Date of birth',
    section: 'You',
    reason: 'date',
    parts: (['day', 'month', 'year'] as const).map((what, at) => ({ field: born[at]!.name, piece: { what }, option: null })),
  };
  const pays = ['once', 'twice'].map((name) => labelled(`pay_${name}`, name, { kind: 'checkbox', onValues: ['On'] }));
  const paysAnswer: Answer = {
    label: 'How often do you pay?',
    section: 'Money',
    reason: 'one-of',
    parts: pays.map(({ name, label }) => ({ field: name, piece: null, option: { value: 'On', label: label! } })),
  };
  const name = labelled('name', 'Full name', { flags: ['required'], maxLength: 40 });
  const fields = [name, ...born, ...pays];
  const intake = made(fields, [alone(name, 'You'), bornAnswer, paysAnswer]);

  test('questions stand under the headings of the form, pieces of one answer are one question, and an e-mail address is asked for', () => {
    expect(intake.plan.sections.map(({ title, questions }) => [title, questions.map((id) => intake.plan.questions[id]!.words)])).toEqual([
      ['You', ['Full name', 'Date of birth', 'E-mail address']],
      ['Money', ['How often do you pay?']],
    ]);
    expect(questionsIn(intake).map(({ kind, required, limit }) => [kind, required, limit])).toEqual([
      ['text', true, 40],
      ['date', false, null],
      ['e-mail', true, null],
      ['one of', false, null],
    ]);
  });

  test('each box takes its part of what was answered', () => {
    const [full, birth, , pay] = questionsIn(intake);
    expect(filled(intake, fields, { [full!.id]: ' Ada Quist ', [birth!.id]: '5.3.1984', [pay!.id]: 'twice' })).toEqual({
      name: 'Ada Quist',
      born_d: '05',
      born_m: '03',
      born_y: '1984',
      pay_once: false,
      pay_twice: 'On',
    });
  });

  test.each<[string, Partial<Field>, AnswerValue, unknown]>([
    ['a tick', { kind: 'checkbox', onValues: ['Checked'] }, 'yes', 'Checked'],
    ['a tick that is not set', { kind: 'checkbox', onValues: ['Checked'] }, 'no', false],
    ['a menu whose words are not what it stores', { kind: 'combo', options: [{ value: 'FR', label: 'France, mainland' }] }, 'France mainland', 'FR'],
    ['a radio of yes and no, in whatever order', { kind: 'radio', onValues: ['0', '1'], options: [{ value: '0', label: 'Nein' }, { value: '1', label: 'Ja' }] }, 'yes', '1'],
    ['a date that the box wants in another order', { label: 'Date of birth (MM/DD/YYYY)' }, '5.3.1984', '03/05/1984'],
    ['a date in a comb of eight', { label: 'Date of birth', maxLength: 8 }, '5.3.1984', '05031984'],
    ['an account in groups of four', { label: 'IBAN', maxLength: 22 }, 'de89 3704 0044 0532 0130 00', 'DE89370400440532013000'],
  ])('%s', (_, more, answer, value) => {
    const one = labelled('box', 'Label', more);
    const single = made([one]);
    expect(filled(single, [one], { [questionsIn(single)[0]!.id]: answer })).toEqual({ box: value });
  }); // prettier-ignore

  test('what the office fills in is put away with the reason; words that no form prints are doubted', () => {
    const [place] = questionsIn(made([labelled('p', 'Place and date')]));
    expect(place).toMatchObject({ kind: 'text' });
    const [office, bare] = questionsIn(made([labelled('o', 'For office use only'), labelled('f1_07', 'f1_07', { labelFrom: 'name' })]));
    expect(office).toMatchObject({ isAway: true, doubt: expect.stringMatching(/office fills this in/) });
    expect(bare).toMatchObject({ isAway: false, doubt: expect.stringMatching(/name of the field/) });
  });

  test('columns are unlike one another, also where the same is asked twice', () => {
    const columns = questionsIn(made([labelled('a', 'Name'), labelled('b', 'Name'), labelled('c', 'Submission')])).map(
      ({ column }) => column,
    );
    expect(columns).toEqual(['Name', 'Name (2)', 'Submission (2)', 'E-mail address']);
  });
});

describe('conditions', () => {
  const when = (column: string, ...values: string[]): Condition => ({ of: { kind: 'column', column }, test: 'is', values });
  const plan = ((): IntakePlan => {
    const { plan: empty } = made([labelled('x', 'X')]);
    const shed = { ...addedQuestion('shed', 'Shed', 'A shed?', 'yes or no'), required: true };
    const roof = { ...addedQuestion('roof', 'Roof', 'Which roof?', 'text'), required: true, when: when('Shed', 'yes') };
    const tiles = { ...addedQuestion('tiles', 'Tiles', 'Which tiles?', 'text'), required: true, when: when('Roof', 'tiled') };
    return {
      ...empty,
      sections: [{ id: 's', title: 'S', when: null, questions: ['shed', 'roof', 'tiles'] }],
      questions: { shed, roof, tiles },
    };
  })();
  const shown = (answers: IntakeAnswers, of = plan): string[] =>
    shownSections(of, answers, '2027-01-02').flatMap(({ questions }) => questions.map(({ id }) => id));

  test('what hangs on a hidden question is hidden too, whatever was answered there before', () => {
    expect(shown({ shed: 'yes', roof: 'tiled' })).toEqual(['shed', 'roof', 'tiles']);
    expect(shown({ shed: 'no', roof: 'tiled', tiles: 'red' })).toEqual(['shed']);
    expect(answerRecord(plan, { shed: 'no', roof: 'tiled', tiles: 'red' }, '2027-01-02')).toEqual({ Shed: 'no' });
    expect(answerFaults(plan, { shed: 'no' }, '2027-01-02', '')).toEqual([]);
    expect(answerFaults(plan, { shed: 'yes' }, '2027-01-02', '').map(({ question, code }) => [question, code])).toEqual([
      ['roof', 'missing'],
    ]);
  });

  test('a section can be for some only, and questions that stand later count', () => {
    const sections = [
      { ...plan.sections[0]!, questions: ['roof', 'tiles'], when: when('Shed', 'yes') },
      { id: 't', title: 'T', when: null, questions: ['shed'] },
    ];
    expect(shown({ shed: 'yes', roof: 'flat' }, { ...plan, sections })).toEqual(['roof', 'shed']);
    expect(shown({ shed: 'no', roof: 'flat' }, { ...plan, sections })).toEqual(['shed']);
  });

  test('a circle is found, with the questions in it', () => {
    expect(dependencyLoop(plan)).toBeNull();
    const questions = { ...plan.questions, shed: { ...plan.questions['shed']!, when: when('Tiles', 'red') } };
    expect(dependencyLoop({ ...plan, questions })!.map(({ id }) => id)).toEqual(['shed', 'tiles', 'roof', 'shed']);
    expect(shown({ shed: 'yes' }, { ...plan, questions })).toEqual([]);
  });
});

describe('answers', () => {
  const ask = (kind: Parameters<typeof addedQuestion>[3], more = {}) => ({ ...addedQuestion('q', 'Q', 'Q', kind), ...more });
  const pixel = 'data:image/png;base64,iVBORw0KGgo=';
  test.each<[ReturnType<typeof ask>, AnswerValue, string | null]>([
    [ask('text', { limit: 3 }), 'Ada', null],
    [ask('text', { limit: 3 }), 'Adam', 'too-long'],
    [ask('text', { limit: 2 }), '👩🏽‍🌾', 'too-long'],
    [ask('date'), '31.12.2027', null],
    [ask('date'), '2027-12-31', null],
    [ask('date'), '31 12 2027', null],
    [ask('date'), '31.2.2027', 'not-a-date'],
    [ask('date'), 'tomorrow', 'not-a-date'],
    [ask('number'), '1.234,50', null],
    [ask('number'), 'twelve', 'not-a-number'],
    [ask('e-mail'), 'ada@example.org', null],
    [ask('e-mail'), 'ada@', 'not-an-address'],
    [ask('yes or no'), 'yes', null],
    [ask('yes or no'), 'maybe', 'not-an-option'],
    [ask('one of', { options: [{ value: 'A', say: 'a' }] }), 'A', null],
    [ask('one of', { options: [{ value: 'A', say: 'a' }] }), 'B', 'not-an-option'],
    [ask('some of', { options: [{ value: 'A', say: 'a' }, { value: 'B', say: 'b' }] }), ['A', 'B'], null],
    [ask('text'), ['A'], 'not-an-option'],
    [ask('signature'), pixel, null],
    [ask('signature'), 'data:image/svg+xml;base64,PHN2Zz4=', 'not-a-picture'],
    [ask('signature'), 'x.png', 'not-a-picture'],
    // Examples of the IBAN registry (ISO 13616), as published by SWIFT; the values are from memory.
    [ask('IBAN'), 'GB82 WEST 1234 5698 7654 32', null],
    [ask('IBAN'), 'GB82 WEST 1234 5698 7654 33', 'odd'],
    [ask('telephone'), '+49 30 901820', null],
    [ask('telephone'), 'call me', 'odd'],
    [ask('postal code'), '1234567', 'odd'],
    [ask('text', { required: true }), '  ', 'missing'],
    [ask('text'), '  ', null],
  ])('%#', (question, answer, code) => expect(answerFault(question, answer, 'DE')?.code ?? null).toBe(code)); // prettier-ignore

  test('the text of several options holds each, and a date is written in one way', () => {
    expect(answerText({ kind: 'some of' }, ['A', 'B'])).toBe('A, B');
    expect(answerText({ kind: 'date' }, '5. 3. 2027')).toBe('2027-03-05');
    expect(answerText({ kind: 'text' }, undefined)).toBe('');
  });
});

test('a consent is given by its tick alone, and a notice wants no answer and has no column', () => {
  const plan = makeIntake('Permits', []).plan;
  const [address] = Object.values(plan.questions);
  const questions = {
    ...plan.questions,
    read: { ...addedQuestion('read', 'Notice', 'We keep your data for a year.', 'notice' as const), required: true },
    agree: { ...addedQuestion('agree', 'Consent', 'I agree that my data is kept.', 'consent' as const), required: true },
  };
  const whole = { ...plan, sections: [{ id: 's1', title: '', when: null, questions: [address!.id, 'read', 'agree'] }], questions };
  const faultsOf = (answers: IntakeAnswers): string[] =>
    answerFaults(whole, { [address!.id]: 'ada@example.org', ...answers }, '2027-01-02', '').map(
      ({ question, code }) => `${question} ${code}`,
    );
  expect(faultsOf({})).toEqual(['agree missing']);
  expect(faultsOf({ agree: 'no' })).toEqual(['agree missing']);
  expect(faultsOf({ agree: 'yes', read: 'anything' })).toEqual([]);
  expect(intakeColumns(whole)).toEqual(['Submission', 'Received', address!.column, 'Consent']);
  expect(answerRecord(whole, { agree: 'yes', read: 'x' }, '2027-01-02')).toEqual({ [address!.column]: '', Consent: 'yes' });
});
