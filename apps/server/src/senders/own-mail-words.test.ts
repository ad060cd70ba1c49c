import { ownMailWords } from './own-mail-words.js';

test.each([
  ['en', '204816 is your code for Mailbag', 'The code 204 816 confirms'],
  ['de', '204816 ist Ihr Code für Mailbag', 'Der Code 204 816 bestätigt'],
  ['', '204816 is your code for Mailbag', '15 minutes'],
  ['fr', '204816 is your code for Mailbag', 'office@larkmere.example'],
])('whoever is spoken to in “%s” gets the code with “%s”', (language, subject, part) => {
  const mail = ownMailWords(language).code('204816', 'office@larkmere.example', 15);
  expect(mail.subject).toBe(subject);
  expect(mail.text).toContain(part);
});

test.each(['en', 'de'])('an invitation in “%s” names who asks, who is asked, and the address on a line of its own', (language) => {
  const { subject, text } = ownMailWords(language).invitation('Marit Odum', 'Ada Quist', 'https://forms.example/invitation?token=x');
  expect(subject).toMatch(/^Marit Odum /);
  expect(text).toContain('Ada Quist,');
  expect(text.split('\n')).toContain('https://forms.example/invitation?token=x');
});
