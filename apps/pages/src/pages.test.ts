import { createChallenge, verifySolution } from 'altcha-lib';
import { deriveKey } from 'altcha-lib/algorithms/sha';
import { planAsking } from '../../../packages/core/src/testing/intake-plan';
import { addedQuestion } from '../../../packages/core/src/intake/make-intake';
import { answerWords, minutesFor } from './answer-words';
import { wordOf } from './api';
import { autofillOf } from './autofill';
import { closedWords } from './closed-words';
import { nearestBox } from './nearest-box';
import { safeStorage } from './browser-storage';
import { keepVisit, savedVisit, newKey } from './saved-visit';
import { spokenIn } from './office-text';
import { personalPlace, personalToken } from './personal-token';
import { solved } from './puzzle';
import { sayIn } from './words';

const ask = (kind: Parameters<typeof addedQuestion>[3], words = 'Q', more = {}) => ({ ...addedQuestion('q', 'Q', words, kind), ...more });

/** A browser's storage, which may be full or switched off. */
function storage(works = true): Storage {
  const stored = new Map<string, string>();
  return {
    getItem: (name: string) => stored.get(name) ?? null,
    setItem: (name: string, value: string) => {
      if (!works) throw new Error('QuotaExceededError');
      stored.set(name, value);
    },
    removeItem: (name: string) => void stored.delete(name),
  } as unknown as Storage;
}

test.each([
  [
    'refuses to be asked',
    () => {
      throw new Error('SecurityError');
    },
  ],
  ['is full', () => storage(false)],
  ['works', () => storage()],
])('where the browser’s storage %s, what was kept is there as long as the window', (_, open) => {
  const storage = safeStorage(open);
  storage.setItem('language', 'de');
  expect(storage.getItem('language')).toBe('de');
  storage.setItem('language', 'pl');
  expect(storage.getItem('language')).toBe('pl');
  storage.removeItem('language');
  expect(storage.getItem('language')).toBeNull();
});

describe('what was typed is kept in the browser', () => {
  const visit = { edition: 3, answers: { q1: 'Ada', q2: ['a', 'b'] }, step: 2, key: 'k'.repeat(40), isSent: false };
  test('for each page by itself', () => {
    const own = storage();
    keepVisit('permits', visit, own);
    expect(savedVisit('permits', own)).toEqual(visit);
    expect(savedVisit('plots', own)).toBeNull();
    keepVisit('permits', null, own);
    expect(savedVisit('permits', own)).toBeNull();
  });
  test('and where a browser keeps nothing, or something else stands there, the page begins anew', () => {
    const full = storage(false);
    keepVisit('permits', visit, full);
    expect(savedVisit('permits', full)).toBeNull();
    for (const text of ['{', 'null', '[]', '{"edition":"3"}', '{"edition":3,"key":5,"answers":{}}'])
      expect(savedVisit('permits', { getItem: () => text })).toBeNull();
  });
  test('under a key that nobody guesses', () => {
    expect(newKey(() => new Uint8Array([0, 255, 16]))).toBe('00ff10');
  });
});

// HTML Living Standard, 4.10.18.7.1, autofill field names.
test.each<[Parameters<typeof addedQuestion>[3], string, string | undefined]>([
  ['text', 'First name', 'given-name'],
  ['text', 'Nachname', 'family-name'],
  ['text', 'Name of the tenant', 'name'],
  ['text', 'Name of the bank', undefined],
  ['text', 'Your name', 'name'],
  ['date', 'Geburtsdatum', 'bday'],
  ['text', 'Straße und Hausnummer', 'street-address'],
  ['text', 'Town', 'address-level2'],
  ['e-mail', 'Where do we write to?', 'email'],
  ['telephone', 'Handy', 'tel'],
  ['postal code', 'PLZ', 'postal-code'],
  ['text', 'Plot number', undefined],
  ['one of', 'Town', undefined],
])('a browser fills in %s “%s” as %s', (kind, words, token) => expect(autofillOf({ kind, words })).toBe(token));

test('answers are read again in the words of the page and of the options', () => {
  const say = sayIn('de');
  expect(answerWords(ask('yes or no'), 'yes', say)).toBe('Ja');
  expect(answerWords(ask('some of', 'Q', { options: [{ value: 'A', say: 'Erstens' }, { value: 'B', say: 'Zweitens' }] }), ['A', 'B'], say)).toBe('Erstens\nZweitens'); // prettier-ignore
  expect(answerWords(ask('one of', 'Q', { options: [{ value: 'A', say: 'Erstens' }] }), 'A', say)).toBe('Erstens');
  expect([answerWords(ask('text'), undefined, say), answerWords(ask('text'), '', say), answerWords(ask('text'), 'Ada', say)]).toEqual([
    '',
    '',
    'Ada',
  ]);
});

test('the time that a page takes is told by its questions', () => {
  expect(minutesFor([])).toBe(1);
  expect(minutesFor(Array.from({ length: 10 }, () => ask('yes or no')))).toBe(1);
  expect(minutesFor([...Array.from({ length: 10 }, () => ask('text')), ask('signature')])).toBe(3);
});

test('the word of a page stands in its address', () => {
  expect([wordOf('/in/ask-for-a-plot'), wordOf('/in/ask-for-a-plot/'), wordOf('/in/pl%C3%B6ts'), wordOf('/in/')]).toEqual([
    'ask-for-a-plot',
    'ask-for-a-plot',
    'plöts',
    '',
  ]);
});

test('a tap means the box that it is on or nearest to, and none that is far', () => {
  const at = (left: number, top: number, right: number, bottom: number) => ({ left, top, right, bottom });
  const boxes = [
    { question: 'name', place: at(10, 10, 200, 30) },
    { question: 'tick', place: at(10, 40, 18, 48) },
    { question: 'other', place: at(10, 52, 18, 60) },
    { question: 'photo', place: at(150, 5, 260, 200) },
  ];
  expect(nearestBox(boxes, 100, 20)).toBe('name');
  expect(nearestBox(boxes, 22, 45)).toBe('tick');
  expect(nearestBox(boxes, 14, 51)).toBe('other');
  // Both are there; the smaller one would otherwise never be reached.
  expect(nearestBox(boxes, 180, 20)).toBe('name');
  expect(nearestBox(boxes, 100, 120)).toBeNull();
  expect(nearestBox([], 1, 1)).toBeNull();
});

test('a closed page says since or until when in the visitor’s language, and whom to ask', () => {
  const at = '2027-01-12T11:00:00.000Z';
  const over = closedWords({ why: 'over', at }, { contact: ' the office ' }, 'en', sayIn('en'));
  expect(over).toMatch(/^This page takes no answers now\. It closed on January 12, 2027 at /);
  expect(over).toMatch(/\. Ask the office\.$/);
  expect(closedWords({ why: 'not-yet', at }, { contact: '' }, 'de', sayIn('de'))).toMatch(/Sie öffnet am 12\. Januar 2027 um .*\.$/);
  expect(closedWords({ why: 'full', at: '' }, { contact: '' }, 'fr', sayIn('fr'))).toMatch(/Toutes les places sont prises\.$/);
});

test('when a page is open is said in the zone that the office means, with its name', () => {
  const at = '2027-07-12T08:00:00.000Z';
  const words = closedWords({ why: 'not-yet', at }, { contact: '', zone: 'America/New_York' }, 'en', sayIn('en'));
  expect(words).toMatch(/It opens on July 12, 2027 at 0?4:00\sAM EDT\.$/);
});

test('what the office says in the visitor’s language is not marked as another one; everything else is', () => {
  const plan = planAsking([ask('text')], { translations: { de: { 'question q': 'Frage' } } });
  expect(spokenIn(plan, 'en')).toBeNull();
  expect(spokenIn(plan, 'de')).toEqual({ own: 'en', translated: new Set(['Frage']) });
  expect(spokenIn({ ...plan, language: 'pl' }, 'fr')).toEqual({ own: 'pl', translated: new Set() });
});

// By the digest of the platform (FIPS 180-4), while the page has one of its own.
test('a puzzle is solved without what a browser has on secured pages only', async () => {
  const challenge = await createChallenge({ algorithm: 'SHA-256', cost: 1, keyPrefix: '00', hmacSignatureSecret: 'a secret', deriveKey });
  const given = JSON.parse(atob(await solved(challenge))) as {
    challenge: typeof challenge;
    solution: { counter: number; derivedKey: string };
  };
  expect((await verifySolution({ ...given, deriveKey, hmacSignatureSecret: 'a secret' })).verified).toBe(true);
});

test('a personal link is known by its form, and what is typed under it is kept apart from that of others', () => {
  const [own, other] = ['a', 'b'].map((letter) => `4KQ8-ZT0V-7QX.${letter.repeat(22)}`);
  expect(personalToken(`#${own!}`)).toBe(own);
  for (const hash of ['', '#', `#${'a'.repeat(43)}`, `#${own!}x`, '#4KQ8-ZT0V-7QX', `#q-1.${'a'.repeat(22)}`])
    expect(personalToken(hash)).toBeNull();
  expect(personalPlace('check', own!)).not.toBe(personalPlace('check', other!));
  // The code of the copy is nobody's business in a browser that others use.
  expect(personalPlace('check', own!)).not.toContain('4KQ8');
});
