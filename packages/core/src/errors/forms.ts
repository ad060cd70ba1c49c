import { t } from '../words/words.js';
import { count, list, told } from './entry.js';

export const formsErrors = {
  'pdf-not-a-pdf': told<{ file: string }>((e) => t`${e.file} is not a PDF. Choose the PDF form itself, not a picture or a text of it.`),
  'pdf-damaged': told<{ file: string }>(
    (e) => t`${e.file} is damaged and could not be repaired. Ask its author for a fresh copy, or print it to a new PDF.`,
  ),
  'pdf-holds-too-much': told<{ file: string }>(
    (e) => t`${e.file} unpacks to more than a form can need. It was not opened. Print it to a new PDF, or ask its author for a plain copy.`,
  ),
  'pdf-too-many': told<{ file: string; limit: number; what: string }>(
    (e) => t`${e.file} has more than ${count(e.limit)} ${e.what}; a form that has so many cannot be filled.`,
  ),
  'pdf-password': told<{ file: string }>(
    (e) => t`${e.file} opens only with a password. Save a copy without the opening password and upload that.`,
  ),
  'pdf-no-fields': told<{ file: string }>(
    (e) => t`${e.file} has no form fields, so there is nothing to fill. Upload the fillable version of the form.`,
  ),
  'pdf-no-blanks': told<{ file: string; isScan: boolean }>((e) =>
    e.isScan
      ? t`${e.file} is only a picture, as a scanner makes it, and on a picture no blanks can be found. Ask for the form as the PDF that it was printed from.`
      : t`${e.file} has no fields, and no blanks were found on it that could become fields. Upload the fillable version of the form.`,
  ),
  'pdf-xfa-only': told<{ file: string }>(
    (e) =>
      t`${e.file} keeps its form only in XFA, which has no pages of its own to fill. Ask its author for a version with AcroForm fields.`,
  ),
  'pdf-field-unknown': told<{ field: string }>((e) => t`The template has no field named “${e.field}”.`),
  'value-not-fillable': told<{ field: string; kind: string }>((e) => t`“${e.field}” is a ${e.kind} field and takes no value.`),
  'value-not-accepted': told<{ field: string; value: string; accepted: readonly string[] }>(
    (e) => t`“${e.field}” does not accept “${e.value}”. ${list(e.accepted) ? t`It accepts ${list(e.accepted)}.` : t`It accepts text.`}`,
  ),
  'value-too-long': told<{ field: string; length: number; limit: number }>(
    (e) => t`The value for “${e.field}” has ${e.length} characters; the field takes ${e.limit} at most.`,
  ),
  'value-format': told<{ value: string; field: string; why: string }>((e) => t`“${e.value}” does not go into “${e.field}”: ${e.why}.`),
  'password-both': told(
    () =>
      t`The password to open a copy and the permissions password are the same, so the limits would hold for nobody. Choose two different ones.`,
  ),
  'password-long': told<{ length: number; limit: number }>(
    (e) => t`A password has ${e.length} bytes; ${e.limit} are the most that a PDF can have. Choose a shorter one.`,
  ),
  'value-one-option': told<{ field: string; count: number }>((e) => t`“${e.field}” takes one option, not ${e.count}.`),
  'font-cannot-draw': told<{ characters: readonly string[]; field: string }>(
    (e) =>
      t`No face can draw ${list(e.characters)} in “${e.field}”. Bring faces for Chinese, Japanese and Korean with “npm run faces”, add a TrueType face that has them to the folder of faces, or change the value.`,
  ),
  'image-unreadable': told<{ field: string }>(
    (e) => t`The picture for “${e.field}” is neither a PNG nor a JPEG that can be read. Save it as PNG and choose it again.`,
  ),
  'layout-not-a-list': told(() => t`The fields to be drawn are not a list. Give them as a JSON array, one object a field.`),
  'layout-no-name': told<{ number: number }>((e) => t`Field ${e.number} of the list has no name. Give each field one.`),
  'layout-kind': told<{ field: string; kind: string; kinds: readonly string[] }>(
    (e) => t`“${e.field}” is to be a “${e.kind}”, and there is no such kind of field. The kinds are ${list(e.kinds)}.`,
  ),
  'layout-no-size': told<{ field: string }>((e) => t`“${e.field}” has no size. Draw it at least 3 points wide and high.`),
  'layout-off-page': told<{ field: string; page: number }>((e) => t`“${e.field}” lies outside page ${e.page}. Move it onto the page.`),
  'layout-no-page': told<{ field: string; page: number; pages: number }>(
    (e) => t`“${e.field}” is to stand on page ${e.page}, but the file has ${count(e.pages)} ${e.pages === 1 ? t`page` : t`pages`}.`,
  ),
  'layout-name': told<{ field: string }>((e) => t`“${e.field}” cannot be a name: between two full stops there has to be a word.`),
  'layout-name-taken': told<{ field: string }>((e) => t`There is a field named “${e.field}” already. Choose another name.`),
  'answers-join': told<{ fields: readonly string[]; as: string }>(
    (e) => t`${list(e.fields)} cannot be joined as “${e.as}”. Choose other fields, or something else that they are.`,
  ),
  'layout-too-many': told<{ limit: number }>((e) => t`A layout has at most ${count(e.limit)} fields and stamps. Remove some.`),
  'layout-stamp': told<{ why: string }>((e) => t`This stamp cannot be kept: ${e.why}.`),
  'layout-empty': told(() => t`Nothing is drawn yet, so there is nothing to take into use. Draw a field, or take a blank that was found.`),
  'layout-changed-elsewhere': told<{ template: string }>(
    (e) => t`Somebody else changed the layout of “${e.template}” just now. What they did is shown; look at it and take it into use again.`,
  ),
  'layout-no-cells': told<{ field: string }>((e) => t`“${e.field}” is a comb, so it needs the number of its cells.`),
};
