import { t } from '@mailbag/core/words';

/** How the copies of a packet go along with a message. */
export const attachWays = [
  { id: 'files', text: t`single files`, detail: t`one for each template` },
  { id: 'combined', text: t`one combined PDF`, detail: t`flattened copies without passwords only` },
  { id: 'zip', text: t`one zip`, detail: t`the single files, packed` },
];
