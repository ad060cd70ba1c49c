import { t } from '../words/words.js';
import { count, list, told } from './entry.js';

export const recordsErrors = {
  'sheet-not-a-workbook': told<{ file: string }>(
    (e) => t`${e.file} is neither a workbook nor a CSV file nor form data. Save it as .xlsx or CSV and choose it again.`,
  ),
  'sheet-old-workbook': told<{ file: string }>(
    (e) => t`${e.file} is in an older workbook format. Save it as .xlsx or CSV and choose it again.`,
  ),
  'sheet-password': told<{ file: string }>(
    (e) => t`${e.file} is protected with a password. Save a copy without the password and choose that.`,
  ),
  'sheet-damaged': told<{ file: string; part: string }>(
    (e) => t`${e.file} is damaged: ${e.part} cannot be read. Save it again and choose the new file.`,
  ),
  'sheet-empty': told<{ where: string }>((e) => t`${e.where} is empty. Choose another sheet or another row for the headings.`),
  'sheet-missing': told<{ file: string; sheet: string; sheets: readonly string[] }>(
    (e) => t`${e.file} has no sheet named “${e.sheet}”. It has ${list(e.sheets)}.`,
  ),
  'sheet-no-headings': told<{ row: number; where: string }>(
    (e) => t`Row ${e.row} of ${e.where} has no headings. Choose the row that names the columns.`,
  ),
  'sheet-broken-quotes': told<{ file: string; rows: readonly string[] }>(
    (e) =>
      t`${e.file} has a quote that never ends, so everything after it is one value (${list(e.rows)}). Close the quote, or save the file again.`,
  ),
  'sheet-too-many-columns': told<{ where: string; columns: number; limit: number }>(
    (e) =>
      t`${e.where} has ${count(e.columns)} columns; ${count(e.limit)} can be read. Take out those that nobody needs, or choose another row for the headings.`,
  ),
  'lookup-too-long': told<{ source: string; column: string; limit: number }>(
    (e) =>
      t`“${e.column}” of “${e.source}” has more than ${count(e.limit)} different values, which is more than a table of a rule holds. Take a shorter list, or bring the value in as a column of the records.`,
  ),
  'lookup-no-column': told<{ source: string; column: string }>(
    (e) => t`“${e.source}” has no column “${e.column}” any more. Choose another one; the table stays as it was.`,
  ),
  'pictures-none': told<{ file: string }>(
    (e) => t`“${e.file}” holds no picture that can be read. PNG and JPEG files are taken, one by one or in a zip.`,
  ),
  'pictures-too-many': told<{ file: string; limit: number }>(
    (e) => t`“${e.file}” holds more than ${count(e.limit)} files. Send the pictures in several zips.`,
  ),
  'sheet-no-such-column': told<{ where: string; column: string }>(
    (e) => t`${e.where} has no column “${e.column}”, so its rows cannot be gathered by it. Choose another one, or a record for each row.`,
  ),
  'sheet-key-too-common': told<{ where: string; column: string; value: string; limit: number }>(
    (e) =>
      t`${e.where} has more than ${count(e.limit)} rows in which “${e.column}” is “${e.value}”, so they are hardly of one record. Choose a column that tells one recipient from another.`,
  ),
  'sheet-no-pairs': told<{ where: string }>(
    (e) => t`${e.where} has no labels with values beside them. Read it as a table, or bring files of one record each.`,
  ),
  'sheet-encoding-unknown': told<{ encoding: string }>(
    (e) => t`“${e.encoding}” is not an encoding that is known here. Choose one of the list.`,
  ),
  'sheet-took-too-much': told<{ file: string }>(
    (e) => t`${e.file} needs more memory or time than one file may take. Save it as .xlsx or CSV, or split it, and choose it again.`,
  ),
  'formdata-no-fields': told<{ file: string }>((e) => t`${e.file} holds no values. Choose form data with filled fields.`),
  'sheet-too-many-rows': told<{ where: string; limit: number }>(
    (e) => t`${e.where} has more than ${count(e.limit)} rows. Split it into several files.`,
  ),
  'source-reading-breaks-off': told<{ times: number; source: string }>(
    (e) =>
      t`Mailbag has stopped ${e.times} times while it read “${e.source}”, so it is not read again by itself. Split the file, save it in another format, or read it again when the server has more memory.`,
  ),
  'sheet-too-many-cells': told<{ where: string; limit: number; row: number }>(
    (e) =>
      t`${e.where} comes to more than ${count(e.limit)} cells by row ${e.row}, more than can be read of a file of its size. Delete rows and columns that nobody needs, or split it into several files.`,
  ),
  'sheet-too-much-text': told<{ where: string; limit: number; row: number }>(
    (e) =>
      t`${e.where} comes to more than ${count(e.limit)} characters by row ${e.row}, more than can be read of a file of its size. Take out long texts, or split it into several files.`,
  ),
  'sheet-cell-too-long': told<{ row: number; where: string; limit: number }>(
    (e) => t`A cell in row ${e.row} of ${e.where} holds more than ${count(e.limit)} characters. Shorten it, and choose the file again.`,
  ),
  'sheet-zip-bomb': told<{ file: string; size: number; times: number }>(
    (e) =>
      t`${e.file} would unpack to ${e.size} MB, ${e.times} times its size, as no honest workbook does. It was not opened. Save it again in the program it comes from.`,
  ),
  'sheet-too-large': told<{ file: string; limitMb: number }>(
    (e) => t`${e.file} is larger than ${e.limitMb} MB. Split it into several files.`,
  ),
  'record-over-time': told(
    () =>
      t`The values of this record were deleted when their time was over, so nothing can be composed of them any more. Copies that were made of it are kept.`,
    409,
  ),
  'source-key-missing': told<{ source: string; column: string }>(
    (e) => t`“${e.source}” has no column “${e.column}”. Choose another record key.`,
  ),
  'correction-too-many': told<{ limit: number }>(
    (e) => t`More than ${count(e.limit)} values would change at once. Choose one column, or look for a longer text.`,
  ),
  'correction-gone': told(() => t`This value was changed again in the meantime. Look at the record as it is now.`),
  'source-in-use': told<{ source: string; mailings: readonly string[] }>(
    (e) => t`“${e.source}” gives records to ${list(e.mailings)}. Choose another source there first.`,
    409,
  ),
};
