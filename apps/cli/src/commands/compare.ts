import { basename } from 'node:path';
import { compareEditions, readEdition } from '@mailbag/core';
import { files, readFile } from '../arguments.js';
import type { Command } from '../command.js';
import { answer, note, WrongCall } from '../command.js';

export const compare: Command = {
  usage: 'mailbag compare OLD.pdf NEW.pdf',
  help: 'Tells which field of a new edition of a form has become of which field of the old one, what changed about it, and which are gone or new.',
  async run(args) {
    const [before, after, ...more] = files(args);
    if (!before || !after || more.length > 0) throw new WrongCall('Name two files, the old edition and the new one.');
    const editions = [await readEdition(readFile(before), basename(before)), await readEdition(readFile(after), basename(after))] as const;
    const { pairs, gone, added, likeness } = compareEditions(...editions);
    if (likeness < 0.1) note(`${basename(after)} has next to nothing in common with ${basename(before)}. It seems to be another form.`);
    answer({ pairs: pairs.map(({ old, new: now, changes }) => ({ old, new: now, changes })), gone, added });
  },
};
