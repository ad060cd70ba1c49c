import { basename } from 'node:path';
import { inspectTemplate, leftSentence, pieceWords, questionsOf, templateNoteSentence } from '@mailbag/core';
import { files, readFile } from '../arguments.js';
import type { Command } from '../command.js';
import { answer } from '../command.js';

export const questions: Command = {
  usage: 'mailbag questions FORM.pdf [FORM2.pdf …]',
  help: 'Tells what a person would be asked to fill these forms: boxes that belong together are one question, what several forms ask is asked once.',
  async run(args) {
    const paths = files(args);
    const forms = await Promise.all(paths.map((path) => inspectTemplate(readFile(path), basename(path))));
    const { questions: asked, left } = questionsOf(forms);
    answer({
      questions: asked.map(({ options, fields, ...question }) => ({
        ...question,
        options: options.map(({ label, value, field }) => ({ say: label, value, field })),
        fields: fields.map(({ piece, ...field }) => ({ ...field, piece: piece && pieceWords(piece) })),
      })),
      left: left.map(({ why, ...field }) => ({ ...field, why: leftSentence(why) })),
      notes: forms.flatMap(({ notes }, index) =>
        notes.map((one) => (forms.length > 1 ? `${basename(paths[index]!)}: ${templateNoteSentence(one)}` : templateNoteSentence(one))),
      ),
    });
  },
};
