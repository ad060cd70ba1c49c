import { speak } from '@mailbag/core/words';
import { messageCatalogue } from '../../words/message-catalogue';
import { faultWords } from './fault-words';

afterEach(() => speak(null));

test('what the contract words is said as it is, in the language of the person', () => {
  expect(faultWords('name', 'Give a name.')).toBe('Give a name.');
  speak(messageCatalogue('de-DE', { 'Give a name.': 'Geben Sie einen Namen an.' }, () => []));
  expect(faultWords('name', 'Give a name.')).toBe('Geben Sie einen Namen an.');
});

test.each(['name must be a string', 'each value in name must be an integer', '', undefined])(
  'what only programmers read is not shown: %j',
  (message) => expect(faultWords('name', message)).toBe('This cannot be used here.'),
);
