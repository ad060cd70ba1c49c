/** Where many people have their mail; common practice, no source. A domain that is one slip away from one of these is looked at. */
const PROVIDERS: readonly string[] = [
  ...['gmail.com', 'googlemail.com', 'hotmail.com', 'outlook.com', 'yahoo.com', 'icloud.com', 'protonmail.com', 'proton.me'],
  ...[
    'web.de',
    'gmx.de',
    'gmx.net',
    'gmx.at',
    'gmx.ch',
    't-online.de',
    'freenet.de',
    'posteo.de',
    'mailbox.org',
    'hotmail.de',
    'outlook.de',
  ],
  ...['yahoo.de', 'bluewin.ch', 'orange.fr', 'wanadoo.fr', 'laposte.net', 'hotmail.fr', 'outlook.fr', 'yahoo.fr', 'yahoo.es', 'hotmail.es'],
  ...['yahoo.co.uk', 'hotmail.co.uk', 'btinternet.com', 'libero.it', 'hotmail.it', 'interia.pl', 'onet.pl', 'ukr.net', 'seznam.cz'],
];
/** Others that only look like one of them. */
const OTHERS = ['mail.com', 'ymail.com', 'email.com'];
const known = new Set([...PROVIDERS, ...OTHERS]);

/** Letters of a name from which on one wrong letter is a slip; shorter names of others differ by one letter from each other. */
const LONG = 5;
/** What stands before the first full stop of a domain, and what follows it. */
function halves(domain: string): [name: string, ending: string] {
  const at = domain.indexOf('.');
  return at < 0 ? [domain, ''] : [domain.slice(0, at), domain.slice(at + 1)];
}

/** Whether a text is another but for two neighbours that changed places. */
function isSwapped(text: string, other: string): boolean {
  const at = [...text].findIndex((letter, index) => letter !== other[index]);
  return (
    text.length === other.length &&
    at >= 0 &&
    text[at] === other[at + 1] &&
    text[at + 1] === other[at] &&
    text.slice(at + 2) === other.slice(at + 2)
  );
}
/** Whether a text is another with one letter left out. */
function isWithout(text: string, whole: string): boolean {
  if (text.length !== whole.length - 1) return false;
  const at = [...text].findIndex((letter, index) => letter !== whole[index]);
  return at < 0 || text.slice(at) === whole.slice(at + 1);
}
/** Whether a text is another with one letter in the place of another. */
const isReplaced = (text: string, other: string): boolean =>
  text.length === other.length && [...text].filter((letter, index) => letter !== other[index]).length === 1;

/** The usual domain of which another one is a slip of the hand; null: it is none, or one of them itself. @param domain lower case */
export function meantProvider(domain: string): string | null {
  if (known.has(domain)) return null;
  const [name, ending] = halves(domain);
  const isSlip = (usual: string): boolean => {
    const [usualName, usualEnding] = halves(usual);
    // The end of an address is what is cut off when it is copied. Other endings are other countries.
    if (ending !== usualEnding) return name === usualName && ending === usualEnding.slice(0, -1);
    if (isSwapped(name, usualName)) return true;
    return usualName.length >= LONG && (isWithout(name, usualName) || isWithout(usualName, name) || isReplaced(name, usualName));
  };
  return PROVIDERS.find(isSlip) ?? null;
}
