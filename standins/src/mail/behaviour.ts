/**
 * How the stand-in treats a recipient, by the words in the address (the part before @, between dots, plus signs and dashes):
 * `full` refuses for now as long as it stands, `later` refuses the first two tries and then accepts, `unknown` and `nobody` refuse for good,
 * `slow` takes three seconds, `hang` never answers, `drop` closes the connection after the message has been read,
 * `cut` closes it in the middle of the message. Everybody else is accepted.
 */
export type Treatment = 'accept' | 'full' | 'later' | 'unknown' | 'slow' | 'hang' | 'drop' | 'cut';

const wordsOf = (address: string): string[] => address.slice(0, address.lastIndexOf('@')).toLowerCase().split(/[.+-]/);

export function treatmentOf(address: string): Treatment {
  const word = wordsOf(address).find((part) => ['full', 'later', 'unknown', 'nobody', 'slow', 'hang', 'drop', 'cut'].includes(part));
  return word === 'nobody' ? 'unknown' : ((word as Treatment | undefined) ?? 'accept');
}

/**
 * What comes back some time after a message was accepted: `gone` a bounce for good, `stuffed` a bounce because the mailbox is full, `waiting` a report of delay,
 * `away` an out-of-office note, `words` a bounce that is no report of RFC 3464.
 */
export type Reply = 'gone' | 'stuffed' | 'waiting' | 'away' | 'words';

export const replyOf = (address: string): Reply | null =>
  (wordsOf(address).find((part) => ['gone', 'stuffed', 'waiting', 'away', 'words'].includes(part)) as Reply | undefined) ?? null;

/** How the whole server behaves, for everybody. */
export const moods = ['well', 'busy', 'garbage', 'silent', 'broken-tls'] as const;
export type Mood = (typeof moods)[number];
