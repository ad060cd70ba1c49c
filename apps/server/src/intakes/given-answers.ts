import type { AnswerValue, Column, IntakeAnswers, IntakePlan, IntakeQuestion, SourceRecord } from '@mailbag/core';
import { LARGEST_PICTURE, SAMPLE_CODE, answerFault, askedSections, isPictureKind, submissionRecord, typedText } from '@mailbag/core';

/** Answers to questions that there are, as far as they are text or lists of text. Everything else is left out. */
export function readAnswers(plan: IntakePlan, given: Record<string, unknown>): IntakeAnswers {
  const answers: Record<string, AnswerValue> = {};
  for (const { questions } of askedSections(plan))
    for (const { id, kind } of questions) {
      const answer = Object.hasOwn(given, id) ? given[id] : undefined;
      const limit = isPictureKind(kind) ? LARGEST_PICTURE : 20_000;
      if (typeof answer === 'string' && answer.length <= limit) answers[id] = answer;
      else if (Array.isArray(answer) && answer.length <= 500 && answer.every((one) => typeof one === 'string' && one.length <= 300))
        answers[id] = answer as string[];
    }
  return answers;
}

/** The answers with the pictures in them called by names. */
export function withPictures(
  plan: IntakePlan,
  answers: IntakeAnswers,
  name: (question: IntakeQuestion, url: string) => string,
): IntakeAnswers {
  const named: Record<string, AnswerValue> = {};
  for (const [id, answer] of Object.entries(answers)) {
    const question = plan.questions[id]!;
    if (!isPictureKind(question.kind)) named[id] = answer;
    else if (typeof answer === 'string' && answerFault({ ...question, required: false }, answer, '') === null && answer !== '')
      named[id] = name(question, answer);
  }
  return named;
}

/** What a picture holds. @param url a data URL */
export const pictureBytes = (url: string): Uint8Array => new Uint8Array(Buffer.from(url.slice(url.indexOf(',') + 1), 'base64'));

/**
 * The record that answers make, as the source of the intake would hold it, and the pictures in them by the names that stand for them.
 * @param columns of the source @param zone of the office, IANA @param known what is not asked, by columns
 */
export function sampleOf(
  plan: IntakePlan,
  columns: readonly Pick<Column, 'name' | 'kind'>[],
  given: Record<string, unknown>,
  zone: string,
  known: Readonly<Record<string, string>> = {},
): { record: SourceRecord; pictures: Record<string, Uint8Array> } {
  const pictures: Record<string, Uint8Array> = {};
  const answers = withPictures(plan, readAnswers(plan, given), ({ id }, url) => {
    const name = `${id}.png`;
    pictures[name] = pictureBytes(url);
    return name;
  });
  const values: Record<string, string> = {
    ...known,
    ...submissionRecord(plan, { answers, number: SAMPLE_CODE, receivedAt: new Date().toISOString() }, zone),
  };
  return { record: { row: 1, cells: columns.map(({ name, kind }) => typedText(values[name] ?? '', { kind })) }, pictures };
}
