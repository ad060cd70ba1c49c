import { meantProvider } from './providers.js';

test.each([
  ['gmial.com', 'gmail.com'],
  ['gmal.com', 'gmail.com'],
  ['gmaill.com', 'gmail.com'],
  ['gnail.com', 'gmail.com'],
  ['gmail.co', 'gmail.com'],
  ['hotnail.com', 'hotmail.com'],
  ['outlok.com', 'outlook.com'],
  ['tonline.de', 't-online.de'],
  ['t-onlin.de', 't-online.de'],
  ['web.d', 'web.de'],
  ['ewb.de', 'web.de'],
  ['gxm.de', 'gmx.de'],
  ['yaho.co.uk', 'yahoo.co.uk'],
])('%s is meant for %s', (domain, meant) => expect(meantProvider(domain)).toBe(meant));

const others = [
  ...['gmail.com', 'hotmail.de', 'larkmere.example', 'mail.example.org', 'web.dev', 'online.de', 'e', ''],
  // Short names of others differ from them by one letter.
  ...['wab.de', 'gmk.de'],
  // The same elsewhere, and other providers.
  ...['hotmail.at', 'yahoo.se', 'outlook.be', 'gmx.com', 'mail.com', 'ymail.com'],
];
test.each(others)('“%s” is what it is', (domain) => expect(meantProvider(domain)).toBeNull());
