import { isMailbagError } from '@mailbag/core';
import type { Command } from './command.js';
import { Refused, WrongCall } from './command.js';
import { backup } from './commands/backup.js';
import { blanks } from './commands/blanks.js';
import { check } from './commands/check.js';
import { checkFolder } from './commands/check-folder.js';
import { compare } from './commands/compare.js';
import { fill } from './commands/fill.js';
import { inspect } from './commands/inspect.js';
import { layout } from './commands/layout.js';
import { questions } from './commands/questions.js';
import { read } from './commands/read.js';
import { records } from './commands/records.js';
import { restore } from './commands/restore.js';

const commands: Record<string, Command> = {
  inspect,
  questions,
  blanks,
  compare,
  layout,
  fill,
  check,
  read,
  records,
  backup,
  restore,
  'check-folder': checkFolder,
};

const overview = `Usage:\n${Object.values(commands)
  .map(({ usage }) => `  ${usage}`)
  .join('\n')}\n\nmailbag COMMAND --help tells more. Ends with 0 when done, 1 when refused (nothing written), 2 when called wrongly.`;

// Who reads only the beginning, as head does, closes the pipe; that is no fault.
for (const stream of [process.stdout, process.stderr])
  stream.on('error', (error: NodeJS.ErrnoException) => process.exit(error.code === 'EPIPE' ? 0 : 1));

async function run(command: Command): Promise<void> {
  try {
    await command.run(args);
  } catch (error) {
    if (error instanceof WrongCall) console.error(`${error.message}\n\n${command.usage}`);
    else if (error instanceof Refused || isMailbagError(error)) console.error(error.message);
    else console.error(`Something went wrong: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`);
    process.exitCode = error instanceof WrongCall ? 2 : 1;
  }
}

const [name = '', ...args] = process.argv.slice(2);
const command = Object.hasOwn(commands, name) ? commands[name] : undefined;
if (name === '--help' || name === '-h' || name === 'help') console.log(overview);
else if (!command) {
  console.error(name ? `There is no command "${name}".\n\n${overview}` : overview);
  process.exitCode = 2;
} else if (args.includes('--help') || args.includes('-h')) console.log(`${command.usage}\n\n${command.help}`);
else void run(command);
