import { resolve } from 'node:path';
import { selfCheck } from '@mailbag/folder';
import { namedOptions } from '../arguments.js';
import type { Command } from '../command.js';
import { Refused, answer, note } from '../command.js';

export const checkFolder: Command = {
  usage: 'mailbag check-folder --data FOLDER [--json]',
  help: 'Looks whether a data folder is whole: the database in itself, and every file that it speaks of, by digest. Changes nothing.',
  async run(args) {
    const { data, json } = namedOptions(args, { data: { type: 'string' }, json: { type: 'boolean' } }, ['data']);
    const result = await selfCheck(resolve(data!), true);
    if (json) answer(result);
    else for (const { kind, count, names } of result.faults) note(`${count} ${kind.replaceAll('-', ' ')}: ${names.slice(0, 5).join(', ')}`);
    if (result.faults.length > 0) throw new Refused(`${data} is not whole.`);
    if (!json) note(`${result.copies} copies and everything else are whole.`);
  },
};
