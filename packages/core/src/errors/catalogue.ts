/**
 * Every error that Mailbag says, with a stable code, the fields it carries and its sentence: what, where, what next.
 * Errors cross workers and HTTP as `{ code, fields }`; the screen builds the sentence. The code of a retired one is never used again.
 * docs/errors.md lists them; a test holds the two together.
 */
export type ErrorFields = Record<string, string | number | boolean | null | readonly string[]>;

const f = (fields: ErrorFields, name: string): string => {
  const value = fields[name];
  return Array.isArray(value) ? value.map((one) => `“${one}”`).join(', ') : String(value ?? '');
};

/** A number as it is read, by its thousands. */
const n = (fields: ErrorFields, name: string): string => {
  const value = fields[name];
  return typeof value === 'number' ? value.toLocaleString('en') : f(fields, name);
};

export const catalogue = {
  'pdf-not-a-pdf': (e) => `${f(e, 'file')} is not a PDF. Choose the PDF form itself, not a picture or a text of it.`,
  'pdf-damaged': (e) => `${f(e, 'file')} is damaged and could not be mended. Ask its author for a fresh copy, or print it to a new PDF.`,
  'pdf-holds-too-much': (e) =>
    `${f(e, 'file')} unpacks to more than a form can need. It was not opened. Print it to a new PDF, or ask its author for a plain copy.`,
  'pdf-too-many': (e) => `${f(e, 'file')} has more than ${n(e, 'limit')} ${f(e, 'what')}; a form that has so many cannot be filled.`,
  'pdf-password': (e) => `${f(e, 'file')} opens only with a password. Save a copy without the opening password and upload that.`,
  'pdf-no-fields': (e) => `${f(e, 'file')} has no form fields, so there is nothing to fill. Upload the fillable version of the form.`,
  'pdf-xfa-only': (e) =>
    `${f(e, 'file')} keeps its form only in XFA, which has no pages of its own to fill. Ask its author for a version with AcroForm fields.`,
  'pdf-too-large': (e) => `${f(e, 'file')} is larger than ${f(e, 'limitMb')} MB. Reduce the pictures in it and upload it again.`,
  'pdf-field-unknown': (e) => `The template has no field named “${f(e, 'field')}”.`,
  'value-not-fillable': (e) => `“${f(e, 'field')}” is a ${f(e, 'kind')} field and takes no value.`,
  'value-not-accepted': (e) =>
    `“${f(e, 'field')}” does not accept “${f(e, 'value')}”. ${f(e, 'accepted') ? `It accepts ${f(e, 'accepted')}.` : 'It accepts text.'}`,
  'value-too-long': (e) => `The value for “${f(e, 'field')}” has ${f(e, 'length')} characters; the field takes ${f(e, 'limit')} at most.`,
  'value-format': (e) => `“${f(e, 'value')}” does not go into “${f(e, 'field')}”: ${f(e, 'why')}.`,
  'password-both': () =>
    'The password to open a copy and the permissions password are the same, so the limits would hold for nobody. Choose two different ones.',
  'password-long': (e) =>
    `A password has ${f(e, 'length')} bytes; ${f(e, 'limit')} are the most that a PDF can have. Choose a shorter one.`,
  'value-one-option': (e) => `“${f(e, 'field')}” takes one option, not ${f(e, 'count')}.`,
  'font-cannot-draw': (e) =>
    `No face can draw ${f(e, 'characters')} in “${f(e, 'field')}”. Bring faces for Chinese, Japanese and Korean with “npm run faces”, add a TrueType face that has them to the folder of faces, or change the value.`,
  'image-unreadable': (e) =>
    `The picture for “${f(e, 'field')}” is neither a PNG nor a JPEG that can be read. Save it as PNG and choose it again.`,
  'sheet-not-a-workbook': (e) =>
    `${f(e, 'file')} is neither a workbook nor a CSV file nor form data. Save it as .xlsx or CSV and choose it again.`,
  'sheet-old-workbook': (e) => `${f(e, 'file')} is in an older workbook format. Save it as .xlsx or CSV and choose it again.`,
  'sheet-password': (e) => `${f(e, 'file')} is protected with a password. Save a copy without the password and choose that.`,
  'sheet-damaged': (e) => `${f(e, 'file')} is damaged: ${f(e, 'part')} cannot be read. Save it again and choose the new file.`,
  'sheet-empty': (e) => `${f(e, 'where')} is empty. Choose another sheet or another row for the headings.`,
  'sheet-missing': (e) => `${f(e, 'file')} has no sheet named “${f(e, 'sheet')}”. It has ${f(e, 'sheets')}.`,
  'sheet-no-headings': (e) => `Row ${f(e, 'row')} of ${f(e, 'where')} has no headings. Choose the row that names the columns.`,
  'sheet-broken-quotes': (e) =>
    `${f(e, 'file')} has a quote that never ends, so everything after it is one value (${f(e, 'rows')}). Close the quote, or save the file again.`,
  'sheet-too-many-columns': (e) =>
    `${f(e, 'where')} has ${n(e, 'columns')} columns; ${n(e, 'limit')} can be read. Take out those that nobody needs, or choose another row for the headings.`,
  'sheet-no-pairs': (e) => `${f(e, 'where')} has no labels with values beside them. Read it as a table, or bring files of one record each.`,
  'sheet-encoding-unknown': (e) => `“${f(e, 'encoding')}” is no encoding that is known here. Choose one of the list.`,
  'sheet-took-too-much': (e) =>
    `${f(e, 'file')} needs more memory or time than one file may take. Save it as .xlsx or CSV, or split it, and choose it again.`,
  'formdata-no-fields': (e) => `${f(e, 'file')} holds no values. Choose form data with filled fields.`,
  'sheet-too-many-rows': (e) => `${f(e, 'where')} has more than ${n(e, 'limit')} rows. Split it into several files.`,
  'source-reading-breaks-off': (e) =>
    `Mailbag has stopped ${f(e, 'times')} times while it read “${f(e, 'source')}”, so it is not read again by itself. Split the file, save it in another format, or read it again when the server has more memory.`,
  'sheet-too-many-cells': (e) =>
    `${f(e, 'where')} comes to more than ${n(e, 'limit')} cells by row ${f(e, 'row')}, more than can be read of a file of its size. Delete rows and columns that nobody needs, or split it into several files.`,
  'sheet-too-much-text': (e) =>
    `${f(e, 'where')} comes to more than ${n(e, 'limit')} characters by row ${f(e, 'row')}, more than can be read of a file of its size. Take out long texts, or split it into several files.`,
  'sheet-cell-too-long': (e) =>
    `A cell in row ${f(e, 'row')} of ${f(e, 'where')} holds more than ${n(e, 'limit')} characters. Shorten it, and choose the file again.`,
  'sheet-zip-bomb': (e) =>
    `${f(e, 'file')} would unpack to ${f(e, 'size')} MB, ${f(e, 'times')} times its size, as no honest workbook does. It was not opened. Save it again in the program it comes from.`,
  'sheet-too-large': (e) => `${f(e, 'file')} is larger than ${f(e, 'limitMb')} MB. Split it into several files.`,
  'database-unreachable': (e) =>
    `The database server ${f(e, 'host')} does not answer (${f(e, 'why')}). Check its address and port, and whether it may be reached from here.`,
  'database-host-refused': (e) =>
    `${f(e, 'host')} is not among the database servers that Mailbag may reach. Ask whoever runs Mailbag to allow it.`,
  'record-over-time': () =>
    'The values of this record were deleted when their time was over, so nothing can be composed of them any more. Copies that were made of it are kept.',
  'password-lost': () =>
    'The password of the copies was encrypted with a key that is gone. Enter it again under Output; until then nothing of this mailing is made.',
  'print-record-gone': (e) =>
    `Copy ${f(e, 'copy')} opens with a password only, and the values that it could be made of without one were deleted when their time was over. Nothing was put together; leave it out, or print the copy itself.`,
  'copy-in-print-run': (e) =>
    `Copy ${f(e, 'copy')} lies in print run ${f(e, 'run')}, so it would arrive twice. Cancel that run or say that it was printed, then send the copy again.`,
  'file-gone': (e) => `${f(e, 'name')} is not in the data folder any more. Whoever runs Mailbag can bring it back from a backup.`,
  'rule-unknown': (e) => `The rule of the field “${f(e, 'field')}” was not saved: ${f(e, 'why')}. Choose the rule again.`,
  'check-unknown': (e) => `There is no check called “${f(e, 'check')}”, so the plan was not saved. Load the page again.`,
  'secret-asked-again': (e) =>
    `Enter the password for ${f(e, 'place')} again: where it is sent, or how the way there is secured, was changed, and a kept password goes only where it was meant for.`,
  'target-local': (e) =>
    `${f(e, 'host')} leads to the machine that Mailbag runs on, or no farther than its own wire. Such targets are allowed by whoever runs Mailbag, with MAILBAG_LOCAL_TARGETS.`,
  'target-wrong': (e) => `“${f(e, 'address')}” is no address that can be reached. Write it like ipp://printer.example:631/ipp/print.`,
  'database-sign-in-refused': (e) => `The database at ${f(e, 'host')} refused the user or the password. Check both.`,
  'database-unknown': (e) => `The server ${f(e, 'host')} has no such database: ${f(e, 'said')}. Check its name.`,
  'database-tls': (e) =>
    `The connection to ${f(e, 'host')} could not be secured: ${f(e, 'said')}. Check the server's certificate, or whether it offers TLS at all.`,
  'database-not-a-file': (e) => `${f(e, 'host')} is no SQLite database that can be read. Choose the database file itself.`,
  'database-text-encoding': (e) =>
    `${f(e, 'host')} keeps its texts as UTF-16, which cannot be read here. Have the file written anew as UTF-8 by the program that it comes from.`,
  'database-too-much': (e) => `The query on ${f(e, 'host')} needs more memory than a query may take. Ask for fewer rows or shorter values.`,
  'database-query-refused': (e) => `The query was not run: ${f(e, 'why')}. Write one SELECT that reads what you need.`,
  'database-parameter-missing': (e) => `The query asks for :${f(e, 'name')}, which has no value. Fill it in below the query.`,
  'database-too-slow': (e) =>
    `The database at ${f(e, 'host')} took too long and the query was ended. Ask for fewer rows, or have an index made for it.`,
  'database-gone': (e) =>
    `The connection to the database at ${f(e, 'host')} broke off. Nothing was changed; the records read before are kept. Try again.`,
  'database-failed': (e) => `The database at ${f(e, 'host')} says: ${f(e, 'said')}`,
  'connection-in-use': (e) => `“${f(e, 'connection')}” is read by ${f(e, 'sources')}. Remove those sources first.`,
  'source-key-missing': (e) => `“${f(e, 'source')}” has no column “${f(e, 'column')}”. Choose another record key.`,
  'correction-gone': () => `This value was changed again in the meantime. Look at the record as it is now.`,
  'pattern-unknown-column': (e) =>
    `“${f(e, 'pattern')}” names ${f(e, 'name')}, which is no column of the records. Columns are ${f(e, 'columns')}.`,
  'pattern-broken': (e) =>
    `“${f(e, 'pattern')}” cannot be understood: ${f(e, 'why')}. Data stands between two pairs of braces, like {{ plot }}.`,
  'pattern-climbs': (e) => `“${f(e, 'pattern')}” leads out of the archive. Leave out “..” and a slash at its start.`,
  'pattern-empty': (e) => `The pattern for the ${f(e, 'what')} is empty. Write a name, for example {{ code }}.`,
  'copy-law': (e) => `Copy ${f(e, 'copy')} is ${f(e, 'state')}; “${f(e, 'event')}” cannot happen to it now.`,
  'mailing-no-template': (e) => `“${f(e, 'mailing')}” has no template yet. Add one to its packet.`,
  'mailing-no-records': (e) => `“${f(e, 'mailing')}” has no records yet. Choose a source.`,
  'mailing-no-record-can-run': () => `Every record is held back by a stop or left out. Open Checks to see why.`,
  'mailing-changed-elsewhere': (e) => `“${f(e, 'mailing')}” was changed in another window. It was read again; repeat your last change.`,
  'mailing-no-recipient-column': (e) =>
    `“${f(e, 'mailing')}” is to be mailed, but no column holds the addresses. Choose one in Output and message.`,
  'mailing-no-mail-server': () => `No mail server is set up. Enter it in Settings, or choose “made and kept” in Output and message.`,
  'mailing-name-empty': () => `A mailing needs a name.`,
  'mailing-map-empty': (e) =>
    `No field of “${f(e, 'mailing')}” is filled from the records yet, so every copy would be the same. Map some fields first.`,
  'start-outdated': (e) =>
    `${f(e, 'mailing')} has changed since you looked, or another batch was started. Look again at who gets what, then start.`,
  'start-not-confirmed': (e) =>
    `Some of them have a copy already. Type ${f(e, 'count')}, the number of recipients, to send to all of them again.`,
  'batch-not-running': (e) => `Batch ${f(e, 'batch')} is ${f(e, 'state')}, so it cannot be ${f(e, 'wanted')}.`,
  'batch-disk-full': (e) => `The disk is full: ${f(e, 'path')} could not be written. Make room; it goes on by itself.`,
  'batch-not-made': (e) => `${f(e, 'path')} could not be made: ${f(e, 'why')}. The batch is paused; nothing already made is lost.`,
  'batch-file-gone': (e) => `${f(e, 'path')} is no longer in the archive folder, so this copy cannot be sent or opened.`,
  'copy-changed': (e) =>
    `The file of copy ${f(e, 'copy')} (${f(e, 'path')}) is not the one that was made: it was changed on disk. It is not sent. Bring the right file back, or withdraw the copy and make a new one.`,
  'mail-server-unreachable': (e) =>
    `The mail server ${f(e, 'host')}:${f(e, 'port')} does not answer (${f(e, 'why')}). Check the address and whether it is running.`,
  'mail-sign-in-refused': (e) => `The mail server ${f(e, 'host')} refused the sign-in: ${f(e, 'said')}`,
  'mail-server-in-use': (e) => `“${f(e, 'server')}” is used by ${f(e, 'senders')}. Give those senders another server first.`,
  'mail-window-closed': (e) => `“${f(e, 'server')}” has no day on which it may send. Choose one in Settings.`,
  'mail-not-handed': (e) => `The message could not be handed over: ${f(e, 'said')}`,
  'mail-too-large': (e) =>
    `The message would have ${f(e, 'size')} MB; “${f(e, 'server')}” is sent ${f(e, 'limit')} MB at most. Attach one combined PDF or a zip, take extra files away, or raise the limit in Settings.`,
  'mail-combined-needs-flat': () =>
    `One combined PDF can only be made of flattened copies without passwords. Choose single files or a zip, or change the finish.`,
  'mail-too-many-recipients': (e) => `The message would go to ${f(e, 'count')} addresses; ${f(e, 'limit')} are the most. Shorten the list.`,
  'sender-exists': (e) => `${f(e, 'address')} is a sender already.`,
  'sender-in-use': (e) => `${f(e, 'count')} messages from ${f(e, 'address')} are still on their way. Wait for them, or cancel their batch.`,
  'sender-key-unreadable': (e) => `The private key for ${f(e, 'address')} cannot be read. Paste the whole PEM file, from BEGIN to END.`,
  'sender-code-not-mailed': (e) => `The code could not be mailed to ${f(e, 'address')}: ${f(e, 'said')}. Test the mail server first.`,
  'sender-code-wrong': (e) => `That is not the code. ${f(e, 'left')} more tries are left.`,
  'sender-code-over': () => `This code no longer holds. Ask for a new one; it comes within a minute.`,
  'sender-not-confirmed': (e) =>
    `“${f(e, 'mailing')}” has no confirmed sender. Choose one in Output and message, or confirm it in Settings.`,
  'attachment-gone': (e) => `The extra file ${f(e, 'name')} is no longer there. Attach it again in Output and message.`,
  'print-nothing': () =>
    `No copy waits to be printed with this choice. Copies without an address, bounced ones and those that ask for paper come here.`,
  'print-run-state': (e) => `Print run ${f(e, 'run')} is ${f(e, 'state')}, so it cannot be ${f(e, 'wanted')}.`,
  'printer-unreachable': (e) =>
    `The printer at ${f(e, 'uri')} does not answer (${f(e, 'why')}). Check its address and whether it is switched on.`,
  'printer-refused': (e) => `The printer at ${f(e, 'uri')} refused the job: ${f(e, 'said')}.`,
  'printer-in-use': (e) => `Print run ${f(e, 'run')} is still at this printer. Wait for it, or cancel it.`,
  'register-failed': (e) => `The register “${f(e, 'register')}” could not be written: ${f(e, 'said')}. Nothing is lost; it is tried again.`,
  'copy-differs': (e) =>
    `Copy ${f(e, 'copy')} (${f(e, 'path')}) does not hold what was meant: ${f(e, 'what')}. The batch is paused; look at the copy, then resume to make it again.`,
  'reminder-no-text': (e) => `“${f(e, 'mailing')}” has no text for reminders yet. Write it in Output and message.`,
  'output-combined-password': () =>
    `A combined file would hold copies without their passwords. Choose single files, or take the passwords away.`,
  'account-not-allowed': (e) => `That is for ${f(e, 'role')}s. Ask an administrator to do it, or to give you the right.`,
  'account-last-administrator': () => `Mailbag needs one administrator at least. Make somebody else one first.`,
  'account-values-hidden': () => `Your account does not show the values of records. Ask an administrator if you need them.`,
  'account-passwords-hidden': () => `Your account does not show passwords of copies. Ask an administrator if you need them.`,
  'account-disabled': () => `This account is closed. Ask an administrator to open it again.`,
  'invitation-over': () => `This invitation no longer holds. Ask for a new one.`,
  'invitation-not-mailed': (e) =>
    `The invitation for ${f(e, 'email')} was made, but could not be mailed: ${f(e, 'said')}. Give its address by hand.`,
  'mail-address-refused': (e) => `“${f(e, 'address')}” is not an e-mail address: ${f(e, 'why')}.`,
  'account-exists': () => `An administrator is already set up. Sign in instead.`,
  'account-sign-in-refused': () => `That e-mail address and password do not go together. Check both and try again.`,
  'account-too-many-tries': (e) => `Too many tries. Wait ${f(e, 'seconds')} ${e.seconds === 1 ? 'second' : 'seconds'}, then try again.`,
  'password-weak': () =>
    'That password is guessed easily: it is a common one, or made of one or of your own name. Take a few words that do not belong together.',
  'host-other': (e) => `Mailbag is not reached as ${f(e, 'host')}. Open ${f(e, 'address')}.`,
  'account-signed-out': () => `You are signed out. Sign in to go on; your work is saved.`,
  'request-not-ours': () => `The request did not come from Mailbag itself and was refused. Load the page again.`,
  'request-wrong': (e) => `The request was not understood: ${f(e, 'why')}.`,
  'request-too-large': (e) => `The request is larger than the ${f(e, 'limitKb')} KB that may be sent here. Send less at once.`,
  'request-too-deep': () => `The request is nested more deeply than anything that Mailbag sends, and was refused.`,
  'request-type': (e) => `The request came as ${f(e, 'type')}; plain JSON is understood here.`,
  'file-too-large': (e) =>
    `The file is larger than ${f(e, 'limitMb')} MB, the most that is taken here. Choose a smaller one, or divide it.`,
  'work-too-slow': (e) => `${f(e, 'what')} took longer than ${f(e, 'seconds')} s and was ended. Nothing was changed.`,
  'work-too-large': (e) => `${f(e, 'what')} needed more memory than there is for it, and was ended. Nothing was changed.`,
  'work-too-many': () => `Several long questions of yours are still being worked on. Wait until they are answered, then try again.`,
  'backup-failed': (e) => `The backup ${f(e, 'path')} could not be taken: ${f(e, 'why')}. Nothing was changed, and no half backup is left.`,
  'restore-failed': (e) => `${f(e, 'path')} could not be brought back: ${f(e, 'why')}. Nothing was written.`,
  'restore-not-empty': (e) => `${f(e, 'folder')} is not empty. Name a folder that is not there yet; what is in this one stays as it is.`,
  'port-taken': (e) => `Port ${f(e, 'port')} of ${f(e, 'host')} ${f(e, 'why')}. Choose another one with --port.`,
  'key-missing': (e) =>
    `${f(e, 'path')} is missing, which opens what is kept encrypted (${f(e, 'names')}). Put it back from your backup. If it is lost for good, start once with MAILBAG_NEW_KEY=1 and enter those again.`,
  'key-wrong': (e) =>
    `${f(e, 'path')} is not the key of this data folder: it does not open what is kept encrypted (${f(e, 'names')}). Put the right one back. If it is lost for good, start once with MAILBAG_NEW_KEY=1 and enter those again.`,
  'folder-in-use': (e) =>
    `The data folder ${f(e, 'folder')} is in use by another Mailbag (process ${f(e, 'pid')}). Stop that one first, or choose another folder with --data.`,
  'database-busy': (e) =>
    `Another program has held the database for ${f(e, 'seconds')} s, so nothing could be written. Nothing was changed; end that program, then try again.`,
  'disk-full': () => `The disk with the data folder is full, so nothing could be written. Nothing was changed; make room, then try again.`,
  'server-starts': () => `Mailbag is starting. It answers in a moment.`,
  'server-stops': () => `The server is stopping. What was not finished goes on when it is back.`,
  'not-found': (e) => `There is no ${f(e, 'what')} with this address. It may have been removed.`,
  'template-in-use': (e) => `“${f(e, 'template')}” belongs to ${f(e, 'mailings')}. Take it out of the packet first.`,
  'source-in-use': (e) => `“${f(e, 'source')}” gives records to ${f(e, 'mailings')}. Choose another source there first.`,
  unexpected: (e) => `Something went wrong on the server (${f(e, 'trace')}). Nothing was lost; try again.`,
} satisfies Record<string, (fields: ErrorFields) => string>;

export type ErrorCode = keyof typeof catalogue;

/** An error of the catalogue. `fields` hold what the sentence needs, so that a screen can say it. */
export class MailbagError extends Error {
  constructor(
    readonly code: ErrorCode,
    readonly fields: ErrorFields = {},
    options?: { cause?: unknown },
  ) {
    super((catalogue[code] as (fields: ErrorFields) => string)(fields), options);
    this.name = 'MailbagError';
  }
  toJSON(): { code: ErrorCode; fields: ErrorFields; message: string } {
    return { code: this.code, fields: this.fields, message: this.message };
  }
}

export const isMailbagError = (error: unknown): error is MailbagError =>
  error instanceof Error && error.name === 'MailbagError' && 'code' in error;
