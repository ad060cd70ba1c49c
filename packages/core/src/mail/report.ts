import type { EnhancedCode } from './enhanced-code.js';
import { enhancedCode } from './enhanced-code.js';
import { trimEnds } from '../text/trim.js';
import { returnToken } from './return-path.js';

/** A message that came in, taken apart. Names of headers are lower case. */
export interface IncomingMail {
  headers: Readonly<Record<string, string>>;
  /** Addresses to which it was sent, from its envelope and its headers. */
  to: readonly string[];
  text: string;
  /** Body of the part `message/delivery-status` (RFC 3464); null: there is none. */
  status: string | null;
  /** The returned message or its headers, as text; null: there is none. */
  returned: string | null;
}

/** One recipient of a report (RFC 3464, 2.3). */
export interface ReportedRecipient {
  address: string;
  action: 'failed' | 'delayed' | 'delivered' | 'relayed' | 'expanded';
  code: EnhancedCode | null;
  /** The words of the server that refused. */
  diagnostic: string;
}

/**
 * What a message that came to the bounce mailbox is. `answer`: a machine answered, such as an out-of-office note; it is no bounce.
 * `token` and `messageIds` tell which delivery it is about.
 */
export interface MailReport {
  kind: 'bounce' | 'delay' | 'delivered' | 'answer' | 'other';
  token: string | null;
  messageIds: string[];
  recipients: ReportedRecipient[];
}

/** Fields of one group, continuation lines joined, names lower case; the first of a name counts (RFC 3464, 2.1.1 and 2.1.2). */
function fieldsOf(group: string): Map<string, string> {
  const fields = new Map<string, string>();
  for (const line of group.replace(/\r?\n[ \t]+/g, ' ').split(/\r?\n/)) {
    const colon = line.indexOf(':');
    if (colon <= 0) continue;
    const name = line.slice(0, colon).trim().toLowerCase();
    if (!fields.has(name)) fields.set(name, line.slice(colon + 1).trim());
  }
  return fields;
}

/** The value behind its type: `rfc822; a@b.org` (RFC 3464, 2.1.2), without comments in parentheses at its end. */
const typed = (value: string | undefined): string => (value ?? '').replace(/^[\w-]+\s*;\s*/, '').trim();
const bareAddress = (value: string): string => /<([^<>]+)>/.exec(value)?.[1] ?? value.split('(', 1)[0]!.trim();

const ACTIONS = ['failed', 'delayed', 'delivered', 'relayed', 'expanded'] as const;

/** Recipients of one report that are looked at; a message of ours goes to 100 at most. */
const MOST_RECIPIENTS = 200;

/** The recipients of a delivery status body: groups of fields, parted by empty lines; the first group is about the message. */
export function readDeliveryStatus(status: string): ReportedRecipient[] {
  return status
    .split(/\r?\n(?:[ \t]*\r?\n)+/, MOST_RECIPIENTS + 1)
    .map(fieldsOf)
    .flatMap((fields) => {
      const final = fields.get('final-recipient') ?? fields.get('original-recipient');
      const action = fields.get('action')?.toLowerCase().split(/[\s(]/)[0];
      const known = ACTIONS.find((one) => one === action);
      if (final === undefined || known === undefined) return [];
      const diagnostic = typed(fields.get('diagnostic-code')).replace(/\s+/g, ' ');
      // The address we sent to is the original one; the final one is where it was led on to.
      const address = bareAddress(typed(fields.get('original-recipient') ?? final));
      return [{ address, action: known, code: enhancedCode(fields.get('status') ?? '') ?? enhancedCode(diagnostic), diagnostic }];
    });
}

const messageIdsIn = (text: string): string[] =>
  [...text.matchAll(/^(?:message-id|x-original-message-id):\s*(<[^<>\s]+>)/gim)].map((found) => found[1]!);

/** Marks of answers by machines: RFC 3834, 5 (Auto-Submitted); the others are common practice, no source. */
function isMachineAnswer(headers: IncomingMail['headers']): boolean {
  const auto = headers['auto-submitted']?.toLowerCase() ?? 'no';
  return (
    auto.startsWith('auto-replied') ||
    'x-autoreply' in headers ||
    'x-autorespond' in headers ||
    'x-auto-response-suppress' in headers ||
    /^(auto_reply|bulk|junk)$/i.test(headers.precedence ?? '') ||
    /^(automatic reply|auto(matic)?[- ]?reply|out of (the )?office|abwesenheit|automatische antwort|réponse automatique|respuesta automática)/i.test(
      headers.subject ?? '',
    )
  );
}

/** Servers that send no report of RFC 3464 say it in words (common practice, no source, for the names). */
const isMailSystem = (headers: IncomingMail['headers']): boolean =>
  /\b(mailer-daemon|postmaster|mail delivery (sub)?system)\b/i.test(headers.from ?? '');
/** RFC 5321, 4.5.5: reports come with an empty return path; so do answers by machines (RFC 3834, 3.3). */
const hasEmptyPath = (headers: IncomingMail['headers']): boolean => /^<>$/.test((headers['return-path'] ?? '').trim());

/** Octets of a local part and of a domain (RFC 5321, 4.5.3.1.1 and 4.5.3.1.2). */
const [LONGEST_LOCAL, LONGEST_DOMAIN] = [64, 255];
const OUTSIDE = /[\s<>"(),:;@]/;

/** The first address in a text; empty: none. Looks at no more around each @ than an address may have. */
function firstAddress(text: string): string {
  for (let at = text.indexOf('@'); at >= 0; at = text.indexOf('@', at + 1)) {
    let [begin, end] = [at, at + 1];
    while (begin > 0 && at - begin < LONGEST_LOCAL && !OUTSIDE.test(text[begin - 1]!)) begin--;
    while (end < text.length && end - at <= LONGEST_DOMAIN && !OUTSIDE.test(text[end]!)) end++;
    const domain = trimEnds(text.slice(at + 1, end), /\W/, 'end');
    if (begin < at && /^[^.].*\.[a-z0-9-]+$/i.test(domain)) return text.slice(begin, at + 1) + domain;
  }
  return '';
}

/** Understands a message of the bounce mailbox (RFC 3464, RFC 3834). */
export function readReport(mail: IncomingMail): MailReport {
  const token = mail.to.map(returnToken).find((one) => one !== null) ?? returnToken(mail.returned ?? '');
  const referred = [...`${mail.headers['in-reply-to'] ?? ''} ${mail.headers.references ?? ''}`.matchAll(/<[^<>\s]+>/g)].map(([id]) => id);
  const messageIds = [...new Set([...messageIdsIn(mail.returned ?? ''), ...referred])];
  const found = { token: token ?? null, messageIds };
  if (mail.status !== null) {
    const recipients = readDeliveryStatus(mail.status);
    const has = (action: ReportedRecipient['action']): boolean => recipients.some((one) => one.action === action);
    const kind = has('failed') ? 'bounce' : has('delayed') ? 'delay' : recipients.length > 0 ? 'delivered' : 'other';
    return { kind, ...found, recipients };
  }
  // Reports are answers by machines too, so a mail system's own words go first.
  if (!isMailSystem(mail.headers) && isMachineAnswer(mail.headers)) return { kind: 'answer', ...found, recipients: [] };
  // A report in words: an enhanced or a reply code of the fifth class and the address it is about (common practice, no source).
  if (isMailSystem(mail.headers) || hasEmptyPath(mail.headers)) {
    const code = enhancedCode(mail.text);
    const line = mail.text.split(/\r?\n/).find((one) => enhancedCode(one) !== null || /\b[45]\d\d\b/.test(one)) ?? '';
    const address = firstAddress(mail.text);
    const isFailure = code
      ? code.lasting !== 'success'
      : /\b5\d\d\b|could not be delivered|undeliverable|delivery (has )?failed/i.test(`${mail.headers.subject ?? ''} ${mail.text}`);
    if (isFailure && (found.token !== null || messageIds.length > 0 || address !== ''))
      return {
        kind: 'bounce',
        ...found,
        recipients: [{ address, action: 'failed', code, diagnostic: line.trim().replace(/\s+/g, ' ').slice(0, 500) }],
      };
  }
  return { kind: 'other', ...found, recipients: [] };
}
