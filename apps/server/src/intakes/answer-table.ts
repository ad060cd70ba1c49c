import { escapeHtml } from '@mailbag/core';

/** What stands in a table, row by row: what was asked, and what was answered. */
export type AnswerRows = readonly (readonly [words: string, answer: string])[];

/** Answers as lines of text; those of several lines stand below their question. */
export const answersAsText = (rows: AnswerRows): string =>
  rows.map(([words, answer]) => (answer.includes('\n') ? `${words}:\n${answer.replace(/^/gm, '  ')}` : `${words}: ${answer}`)).join('\n');

const CELL = 'style="border:1px solid #c9ccd3;padding:4px 8px;text-align:left;vertical-align:top"';

/** Answers as a table of a message. Everything is escaped: whoever answered is a stranger. */
export const answersAsHtml = (rows: AnswerRows): string =>
  `<table style="border-collapse:collapse">${rows
    .map(
      ([words, answer]) =>
        `<tr><th scope="row" ${CELL}>${escapeHtml(words)}</th><td ${CELL}>${escapeHtml(answer).replaceAll('\n', '<br>')}</td></tr>`,
    )
    .join('')}</table>`;
