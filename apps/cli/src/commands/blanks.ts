import { basename } from 'node:path';
import { readBlanks } from '@mailbag/core';
import { fileAndOptions, readFile } from '../arguments.js';
import type { Command } from '../command.js';
import { answer, note } from '../command.js';

export const blanks: Command = {
  usage: 'mailbag blanks FORM.pdf [--password P]',
  help: 'Lists the places of a printed form that wait to be written on and have no field: page, box, kind, cells of a comb, label, what a row of ticks is about.',
  async run(args) {
    const { file, options } = fileAndOptions(args, { json: { type: 'boolean' }, password: { type: 'string' } });
    const reading = await readBlanks(readFile(file), basename(file), options.password);
    if (reading.scans.length > 0)
      note(
        `Page ${reading.scans.join(', ')} is only a picture, as a scanner makes it. No blanks can be found on a picture; draw the fields by hand.`,
      );
    answer(reading.blanks);
  },
};
