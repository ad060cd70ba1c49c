import { createServer } from 'node:http';
import type { IncomingMessage, Server } from 'node:http';
import ipp from 'ipp';

/** How the printer behaves: `well` prints, `paper-out` and `jam` stand still until that is over, `lose` forgets the job, `abort` gives it up, `refuse` takes none. */
export const printerMoods = ['well', 'paper-out', 'jam', 'lose', 'abort', 'refuse'] as const;
export type PrinterMood = (typeof printerMoods)[number];

interface Job {
  id: number;
  name: string;
  sides: string;
  size: number;
  state: 'pending' | 'processing' | 'processing-stopped' | 'completed' | 'aborted' | 'canceled';
  /** The file as it came. */
  data: Buffer;
}

/** Standard attributes that every answer begins with (RFC 8011, 4.1.4). */
const charset = { 'attributes-charset': 'utf-8', 'attributes-natural-language': 'en' };

/** A printer that speaks IPP (RFC 8010, RFC 8011) over HTTP and prints into memory. */
export class StandInPrinter {
  mood: PrinterMood = 'well';
  /** Milliseconds that a job takes. */
  takes = 600;
  readonly jobs: Job[] = [];
  private nextId = 1;

  private reasons(): string {
    return this.mood === 'paper-out' ? 'media-empty-error' : this.mood === 'jam' ? 'media-jam-error' : 'none';
  }

  private progress(job: Job): void {
    if (job.state === 'canceled' || !this.jobs.includes(job)) return;
    if (this.mood === 'lose') return void this.jobs.splice(this.jobs.indexOf(job), 1);
    if (this.mood === 'abort') job.state = 'aborted';
    else if (this.mood === 'well') job.state = 'completed';
    else {
      job.state = 'processing-stopped';
      setTimeout(() => this.progress(job), 200);
    }
  }

  private attributes(job: Job): Record<string, unknown> {
    const reason: Record<Job['state'], string> = {
      pending: 'none',
      processing: 'job-printing',
      'processing-stopped': 'printer-stopped',
      completed: 'job-completed-successfully',
      aborted: 'aborted-by-system',
      canceled: 'job-canceled-by-user',
    };
    return {
      'job-id': job.id,
      'job-uri': `ipp://stand-in/jobs/${job.id}`,
      'job-name': job.name,
      'job-state': job.state,
      'job-state-reasons': reason[job.state],
    };
  }

  /** @returns the body of the answer */
  answer(body: Buffer): Buffer {
    const request = ipp.parse(body) as unknown as {
      operation: string;
      id: number;
      'operation-attributes-tag'?: Record<string, unknown>;
      'job-attributes-tag'?: Record<string, unknown>;
      data?: Buffer;
    };
    const operation = request['operation-attributes-tag'] ?? {};
    const say = (statusCode: string, more: object = {}): Buffer =>
      ipp.serialize({ version: '2.0', statusCode, id: request.id, 'operation-attributes-tag': charset, ...more } as never);
    const job = this.jobs.find(({ id }) => id === Number(operation['job-id']));
    switch (request.operation) {
      case 'Get-Printer-Attributes':
        return say('successful-ok', {
          'printer-attributes-tag': {
            'printer-name': 'stand-in',
            'printer-make-and-model': 'Stand-in printer',
            'printer-state': this.reasons() === 'none' ? 'idle' : 'stopped',
            'printer-state-reasons': this.reasons(),
          },
        });
      case 'Print-Job': {
        if (this.mood === 'refuse') return say('server-error-not-accepting-jobs');
        const made: Job = {
          id: this.nextId++,
          name: String(operation['job-name'] ?? 'untitled'),
          sides: String(request['job-attributes-tag']?.sides ?? 'one-sided'),
          size: request.data?.length ?? 0,
          state: 'processing',
          data: request.data ?? Buffer.alloc(0),
        };
        this.jobs.push(made);
        setTimeout(() => this.progress(made), this.takes);
        return say('successful-ok', { 'job-attributes-tag': this.attributes(made) });
      }
      case 'Get-Job-Attributes':
        return job ? say('successful-ok', { 'job-attributes-tag': this.attributes(job) }) : say('client-error-not-found');
      case 'Get-Jobs': {
        const isOver = (one: Job): boolean => ['completed', 'aborted', 'canceled'].includes(one.state);
        const wanted = this.jobs.filter((one) => isOver(one) === (operation['which-jobs'] === 'completed'));
        return say('successful-ok', wanted.length > 0 ? { 'job-attributes-tag': wanted.map((one) => this.attributes(one)) } : {});
      }
      case 'Cancel-Job':
        if (!job) return say('client-error-not-found');
        job.state = 'canceled';
        return say('successful-ok');
      default:
        return say('server-error-operation-not-supported');
    }
  }
}

const bodyOf = async (request: IncomingMessage): Promise<Buffer> => {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
};

/** IPP under any path; `/jobs.json` lists what was printed, `/behave?mood=jam` makes trouble. */
export function printerServer(printer: StandInPrinter): Server {
  return createServer((request, response) => {
    void (async () => {
      const url = new URL(request.url ?? '/', 'http://stand-in');
      if (url.pathname === '/jobs.json')
        return void response
          .writeHead(200, { 'content-type': 'application/json' })
          .end(JSON.stringify(printer.jobs.map(({ data: _, ...job }) => job)));
      const file = /^\/jobs\/(\d+)\.pdf$/.exec(url.pathname);
      if (file) {
        const job = printer.jobs.find(({ id }) => id === Number(file[1]));
        return void response.writeHead(job ? 200 : 404, { 'content-type': 'application/pdf' }).end(job?.data);
      }
      if (url.pathname === '/behave' && request.method === 'POST') {
        const mood = url.searchParams.get('mood') as PrinterMood;
        if (printerMoods.includes(mood)) printer.mood = mood;
        return void response.writeHead(204).end();
      }
      const answer = printer.answer(await bodyOf(request));
      response.writeHead(200, { 'content-type': 'application/ipp' }).end(answer);
    })().catch((error: unknown) => response.writeHead(500).end(String(error)));
  });
}
