import { counted, plural, t } from '@mailbag/core/words';
import type { Need, NeedKind } from '@mailbag/contract';
import { detailText } from '@mailbag/core';

/** How a need is said, and where the list behind it is. */
interface NeedWords {
  title: (count: number) => string;
  about: (need: Need) => string;
  action: string;
  to: (need: Need) => string;
}

const detailOf = (need: Need): string => (need.detail === null ? '' : detailText(need.detail));
const withDetail = (need: Need): string => [need.name, detailOf(need)].filter(Boolean).join(' · ');
const batchOf = (need: Need, otherwise = ''): string =>
  [t`Batch ${need.number} of ${need.name}`, detailOf(need) || otherwise].filter(Boolean).join(' · ');
const batch = (need: Need): string => `/batches/${need.id}`;
const copies =
  (state: string) =>
  (need: Need): string =>
    `/ledger?state=${state}&mailing=${need.id}`;

const words: Record<NeedKind, NeedWords> = {
  bounced: {
    title: (n) => t`${plural(n, 'copy', 'copies')} bounced`,
    about: (need) => withDetail(need),
    action: t`Look at them`,
    to: copies('bounced'),
  },
  unconfirmed: {
    title: (n) => t`${plural(n, 'copy', 'copies')} unconfirmed`,
    about: (need) => t`${need.name} · Nobody knows whether they went out. Did they arrive?`,
    action: t`Settle`,
    to: copies('unconfirmed'),
  },
  changes: {
    title: (n) => t`${plural(n, 'answer corrects', 'answers correct')} records`,
    about: (need) => t`${need.name} · Look at what recipients changed by their personal links.`,
    action: t`Look at them`,
    to: (need) => `/intakes/${need.id}/answers`,
  },
  answers: {
    title: (n) => t`${plural(n, 'answer waits', 'answers wait')} for a batch`,
    about: (need) => t`${need.name} · Copies are made when you start one.`,
    action: t`Look at them`,
    to: (need) => `/intakes/${need.id}/answers`,
  },
  held: {
    title: () => t`Nothing is sent until you have looked`,
    about: () =>
      t`This folder was restored or copied · What waits here may have gone out from where it comes from. Look at it, then let the rest go.`,
    action: t`Look at it`,
    to: () => '/settings/safety',
  },
  waits: { title: () => t`A batch waits`, about: (need) => batchOf(need), action: t`Open it`, to: batch },
  'lost-secrets': {
    title: (n) => t`${plural(n, 'password was', 'passwords were')} lost with the key`,
    about: (need) => t`Settings · Enter again: ${detailOf(need)}.`,
    action: t`Enter them`,
    to: () => '/settings/mail',
  },
  'self-check': {
    title: (n) => t`${plural(n, 'file is', 'files are')} not as the ledger says`,
    about: (need) => t`Data folder · ${detailOf(need)}`,
    action: t`See which`,
    to: () => '/settings/safety',
  },
  'backup-fails': {
    title: () => t`The last backup failed`,
    about: (need) => t`Backup · ${detailOf(need)}`,
    action: t`See why`,
    to: () => '/settings/safety',
  },
  'set-aside': {
    title: (n) => t`${plural(n, 'copy was', 'copies were')} not sent, for a reason on our side`,
    about: (need) => withDetail(need),
    action: t`Look at them`,
    to: (need) => `/ledger?state=made&trouble=our+side&mailing=${need.id}`,
  },
  'held-back': {
    title: (n) => t`${plural(n, 'record is', 'records are')} held back`,
    about: (need) => t`${need.name} · Stops found by the checks.`,
    action: t`See why`,
    to: (need) => `/mailings/${need.id}/checks`,
  },
  paused: { title: () => t`A batch is paused`, about: (need) => batchOf(need, t`Paused by hand.`), action: t`Open it`, to: batch },
  'no-mail-server': {
    title: () => t`No mail server is set up`,
    about: () => t`Settings · Copies can be made, but not mailed.`,
    action: t`Set it up`,
    to: () => '/settings/mail',
  },
  'server-fails': {
    title: () => t`A mail server fails`,
    about: (need) => withDetail(need),
    action: t`Look at it`,
    to: () => '/settings/mail',
  },
  'sender-unconfirmed': {
    title: () => t`A sender is not confirmed`,
    about: (need) => t`${need.name} · Mail from this address through ${detailOf(need)} waits for its code.`,
    action: t`Confirm`,
    to: () => '/settings',
  },
  'to-print': {
    title: (n) => t`${plural(n, 'copy waits', 'copies wait')} for paper`,
    about: () => t`Paper · They ask for paper and wait for a print run.`,
    action: t`Print`,
    to: () => '/paper',
  },
  'print-run': {
    title: () => t`A print run did not end well`,
    about: (need) => [t`Print run ${need.number}`, detailOf(need)].filter(Boolean).join(' · '),
    action: t`Look at it`,
    to: () => '/paper',
  },
  'register-fails': {
    title: () => t`A register cannot be written`,
    about: (need) => withDetail(need),
    action: t`Look at it`,
    to: () => '/settings/registers',
  },
  reports: {
    title: (n) => t`${plural(n, 'report waits', 'reports wait')} for your word`,
    about: () => t`Bounces · They look like bounces, but anybody could have written them.`,
    action: t`Decide`,
    to: () => '/settings/bounces',
  },
  retrying: {
    title: (n) => counted(n, 'copy is tried again by itself', 'copies are tried again by themselves'),
    about: (need) => withDetail(need),
    action: t`See them`,
    to: copies('retrying'),
  },
};

/** A need as the desk says it. */
export function needWords(need: Need): { title: string; about: string; action: string; to: string } {
  const { title, about, action, to } = words[need.kind];
  return { title: title(need.count), about: about(need), action, to: to(need) };
}
