import { domainOf } from './address.js';
import { trimEnds } from '../text/trim.js';

/**
 * Headers that tell other machines what this mail is: made by a machine (RFC 3834, 5), one of a list of alike ones (RFC 2919; RFC 2369, 3.5 for the owner).
 * They keep out-of-office answers away and let a recipient sort it.
 * @param list what the mails belong to; letters and digits of it name the list
 */
export function deliveryHeaders({
  list,
  number,
  from,
  replyTo,
}: {
  list: string;
  number: number;
  from: string;
  replyTo: string;
}): Record<string, string> {
  const words = list.normalize('NFKD').replace(/[^A-Za-z0-9]+/g, '-');
  const label = trimEnds(words, /-/).toLowerCase().slice(0, 40);
  return {
    'Auto-Submitted': 'auto-generated',
    'List-ID': `<${label || 'mailing'}.${number}.${domainOf(from)}>`,
    'List-Owner': `<mailto:${replyTo || from}>`,
    'X-Auto-Response-Suppress': 'OOF, AutoReply',
  };
}
