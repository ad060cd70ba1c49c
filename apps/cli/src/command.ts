/** A command was called in a way that it does not know. The process ends with 2. */
export class WrongCall extends Error {}

/** A command cannot do what it is asked to. The process ends with 1; nothing was written. */
export class Refused extends Error {}

export interface Command {
  /** How it is called, a line. */
  usage: string;
  help: string;
  /** @throws WrongCall, Refused, MailbagError */
  run(args: string[]): Promise<void>;
}

/** For people who look on: what is to be known although all went well. */
export const note = (text: string): void => void process.stderr.write(`${text}\n`);
export const answer = (value: unknown): void => void process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);
