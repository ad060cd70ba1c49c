import { t } from '../words/words.js';
import { list, told } from './entry.js';

export const mailingsErrors = {
  'password-lost': told(
    () =>
      t`The password of the copies was encrypted with a key that is gone. Enter it again under Output; until then nothing of this mailing is made.`,
  ),
  'copy-in-print-run': told<{ copy: string; run: number }>(
    (e) =>
      t`Copy ${e.copy} lies in print run ${e.run}, so it would arrive twice. Cancel that run or say that it was printed, then send the copy again.`,
    409,
  ),
  'mailing-file-unreadable': told<{ why: string }>(
    (e) => t`This file cannot be imported as a mailing: ${e.why}. Choose a zip that was written with “Export” here or in another Mailbag.`,
  ),
  'file-gone': told<{ name: string }>(
    (e) => t`${e.name} is not in the data folder any more. Whoever runs Mailbag can bring it back from a backup.`,
    404,
  ),
  'rule-unknown': told<{ field: string; why: string; template?: number }>(
    (e) => t`The rule of the field “${e.field}” was not saved: ${e.why}. Choose the rule again.`,
  ),
  'condition-unknown': told<{ template: number }>(
    () => t`The condition of a template of the packet was not saved: a part of it is missing. Put it together again.`,
  ),
  'picture-missing': told<{ name: string; row: number }>(
    (e) => t`The picture “${e.name}”, which row ${e.row} names, did not come with the records. Add it to the source, or change the name.`,
  ),
  'count-unknown': told<{ template: number }>(
    () => t`How many copies of a template a record gets was not saved: the columns of its items are missing. Choose them again.`,
  ),
  'check-unknown': told<{ check: string }>((e) => t`There is no check called “${e.check}”, so the plan was not saved. Reload the page.`),
  'pattern-unknown-column': told<{ pattern: string; name: string; columns: readonly string[] }>(
    (e) => t`“${e.pattern}” names ${e.name}, which is not a column of the records. Columns are ${list(e.columns)}.`,
  ),
  'pattern-broken': told<{ pattern: string; why: string }>(
    (e) => t`“${e.pattern}” cannot be understood: ${e.why}. Data stands between two pairs of braces, like {{ plot }}.`,
  ),
  'pattern-climbs': told<{ pattern: string }>((e) => t`“${e.pattern}” leads out of the archive. Leave out “..” and a slash at its start.`),
  'pattern-empty': told<{ what: string }>((e) => t`The pattern for the ${e.what} is empty. Write a name, for example {{ code }}.`),
  'copy-law': told<{ copy: string; state: string; event: string }>(
    (e) => t`Copy ${e.copy} is ${e.state}; “${e.event}” cannot happen to it now.`,
    409,
  ),
  'mailing-no-template': told<{ mailing: string }>((e) => t`“${e.mailing}” has no template yet. Add one to its packet.`),
  'mailing-no-records': told<{ mailing: string }>((e) => t`“${e.mailing}” has no records yet. Choose a source.`),
  'mailing-no-record-can-run': told(() => t`Every record is held back by a stop or left out. Open Checks to see why.`),
  'mailing-changed-elsewhere': told<{ mailing: string }>(
    (e) => t`“${e.mailing}” was changed in another window. It was read again; repeat your last change.`,
    409,
  ),
  'mailing-no-recipient-column': told<{ mailing: string }>(
    (e) => t`“${e.mailing}” is to be mailed, but no column holds the addresses. Choose one in Output and message.`,
  ),
  'mailing-no-mail-server': told(() => t`No mail server is set up. Enter it in Settings, or choose “made and kept” in Output and message.`),
  'mailing-name-empty': told(() => t`A mailing needs a name.`),
  'mailing-map-empty': told<{ mailing: string }>(
    (e) => t`No field of “${e.mailing}” is filled from the records yet, so every copy would be the same. Map some fields first.`,
  ),
  'start-outdated': told<{ mailing: string }>(
    (e) => t`${e.mailing} has changed since you looked, or another batch was started. Look again at who gets what, then start.`,
    409,
  ),
  'start-not-confirmed': told<{ count: number }>(
    (e) => t`Some of them have a copy already. Type ${e.count}, the number of recipients, to send to all of them again.`,
    409,
  ),
  'batch-not-running': told<{ batch: number; state: string; wanted: string }>(
    (e) => t`Batch ${e.batch} is ${e.state}, so it cannot be ${e.wanted}.`,
    409,
  ),
  'batch-disk-full': told<{ path: string }>((e) => t`The disk is full: ${e.path} could not be written. Make room; it goes on by itself.`),
  'batch-not-made': told<{ path: string; why: string }>(
    (e) => t`${e.path} could not be made: ${e.why}. The batch is paused; nothing already made is lost.`,
  ),
  'batch-mail-failed': told<{ batch: number; why: string }>(
    (e) => t`The mail that tells how batch ${e.batch} ended could not be sent: ${e.why}. It is tried again.`,
  ),
  'batch-file-gone': told<{ path: string }>(
    (e) => t`${e.path} is no longer in the archive folder, so this copy cannot be sent or opened.`,
    404,
  ),
  'copy-changed': told<{ copy: string; path: string }>(
    (e) =>
      t`The file of copy ${e.copy} (${e.path}) is not the one that was made: it was changed on disk. It is not sent. Bring the right file back, or withdraw the copy and make a new one.`,
  ),
  'register-failed': told<{ register: string; answer: string }>(
    (e) => t`The register “${e.register}” could not be written: ${e.answer}. Nothing is lost; it is tried again.`,
  ),
  'copy-differs': told<{ copy: string; path: string; what: string }>(
    (e) =>
      t`Copy ${e.copy} (${e.path}) does not hold what was meant: ${e.what}. The batch is paused; look at the copy, then resume to make it again.`,
  ),
  'reminder-no-text': told<{ mailing: string }>((e) => t`“${e.mailing}” has no text for reminders yet. Write it in Output and message.`),
  'output-combined-password': told(
    () => t`A combined file would hold copies without their passwords. Choose single files, or take the passwords away.`,
  ),
  'template-in-use': told<{ template: string; mailings: readonly string[] }>(
    (e) => t`“${e.template}” belongs to ${list(e.mailings)}. Take it out of the packet first.`,
    409,
  ),
};
