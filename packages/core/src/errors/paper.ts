import { t } from '../words/words.js';
import { told } from './entry.js';

export const paperErrors = {
  'print-record-gone': told<{ copy: string }>(
    (e) =>
      t`Copy ${e.copy} opens with a password only, and the values that it could be made of without one were deleted when their time was over. Nothing was put together; leave it out, or print the copy itself.`,
    409,
  ),
  'print-nothing': told(
    () => t`No copy waits to be printed with this choice. Copies without an address, bounced ones and those that ask for paper come here.`,
  ),
  'print-run-state': told<{ run: number; state: string; wanted: string }>(
    (e) => t`Print run ${e.run} is ${e.state}, so it cannot be ${e.wanted}.`,
    409,
  ),
  'printer-unreachable': told<{ uri: string; why: string }>(
    (e) => t`The printer at ${e.uri} does not answer (${e.why}). Check its address and whether it is switched on.`,
  ),
  'printer-refused': told<{ uri: string; answer: string }>((e) => t`The printer at ${e.uri} refused the job: ${e.answer}.`),
  'printer-in-use': told<{ run: number }>((e) => t`Print run ${e.run} is still at this printer. Wait for it, or cancel it.`, 409),
};
