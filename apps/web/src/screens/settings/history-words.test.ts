import { speak } from '@mailbag/core/words';
import { german, germanWork } from '../../words/german';
import { aboutWords, actionWords } from './history-words';

const line = (action: string, subject: string, detail: string | null = null) => ({ action, subject, detail });
beforeAll(async () => {
  await germanWork();
  speak(german('de-DE'));
});
afterAll(() => speak(null));

test.each([
  [line('changed a mailing', 'Map'), 'hat eine Sendung geändert: Map'],
  [line('deleted what was past its retention', '3 records, 1,200 copies, 1 source'), /3 Datensätze, 1\.200 Exemplare, 1 Quelle$/],
  [line('could not sign in', 'an unknown address'), /eine unbekannte Adresse$/],
  [line('changed a person', 'number 7 · 3 copies'), /Nummer 7 · 3 Exemplare$/],
])('%j says in German what was done, and leaves names as they are', (given, wanted) => {
  const said = actionWords(given);
  expect([given, said]).toEqual([given, typeof wanted === 'string' ? wanted : expect.stringMatching(wanted)]);
});

test.each([
  [line('changed a mailing', 'Plots', 'map, records left out (3 times)'), 'Zuordnung, ausgelassene Datensätze (3-mal)'],
  [line('changed a mailing', 'Plots', 'revision 2 of “Renewal”'), 'Fassung 2 von „Renewal“'],
  [line('asked somebody to work here', '', 'Ada Map · ada@larkmere.example · viewer'), 'Ada Map · ada@larkmere.example · Betrachter'],
  [line('pointed a mail server elsewhere', 'Post', 'a.example:25 → b.example:25'), 'a.example:25 → b.example:25'],
  [line('could not sign in', 'x', 'from network 192.0.2.0/24 (2 times)'), 'aus dem Netz 192.0.2.0/24 (2-mal)'],
  [line('signed in', ''), ''],
])('%j says in German what it is about', (given, wanted) => {
  expect(aboutWords(given)).toBe(wanted);
});

test('in English it says what was written down', () => {
  speak(null);
  expect(aboutWords(line('changed a mailing', 'Plots', 'map, paper (3 times)'))).toBe('map, paper (3 times)');
});
