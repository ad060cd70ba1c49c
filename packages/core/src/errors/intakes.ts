import { t } from '../words/words.js';
import { told } from './entry.js';

export const intakesErrors = {
  'intake-no-templates': told(() => t`An intake begins with a form. Choose one or more templates.`),
  'intake-no-fields': told<{ template: string }>(
    (e) => t`“${e.template}” has no fields, so there is nothing to ask. Draw fields on it under Templates, then make the intake.`,
  ),
  'intake-no-questions': told<{ intake: string }>(
    (e) => t`“${e.intake}” asks nothing. Bring a question back, or add one, before you publish it.`,
  ),
  'intake-loop': told<{ questions: string }>(
    (e) => t`These questions wait for one another, so nobody would ever be asked them: ${e.questions}. Remove one of the conditions.`,
  ),
  'intake-words-empty': told<{ column: string }>((e) => t`The question “${e.column}” has no words. Say what is asked, or put it away.`),
  'intake-options-few': told<{ question: string }>(
    (e) => t`“${e.question}” has nothing to choose from. Give it options, or let it take text.`,
  ),
  'intake-changed-elsewhere': told<{ intake: string }>(
    (e) => t`“${e.intake}” is being changed by somebody else all the time. Try again in a moment.`,
    409,
  ),
  'intake-word-wrong': told<{ word: string }>(
    (e) => t`“${e.word}” cannot be an address. Use 3 to 60 small letters, digits and single hyphens, such as “ask-for-a-plot”.`,
  ),
  'intake-word-taken': told<{ word: string }>((e) => t`“/in/${e.word}” already leads to another intake. Choose another word.`, 409),
  'intake-not-published': told<{ intake: string }>((e) => t`“${e.intake}” is not published yet.`, 404),
  'intake-closed': told<{ why: string }>((e) => t`This page takes no answers: ${e.why}.`, 409),
  'intake-phrase': told<{ isWrong: boolean }>(
    (e) =>
      e.isWrong ? t`That is not the pass phrase of this page.` : t`This page has a pass phrase. Ask the office that gave you its address.`,
    403,
  ),
  'intake-answers-wrong': told<{ count: number }>(
    (e) => t`${e.count === 1 ? t`One answer needs` : t`${e.count} answers need`} another look. The page says which.`,
  ),
  'intake-too-often': told<{ seconds: number }>(
    (e) => t`Too much came from here in a short time. Try again in ${e.seconds} ${e.seconds === 1 ? t`second` : t`seconds`}.`,
    429,
  ),
  'mailing-has-intake': told<{ mailing: string; intake: string }>(
    (e) => t`“${e.mailing}” makes the copies of the intake “${e.intake}”. Remove the intake first.`,
    409,
  ),
  'intake-settled': told<{ number: string }>((e) => t`The changes in the answer ${e.number} have been looked at already.`, 409),
  'intake-record-gone': told<{ number: string }>(
    (e) =>
      t`The record that the answer ${e.number} belongs to is not in the source any more, so its changes cannot be taken over. Refuse them, or put the record back.`,
    409,
  ),
  'intake-link-not-mailed': told(() => t`The link could not be mailed. Look at the address, or go on now.`, 409),
  'intake-code-wrong': told(() => t`That code is wrong or has expired. Check it, or ask for another one.`, 409),
  'intake-mail-failed': told(() => t`The message could not be sent. Look at the address, or download the copies.`, 409),
  'intake-form-drawn-on': told<{ template: string }>(
    (e) =>
      t`Something is drawn on “${e.template}” that is not in use yet. Take it into use or discard it under Templates, then draw this box.`,
    409,
  ),
  'intake-boxes-many': told<{ limit: number }>(
    (e) => t`A packet can have ${e.limit} boxes for pictures and signatures at most. Remove some, or draw this one on fewer pages.`,
  ),
  'intake-puzzle': told(
    () =>
      t`Much comes from your part of the network just now, so a puzzle has to be solved first. The page does that by itself; programs ask for one under “puzzle”.`,
    428,
  ),
  'intake-notice-failed': told<{ why: string }>(
    (e) => t`The office could not be told of an answer by mail: ${e.why}. It is tried again. Look at Settings, Mail.`,
    502,
  ),
  'intake-copies-not-ready': told(() => t`The copies are still being made. Try again in a moment.`, 409),
};
