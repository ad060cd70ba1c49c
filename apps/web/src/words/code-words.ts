import type { BatchState, PrintRunState, Role } from '@mailbag/contract';
import type { CopyState, Severity } from '@mailbag/core';

/** Words that are shown as they are known to programs; other languages have their own. Each stands here once, so that the catalogues have it. */
type Word = CopyState | BatchState | PrintRunState | Role | Severity;
const states: Record<Word, true> = {
  planned: true,
  made: true,
  queued: true,
  sending: true,
  sent: true,
  retrying: true,
  bounced: true,
  unconfirmed: true,
  printed: true,
  returned: true,
  complete: true,
  withdrawn: true,
  planning: true,
  making: true,
  done: true,
  paused: true,
  cancelled: true,
  ready: true,
  printing: true,
  failed: true,
  administrator: true,
  operator: true,
  viewer: true,
  stop: true,
  look: true,
};
/** Kinds of columns, fields and questions, troubles of mail, and words of rules. */
export const codeWords: readonly string[] = [
  ...Object.keys(states),
  ...['template', 'source', 'mailing', 'intake'],
  ...['text', 'number', 'date', 'yes or no', 'e-mail', 'phone', 'postal code', 'address', 'key'],
  ...['tick box', 'radio buttons', 'menu', 'list', 'signature', 'push button', 'checkbox', 'radio', 'combo', 'button'],
  ...['long text', 'telephone', 'amount', 'image', 'one of', 'some of', 'consent', 'notice'],
  ...['mailbox', 'their server', 'network', 'protocol', 'content', 'policy', 'our side'],
  ...['is', 'contains', 'and', 'or', 'always', 'among', 'as', 'otherwise', 'then', 'when', 'plus', 'minus'],
  ...['before', 'after', 'first', 'last', 'digits', 'letters', 'line', 'day', 'month', 'year', 'whole units', 'cents', 'area code'],
  ...['name', 'street', 'postalCode', 'town', 'region', 'country', 'percent'],
];
