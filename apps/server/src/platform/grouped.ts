import { setImmediate as nextTurn, setTimeout as pause } from 'node:timers/promises';

interface Waiting<Input, Output> {
  input: Input;
  resolve: (output: Output) => void;
  reject: (error: unknown) => void;
}

/** Small pieces of work that come in at about the same time are done together, which costs little more than one of them; each is told its own end. */
export class Grouped<Input, Output> {
  private waiting: Waiting<Input, Output>[] = [];
  private isRunning = false;

  /**
   * @param together fails as a whole when one of them fails
   * @param alone is tried for each of a group that failed
   * @param gather milliseconds in which a group gathers; null: what is begun in the same turn of the event loop
   * @param limit pieces of a group
   */
  constructor(
    private readonly together: (inputs: readonly Input[]) => Promise<readonly Output[]>,
    private readonly alone: (input: Input) => Promise<Output>,
    private readonly gather: number | null = null,
    private readonly limit = 60,
  ) {}

  submit(input: Input): Promise<Output> {
    const done = new Promise<Output>((resolve, reject) => this.waiting.push({ input, resolve, reject }));
    if (!this.isRunning) void this.run();
    return done;
  }

  private async run(): Promise<void> {
    this.isRunning = true;
    while (this.waiting.length > 0) {
      await (this.gather === null ? nextTurn() : pause(this.gather));
      const group = this.waiting.splice(0, this.limit);
      try {
        const outputs = await this.together(group.map(({ input }) => input));
        group.forEach(({ resolve }, index) => resolve(outputs[index]!));
      } catch {
        for (const { input, resolve, reject } of group) await this.alone(input).then(resolve, reject);
      }
    }
    this.isRunning = false;
  }
}
