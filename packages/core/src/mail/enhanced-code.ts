import { t } from '../words/words.js';

/** Where the trouble of a delivery sits, by the subject of its enhanced code (RFC 3463, 3). */
export const troubles = ['address', 'mailbox', 'their server', 'network', 'protocol', 'content', 'policy', 'our side'] as const;
export type Trouble = (typeof troubles)[number];

/** An enhanced mail system status code: `5.1.1`. */
export interface EnhancedCode {
  code: string;
  /** RFC 3463, 2: class 4 may succeed later, class 5 will not; class 2 is success. */
  lasting: 'success' | 'soft' | 'hard';
  trouble: Trouble | null;
}

/** RFC 3463, 3.2 to 3.8: the subject sub-codes. */
const subjects: Record<string, Trouble> = {
  '1': 'address',
  '2': 'mailbox',
  '3': 'their server',
  '4': 'network',
  '5': 'protocol',
  '6': 'content',
  '7': 'policy',
};

/** RFC 3463, 2: `class "." subject "." detail`, one to three digits each after the class; not a piece of a longer row such as an IP address. */
const SHAPE = /(?<![\d.])([245])\.(\d{1,3})\.(\d{1,3})(?![\d.]*\d)/;

/** The first enhanced code in a reply or in the Status field of a report; null: none stands there. */
export function enhancedCode(text: string): EnhancedCode | null {
  const found = SHAPE.exec(text);
  if (!found) return null;
  return {
    code: found[0],
    lasting: found[1] === '2' ? 'success' : found[1] === '4' ? 'soft' : 'hard',
    trouble: subjects[found[2]!] ?? null,
  };
}

/** What an enhanced code tells a person, by its subject and detail (RFC 3463, 3.2 to 3.8); null: nothing more than its subject. */
const details: Record<string, string> = {
  '1.1': t`there is no such mailbox`,
  '1.2': t`there is no such domain`,
  '1.3': t`the address is malformed`,
  '1.6': t`the mailbox has moved and left no address`,
  '1.10': t`the domain does not accept mail`,
  '2.1': t`the mailbox is closed`,
  '2.2': t`the mailbox is full`,
  '2.3': t`the message is larger than the mailbox accepts`,
  '3.2': t`their server does not accept mail at present`,
  '3.4': t`the message is larger than their server accepts`,
  '4.1': t`their server does not answer`,
  '4.4': t`their domain cannot be reached`,
  '4.7': t`it was tried for too long`,
  '5.3': t`the message has too many recipients`,
  '6.1': t`their server does not accept this kind of message`,
  '7.0': t`their rules refuse it`,
  '7.1': t`their rules refuse it`,
};

/** In a person's words what an enhanced code says. @param code such as `5.1.1` */
export function troubleWords(code: string): string | null {
  const [, subject, detail] = code.split('.');
  return details[`${subject}.${detail}`] ?? null;
}
