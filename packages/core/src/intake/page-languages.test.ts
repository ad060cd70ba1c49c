import { isTranslations, pageTexts, planIn, shownTranslations, untranslated, withLanguage, withTranslation } from './page-languages.js';
import type { IntakePlan } from './intake.js';
import { addedQuestion } from './make-intake.js';

const plan: IntakePlan = {
  name: 'Ask for a plot',
  title: '',
  intro: 'Have your card at hand.',
  sections: [
    { id: 's1', title: 'You', when: null, questions: ['n1', 'n2', 'n3'] },
    { id: 's2', title: 'Nothing is asked here', when: null, questions: [] },
  ],
  questions: {
    n1: { ...addedQuestion('n1', 'Name', 'Your name', 'text'), help: 'As on your card' },
    n2: { ...addedQuestion('n2', 'Pays', 'How will you pay?', 'one of'), options: [{ value: 'yearly', say: 'Once a year' }] },
    n3: { ...addedQuestion('n3', 'Notes', 'Only the office', 'text'), isAway: true },
  },
  after: { atOnce: true, thanks: 'We write to you.' },
  opening: { from: null, until: null, maximum: null, contact: '', sites: [], retentionDays: 0 },
};
const german = [
  ['title', 'Einen Garten pachten'],
  ['question n1', 'Ihr Name'],
  ['option n2 yearly', 'Einmal im Jahr'],
] as const;
const told = german.reduce((so, [place, text]) => withTranslation(so, 'de', place, text), withLanguage(plan, 'de', true));

test('everything that the office says on the page is there once, in the order of the page, and nothing that visitors never see', () => {
  expect(pageTexts(plan).map(({ place }) => place)).toEqual([
    'title',
    'intro',
    'heading s1',
    'question n1',
    'help n1',
    'question n2',
    'option n2 yearly',
    'thanks',
  ]);
  // A page without a heading has the name of the intake.
  expect(pageTexts(plan)[0]!.text).toBe('Ask for a plot');
});

test('a page is said in a language as far as it goes, and in the words of the office beyond', () => {
  const page = planIn(told, 'de');
  expect(page).toMatchObject({ title: 'Einen Garten pachten', intro: 'Have your card at hand.' });
  expect(page.questions.n1).toMatchObject({ words: 'Ihr Name', help: 'As on your card', column: 'Name' });
  // What the record is given stays the same, whoever answers in whatever language.
  expect(page.questions.n2!.options).toEqual([{ value: 'yearly', say: 'Einmal im Jahr' }]);
  expect(untranslated(told, 'de').map(({ place }) => place)).toEqual(['intro', 'heading s1', 'help n1', 'question n2', 'thanks']);
});

test('a language without translations, and the own one, leave the page as the office wrote it', () => {
  expect(planIn(told, 'fr')).toBe(told);
  expect(planIn({ ...told, language: 'de' }, 'de').questions.n1!.words).toBe('Your name');
});

test('what is emptied is said in the own words again, and a language that is taken away is gone whole', () => {
  const emptied = withTranslation(told, 'de', 'question n1', '');
  expect(planIn(emptied, 'de').questions.n1!.words).toBe('Your name');
  expect(withLanguage(told, 'de', false).translations).toEqual({});
});

test('of questions that were put away, and options that are gone, no translation is told to anybody', () => {
  const more = withTranslation(withTranslation(told, 'de', 'question n3', 'Nur das Amt'), 'de', 'option n2 monthly', 'Monatlich');
  expect(shownTranslations(more)).toEqual({ de: Object.fromEntries(german) });
});

test('a help that was emptied later is not said in other languages either', () => {
  const withHelp = withTranslation(told, 'de', 'help n1', 'Wie auf der Karte');
  const emptied: IntakePlan = { ...withHelp, questions: { ...withHelp.questions, n1: { ...withHelp.questions.n1!, help: '' } } };
  expect(planIn(emptied, 'de').questions.n1!.help).toBe('');
});

test.each([
  ['texts by languages', { de: { title: 'x' } }, true],
  ['no language at all', {}, true],
  ['a language that pages do not have', { xx: {} }, false],
  ['a text that is none', { de: { title: 5 } }, false],
  ['a text that is too long', { de: { title: 'x'.repeat(5001) } }, false],
  ['a list', [], false],
  ['nothing', null, false],
])('%s read from outside', (_, value, isSo) => expect(isTranslations(value)).toBe(isSo));
