import type { Need, NeedKind } from '@mailbag/contract';
import { saidWords } from '@mailbag/core';
import { counted } from '../../features/when';

/** How a need is said, and where the list behind it is. */
interface NeedWords {
  title: (count: number) => string;
  about: (need: Need) => string;
  action: string;
  to: (need: Need) => string;
}

const said = (need: Need): string => (need.said === null ? '' : saidWords(need.said));
const withSaid = (need: Need): string => [need.name, said(need)].filter(Boolean).join(' · ');
const batchOf = (need: Need, otherwise = ''): string =>
  [`Batch ${need.number} of ${need.name}`, said(need) || otherwise].filter(Boolean).join(' · ');
const batch = (need: Need): string => `/batches/${need.id}`;
const copies =
  (state: string) =>
  (need: Need): string =>
    `/ledger?state=${state}&mailing=${need.id}`;

const words: Record<NeedKind, NeedWords> = {
  bounced: {
    title: (n) => `${counted(n, 'copy', 'copies')} bounced`,
    about: (need) => withSaid(need),
    action: 'Look at them',
    to: copies('bounced'),
  },
  unconfirmed: {
    title: (n) => `${counted(n, 'copy', 'copies')} unconfirmed`,
    about: (need) => `${need.name} · Nobody knows whether they went out. Did they arrive?`,
    action: 'Settle',
    to: copies('unconfirmed'),
  },
  changes: {
    title: (n) => `${counted(n, 'answer corrects', 'answers correct')} records`,
    about: (need) => `${need.name} · Look at what recipients changed by their personal links.`,
    action: 'Look at them',
    to: (need) => `/intakes/${need.id}/answers`,
  },
  answers: {
    title: (n) => `${counted(n, 'answer waits', 'answers wait')} for a batch`,
    about: (need) => `${need.name} · Copies are made when you start one.`,
    action: 'Look at them',
    to: (need) => `/intakes/${need.id}/answers`,
  },
  held: {
    title: () => 'Nothing is sent until you have looked',
    about: () =>
      'This folder was put back or copied · What waits here may have gone out from where it comes from. Look at it, then let the rest go.',
    action: 'Look at it',
    to: () => '/settings/safety',
  },
  waits: { title: () => 'A batch waits', about: (need) => batchOf(need), action: 'Open it', to: batch },
  'lost-secrets': {
    title: (n) => `${counted(n, 'password was', 'passwords were')} lost with the key`,
    about: (need) => `Settings · Enter again: ${said(need)}.`,
    action: 'Enter them',
    to: () => '/settings/mail',
  },
  'self-check': {
    title: (n) => `${counted(n, 'file is', 'files are')} not as the ledger says`,
    about: (need) => `Data folder · ${said(need)}`,
    action: 'See which',
    to: () => '/settings/safety',
  },
  'backup-fails': {
    title: () => 'The last backup failed',
    about: (need) => `Backup · ${said(need)}`,
    action: 'See why',
    to: () => '/settings/safety',
  },
  'set-aside': {
    title: (n) => `${counted(n, 'copy was', 'copies were')} not sent, for a reason on our side`,
    about: (need) => withSaid(need),
    action: 'Look at them',
    to: (need) => `/ledger?state=made&trouble=our+side&mailing=${need.id}`,
  },
  'held-back': {
    title: (n) => `${counted(n, 'record is', 'records are')} held back`,
    about: (need) => `${need.name} · Stops found by the checks.`,
    action: 'See why',
    to: (need) => `/mailings/${need.id}/checks`,
  },
  paused: { title: () => 'A batch is paused', about: (need) => batchOf(need, 'Paused by hand.'), action: 'Open it', to: batch },
  'no-mail-server': {
    title: () => 'No mail server is set up',
    about: () => 'Settings · Copies can be made, but not mailed.',
    action: 'Set it up',
    to: () => '/settings/mail',
  },
  'server-fails': { title: () => 'A mail server fails', about: (need) => withSaid(need), action: 'Look at it', to: () => '/settings/mail' },
  'sender-unconfirmed': {
    title: () => 'A sender is not confirmed',
    about: (need) => `${need.name} · Mail from this address through ${said(need)} waits for its code.`,
    action: 'Confirm',
    to: () => '/settings',
  },
  'to-print': {
    title: (n) => `${counted(n, 'copy waits', 'copies wait')} for paper`,
    about: () => 'Paper · They ask for paper and wait for a print run.',
    action: 'Print',
    to: () => '/paper',
  },
  'print-run': {
    title: () => 'A print run did not end well',
    about: (need) => [`Print run ${need.number}`, said(need)].filter(Boolean).join(' · '),
    action: 'Look at it',
    to: () => '/paper',
  },
  'register-fails': {
    title: () => 'A register cannot be written',
    about: (need) => withSaid(need),
    action: 'Look at it',
    to: () => '/settings/registers',
  },
  reports: {
    title: (n) => `${counted(n, 'report waits', 'reports wait')} for your word`,
    about: () => 'Bounces · They look like bounces, but anybody could have written them.',
    action: 'Decide',
    to: () => '/settings/bounces',
  },
  retrying: {
    title: (n) => counted(n, 'copy is tried again by itself', 'copies are tried again by themselves'),
    about: (need) => withSaid(need),
    action: 'Watch',
    to: copies('retrying'),
  },
};

/** A need as the desk says it. */
export function needWords(need: Need): { title: string; about: string; action: string; to: string } {
  const { title, about, action, to } = words[need.kind];
  return { title: title(need.count), about: about(need), action, to: to(need) };
}
