import { t } from '@mailbag/core/words';

/** What acts were called in earlier versions: they stand in the history of a folder of before, and are said in the language of the reader too. */
export const EARLIER_ACTIONS = [
  t`removed a mail server`,
  t`removed a sender`,
  t`removed a printer`,
  t`removed a register`,
  t`removed a database`,
];
