import { resolve } from 'node:path';
import { backup as takeBackup } from '@mailbag/folder';
import { namedOptions } from '../arguments.js';
import type { Command } from '../command.js';
import { answer, note } from '../command.js';

export const backup: Command = {
  usage: 'mailbag backup --data FOLDER --to BACKUP.zip [--json]',
  help: `Writes a data folder into one zip file, also while a server works in it: the database, the key, and every file that is kept, with a manifest of digests.
Keep it as carefully as the folder itself: it holds the key and everybody's data.`,
  async run(args) {
    const { data, to, json } = namedOptions(args, { data: { type: 'string' }, to: { type: 'string' }, json: { type: 'boolean' } }, [
      'data',
      'to',
    ]);
    const { files, gone, takenAt } = await takeBackup(resolve(data!), resolve(to!));
    const size = files.reduce((sum, file) => sum + file.size, 0);
    if (gone.length > 0) note(`${gone.length} files went away while the backup was taken, as retention removes them.`);
    if (json) answer({ takenAt, files: files.length, bytes: size, gone });
    else note(`${files.length} files, ${(size / 1048576).toFixed(1)} MB, as they were at ${takenAt}.`);
  },
};
