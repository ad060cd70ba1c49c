import { t } from '../words/words.js';
import { list, told } from './entry.js';

export const mailErrors = {
  'mail-server-in-use': told<{ server: string; senders: readonly string[] }>(
    (e) => t`“${e.server}” is used by ${list(e.senders)}. Give those senders another server first.`,
    409,
  ),
  'mail-not-handed': told<{ answer: string }>((e) => t`The message could not be handed over: ${e.answer}`),
  'mail-too-large': told<{ size: string; server: string; limit: number }>(
    (e) =>
      t`The message would have ${e.size} MB; “${e.server}” is sent ${e.limit} MB at most. Attach one combined PDF or a zip, take extra files away, or raise the limit in Settings.`,
  ),
  'mail-combined-needs-flat': told(
    () => t`One combined PDF can only be made of flattened copies without passwords. Choose single files or a zip, or change the finish.`,
  ),
  'mail-too-many-recipients': told<{ count: number; limit: number }>(
    (e) => t`The message would go to ${e.count} addresses; ${e.limit} are the most. Shorten the list.`,
  ),
  'sender-exists': told<{ address: string }>((e) => t`${e.address} is a sender already.`, 409),
  'sender-in-use': told<{ count: number; address: string }>(
    (e) => t`${e.count} messages from ${e.address} are still on their way. Wait for them, or cancel their batch.`,
    409,
  ),
  'sender-key-unreadable': told<{ address: string }>(
    (e) => t`The private key for ${e.address} cannot be read. Paste the whole PEM file, from BEGIN to END.`,
  ),
  'sender-code-not-mailed': told<{ address: string; answer: string }>(
    (e) => t`The code could not be mailed to ${e.address}: ${e.answer}. Test the mail server first.`,
  ),
  'sender-code-wrong': told<{ left: number }>((e) => t`That code is wrong. ${e.left} more attempts are left.`),
  'sender-code-over': told(() => t`This code is no longer valid. Ask for a new one; it comes within a minute.`),
  'sender-not-confirmed': told<{ mailing: string }>(
    (e) => t`“${e.mailing}” has no confirmed sender. Choose one in Output and message, or confirm it in Settings.`,
  ),
  'attachment-gone': told<{ name: string }>((e) => t`The extra file ${e.name} is no longer there. Attach it again in Output and message.`),
  'mail-address-refused': told<{ address: string; why: string }>((e) => t`“${e.address}” is not an e-mail address: ${e.why}.`),
};
