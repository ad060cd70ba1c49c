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
const known = new Set(PROVIDERS);

/** Letters from which on one wrong letter is a slip; shorter names of others differ by one letter from each other. */
const LONG = 8;

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
  const isSlip = (usual: string): boolean => {
    if (isSwapped(domain, usual)) return true;
    // The end of an address is what is cut off when it is copied.
    if (domain === usual.slice(0, -1)) return true;
    return usual.length >= LONG && (isWithout(domain, usual) || isWithout(usual, domain) || isReplaced(domain, usual));
  };
  return PROVIDERS.find(isSlip) ?? null;
}
