import type { MailingPlan } from '@mailbag/contract';
import type { BatchContext, Column, MailAddress, MessageTexts, RenderedMessage, SourceRecord } from '@mailbag/core';
import {
  addressesIn,
  compilePattern,
  letterExtras,
  messagePattern,
  oneLine,
  patternData,
  patternExtras,
  plainTags,
  replaceTags,
} from '@mailbag/core';
import type { FrozenMailing } from './frozen-mailing.js';
import type { LinkPlace } from './personal-link.js';
import { copyPlace } from './personal-link.js';
import { passwordText } from './plan-passwords.js';
import { htmlToPlain, safeHtml } from './safe-html.js';

/** An earlier copy of the same template for the same record. */
export interface ReplacedCopy {
  code: string;
  /** The day of its batch. ISO 8601. */
  on: string;
}

/** What patterns are rendered over, for one copy or one record. */
export interface RecordPlace {
  record: SourceRecord;
  /** From 0. */
  ordinal: number;
  code: string;
  batch: BatchContext;
  template: string;
  links?: LinkPlace | undefined;
  /** The copy that this one replaces; left out or null: none. */
  replaces?: ReplacedCopy | null;
}

/** Data of a record for every pattern of a mailing. @param only names that are asked for */
export const dataOf = (
  columns: readonly Column[],
  { record, ordinal, code, batch, template, links }: RecordPlace,
  only?: ReadonlySet<string>,
): Record<string, unknown> => patternData(columns, record, { ...copyPlace(batch, links, ordinal, code), template }, only);

export const patternNames = (columns: readonly Column[]): string[] => [...patternExtras, ...columns.map(({ slug }) => slug)];

/** What messages name. @param hasLinks whether the mailing has personal links */
export const letterNames = (columns: readonly Column[], hasLinks: boolean): string[] => [
  ...letterExtras.filter((name) => name !== 'link' || hasLinks),
  ...columns.map(({ slug }) => slug),
];

/** A message with the others who get it. */
export interface Letter extends RenderedMessage {
  copyTo: MailAddress[];
  blindCopyTo: MailAddress[];
}

/** One mailing's letters, ready to be rendered for each record. */
export interface LetterPattern {
  letter(place: RecordPlace): Letter;
  reminder: ((place: RecordPlace) => Letter) | null;
}

/** A body as text and as HTML. */
function texts(subject: string, body: string, isHtml: boolean): MessageTexts {
  if (!isHtml) return { subject, text: body, html: null };
  const html = plainTags(body);
  return {
    subject,
    text: htmlToPlain(replaceTags(html, (tag) => tag.replace(/</g, '&lt;').replace(/>/g, '&gt;'))),
    html: body,
  };
}

/** @throws MailbagError pattern-* */
export function letterPattern({ plan, columns, templates, links }: FrozenMailing): LetterPattern {
  const names = letterNames(columns, links !== undefined);
  const { message, output } = plan;
  const others = (pattern: string | undefined): ((data: Record<string, unknown>) => MailAddress[]) => {
    if (!pattern?.trim()) return () => [];
    const compiled = compilePattern(pattern, names);
    return (data) => addressesIn(compiled.render(data), true).addresses;
  };
  const copyTo = others(message.copyTo);
  const blindCopyTo = others(message.blindCopyTo);
  const hint = (output.openPassword ?? '').trim() === '' ? '' : (message.passwordSentence ?? '').trim();
  const make = (
    subject: string,
    body: string,
    isHtml: boolean,
    withHint: boolean,
    withOthers: boolean,
  ): ((place: RecordPlace) => Letter) => {
    const base = texts(subject, body, isHtml);
    const tail = withHint && hint ? texts('', hint, false) : null;
    const render = messagePattern(base, names);
    const renderTail = tail && messagePattern(tail, names);
    return (place) => {
      const data = {
        replaces: place.replaces?.code ?? '',
        replaced_on: place.replaces?.on ?? '',
        ...dataOf(columns, { ...place, links, template: place.template || (templates[0]?.name ?? '') }),
      };
      const { subject: line, text, html } = render(data);
      const end = renderTail?.(data);
      const whole = end ? `${html}\n${end.html}` : html;
      return {
        subject: line,
        text: end ? `${text}\n\n${end.text}` : text,
        // What was made from plain text is escaped as a whole.
        html: isHtml ? safeHtml(whole) : whole,
        copyTo: withOthers ? copyTo(data) : [],
        blindCopyTo: withOthers ? blindCopyTo(data) : [],
      };
    };
  };
  const { reminder } = message;
  return {
    letter: make(message.subject, message.body, message.bodyFormat === 'html', true, true),
    reminder: reminder ? make(reminder.subject, reminder.body, false, reminder.attach, false) : null,
  };
}

/** Passwords of copies, composed for each record. Null: the mailing sets none. @throws MailbagError pattern-* */
export function passwordPattern(
  plan: MailingPlan,
  columns: readonly Column[],
): ((place: RecordPlace) => { open: string; permissions: string }) | null {
  const [openPassword, permissionsPassword] = [passwordText(plan.output.openPassword), passwordText(plan.output.permissionsPassword)];
  if (openPassword.trim() === '' && permissionsPassword.trim() === '') return null;
  const names = patternNames(columns);
  const [open, permissions] = [compilePattern(openPassword, names), compilePattern(permissionsPassword, names)];
  return (place) => {
    const data = dataOf(columns, place);
    return { open: oneLine(open.render(data)), permissions: oneLine(permissions.render(data)) };
  };
}
