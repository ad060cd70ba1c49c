import { resolve } from 'node:path';
import { restore as bringBack } from '@mailbag/folder';
import { oneArgument } from '../arguments.js';
import type { Command } from '../command.js';
import { answer, note } from '../command.js';

export const restore: Command = {
  usage: 'mailbag restore BACKUP.zip --data FOLDER [--json]',
  help: `Brings a backup back into a folder that is not there yet or empty, after every file has been compared with its digest. A server that starts on it
sends nothing by itself until an administrator has looked at what may have gone out since the backup.`,
  async run(args) {
    const { file, options } = oneArgument(args, { data: { type: 'string' }, json: { type: 'boolean' } }, ['data']);
    const { files, takenAt } = await bringBack(resolve(file), resolve(options.data!));
    if (options.json) answer({ takenAt, files: files.length });
    else
      note(
        `${files.length} files are back, as they were at ${takenAt}. Nothing is sent until an administrator has looked at Settings, Safety.`,
      );
  },
};
