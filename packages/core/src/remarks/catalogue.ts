import { spokenLocale, t, translated } from '../words/words.js';
import type { ErrorFields } from '../errors/entry.js';
import { count, inWords } from '../errors/entry.js';

const remarkOf = <Fields = Record<never, never>>(sentence: (fields: Fields) => string): ((fields: Fields) => string) => sentence;

const CLOCK: Intl.DateTimeFormatOptions = { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' };
/** A time (ISO 8601) as the clock of whoever reads it has it. */
const clock = (at: string): string =>
  Number.isNaN(Date.parse(at)) ? at : new Date(at).toLocaleString(spokenLocale() === 'en' ? 'en-GB' : spokenLocale(), CLOCK);

interface Place {
  host: string;
  port: number;
}
/** `why`: what keeps it from printing; empty: nothing. */
interface Printer {
  printer: string;
  why: string;
}

/**
 * What Mailbag says of a copy, a delivery or a print run by itself, with a stable code and the fields it carries. Kept and sent as they are; screens and
 * files for people make the sentence. The words of mail servers and printers are kept beside, as they came.
 */
export const remarks = {
  'address-corrected': remarkOf<{ from: string; to: string }>((e) => t`Address corrected from ${e.from} to ${e.to}`),
  'confirmed-by-hand': remarkOf(() => t`Confirmed by hand`),
  'batch-cancelled': remarkOf(() => t`The batch was cancelled`),
  'due-again': remarkOf(() => t`Due again`),
  'withdrawn-before': remarkOf(() => t`Withdrawn before it was sent`),
  'sending-stopped': remarkOf(() => t`The sending stopped before this was handed over.`),
  'server-stopped': remarkOf(() => t`The server stopped while this was being handed over. Nobody knows whether it arrived.`),
  'server-stopped-before': remarkOf(() => t`The server stopped before this was handed over.`),
  'mail-part-stopped': remarkOf<{ why: string }>(
    (e) => t`The part of Mailbag that speaks with mail servers stopped${e.why ? `: ${e.why}` : ''}.`,
  ),
  'sender-unconfirmed': remarkOf(() => t`The sender is not confirmed any more.`),
  'folder-held': remarkOf(() => t`Nothing is sent until an administrator has looked at Settings, Safety.`),
  'sending-begins': remarkOf<{ at: string }>((e) => t`Sending begins ${clock(e.at)}.`),
  'server-rests': remarkOf<{ server: string; until: string }>(
    (e) => t`The mail server “${e.server}” fails and is tried again ${clock(e.until)}.`,
  ),
  'hours-begin': remarkOf<{ server: string; at: string }>((e) => t`The hours of sending of “${e.server}” begin ${clock(e.at)}.`),
  'no-hours': remarkOf<{ server: string }>((e) => t`“${e.server}” has no day on which it may send. Choose one in Settings.`),
  'limits-reached': remarkOf<{ server: string }>((e) => t`The limits of “${e.server}” let no more through just now.`),
  'may-have-gone-out': remarkOf(() => t`It waited when the folder was backed up or copied, and may have gone out since.`),
  'answered-by-link': remarkOf<{ number: string }>((e) => t`Answered by personal link: ${e.number}`),
  'passed-on': remarkOf<{ to: string; from: string }>((e) => t`To ${e.to}, as ${e.from} asked`),
  'answer-settled': remarkOf<{ number: string }>((e) => t`The changes in the answer ${e.number} were looked at`),
  'accepted-for-some': remarkOf<{ accepted: string; refused: string }>((e) => t`Accepted for ${e.accepted}; refused for now: ${e.refused}`),
  'accepted-not-all': remarkOf<{ answer: string; refused: string }>((e) => t`${e.answer} · not taken: ${e.refused}`),
  'refused-for-recipient': remarkOf<{ refused: string }>((e) => t`Refused for the recipient: ${e.refused}`),
  'our-server': remarkOf<{ answer: string }>((e) => t`Our mail server: ${e.answer}`),
  'our-side': remarkOf<{ answer: string }>((e) => t`Our side: ${e.answer}`),
  'given-up': remarkOf<{ attempts: number; answer: string }>((e) => t`Given up after ${e.attempts} tries: ${e.answer}`),
  'reminder-refused': remarkOf<{ answer: string }>((e) => t`The reminder was refused: ${e.answer}`),
  'reminder-not-sent': remarkOf<{ answer: string }>((e) => t`The reminder was not sent: ${e.answer}`),
  'reminder-bounced': remarkOf<{ answer: string }>((e) => t`The reminder bounced: ${e.answer}`),
  'bounced-for-one': remarkOf<{ answer: string }>((e) => t`Bounced for one of several: ${e.answer}`),
  'still-on-its-way': remarkOf<{ answer: string }>((e) => t`Still on its way: ${e.answer}`),
  'delivered-there': remarkOf(() => t`Their server says that it was delivered.`),
  'answer-came': remarkOf<{ subject: string }>((e) => t`An automatic answer came: ${e.subject}`),
  'no-bounce': remarkOf(() => t`The report was no bounce.`),
  'report-unreadable': remarkOf(() => t`It could not be taken apart in the time that a message gets. Look at it in the mailbox itself.`),
  'report-by-address': remarkOf(() => t`It names an address only, and anybody could have written it.`),
  'report-by-message': remarkOf(() => t`It does not carry the token of the message that it is about.`),
  'report-return-path': remarkOf<{ from: string }>((e) => t`It came from ${e.from}, and real reports have no return path.`),
  'report-doubted': remarkOf<{ doubt: string }>((e) => t`A report says that it bounced. ${e.doubt} A person decides in Settings, Bounces.`),
  'print-run': remarkOf<{ run: number }>((e) => t`Print run ${e.run}`),
  'printed-by-hand': remarkOf<{ who: string }>((e) => t`${e.who} says that it is printed.`),
  'printer-printed': remarkOf(() => t`The printer says that it is printed.`),
  'printer-gave-up': remarkOf(() => t`The printer gave it up.`),
  'printer-cancelled': remarkOf(() => t`The printer cancelled it.`),
  'printer-forgot': remarkOf(() => t`The printer knows nothing of this job any more. Look at what lies in the tray: was it printed?`),
  'printer-unclear': remarkOf<{ answer: string }>((e) => t`Nobody knows whether the printer has it: ${e.answer}`),
  'stopped-before-printer': remarkOf(() => t`The server stopped before the printer had it. Print it again.`),
  'run-not-made': remarkOf(() => t`It could not be put together. No copy was marked.`),
  'mailbox-nothing-new': remarkOf(() => t`Nothing new.`),
  'mailbox-read': remarkOf<{ messages: number }>(
    (e) => t`${count(e.messages)} new ${e.messages === 1 ? t`message was` : t`messages were`} read.`,
  ),
  'mailbox-refused': remarkOf<{ answer: string }>((e) => t`The mailbox refused the sign-in: ${e.answer}`),
  'mail-host-unknown': remarkOf<{ host: string }>((e) => t`No server is known by the name ${e.host}. Check how it is written.`),
  'mail-port-closed': remarkOf<Place>((e) => t`${e.host} answers, but nothing listens on port ${e.port}. Usual are 587 and 465.`),
  'mail-mute-tls': remarkOf<Place>(
    (e) => t`${e.host}:${e.port} took the connection and then said nothing. Does this port speak TLS from the first byte?`,
  ),
  'mail-mute': remarkOf<Place>(
    (e) =>
      t`${e.host}:${e.port} took the connection and then said nothing. Ports that speak TLS from the first byte do so; choose that, or another port.`,
  ),
  'mail-silent': remarkOf<Place>((e) => t`${e.host}:${e.port} does not answer in time. Is it reachable from here?`),
  'mail-sign-in-refused': remarkOf<{ answer: string }>((e) => t`The sign-in was refused: ${e.answer}. Check user and password.`),
  'mail-certificate': remarkOf<{ host: string; answer: string }>(
    (e) =>
      t`The certificate of ${e.host} is not trusted: ${e.answer}. Use the name that stands in it, or allow certificates that nobody vouches for.`,
  ),
  'mail-not-secured-tls': remarkOf<{ answer: string }>(
    (e) => t`The connection could not be secured: ${e.answer}. This port may want STARTTLS instead.`,
  ),
  'mail-not-secured': remarkOf<{ answer: string }>(
    (e) => t`The connection could not be secured: ${e.answer}. The server may not offer STARTTLS here.`,
  ),
  'mail-not-smtp': remarkOf<Place & { answer: string }>(
    (e) => t`${e.host}:${e.port} answers, but not as a mail server does: ${e.answer}. Is it the right port?`,
  ),
  'mail-answered': remarkOf<{ host: string }>((e) => t`${e.host} answered.`),
  'mail-signed-in': remarkOf<{ host: string }>((e) => t`${e.host} answered and took the sign-in.`),
  'printer-idle': remarkOf<Printer>((e) => t`${e.printer} is ready${e.why ? `: ${e.why}` : ''}.`),
  'printer-processing': remarkOf<Printer>((e) => t`${e.printer} is printing${e.why ? `: ${e.why}` : ''}.`),
  'printer-stopped': remarkOf<Printer>((e) => t`${e.printer} stands still${e.why ? `: ${e.why}` : ''}.`),
  'mailbox-silent': remarkOf<{ host: string; port: number; why: string }>((e) => t`${e.host}:${e.port} does not answer (${e.why}).`),
};

export type RemarkCode = keyof typeof remarks;
type FieldsOfRemark<Code extends RemarkCode> = Parameters<(typeof remarks)[Code]>[0];

/** A remark as it is kept and sent. */
export interface Remark {
  code: RemarkCode;
  fields: ErrorFields;
}

/** Somebody's own words, or a remark of Mailbag's. */
export type Detail = string | Remark;

export function remark<Code extends RemarkCode>(
  code: Code,
  ...[fields]: Record<never, never> extends FieldsOfRemark<Code> ? [] : [fields: FieldsOfRemark<Code>]
): Remark {
  return { code, fields: (fields ?? {}) as ErrorFields };
}

/** Fields that may hold words of Mailbag's own in English. */
const TOLD = ['answer', 'why', 'doubt'];

/** What was said, as a sentence in the language that is spoken; words of others stay as they came. */
export function detailText(detail: Detail): string {
  if (typeof detail === 'string') return translated(detail);
  const sentence = remarks[detail.code] as ((fields: ErrorFields) => string) | undefined;
  return sentence?.(inWords(detail.fields, TOLD)) ?? detail.code;
}

/** Stands in front of a remark where it is kept among words: one line of words never has it. */
const MARK = '\u0001';

/** As it is kept in one column. */
export function storedDetail(detail: Detail): string;
export function storedDetail(detail: Detail | null): string | null;
export function storedDetail(detail: Detail | null): string | null {
  return detail === null || typeof detail === 'string' ? detail : `${MARK}${JSON.stringify([detail.code, detail.fields])}`;
}

/** What was kept. */
export function parseDetail(stored: string): Detail;
export function parseDetail(stored: string | null): Detail | null;
export function parseDetail(stored: string | null): Detail | null {
  if (stored === null || !stored.startsWith(MARK)) return stored;
  const [code, fields] = JSON.parse(stored.slice(MARK.length)) as [RemarkCode, ErrorFields];
  return { code, fields };
}
