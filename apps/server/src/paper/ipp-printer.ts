import type { Detail } from '@mailbag/core';
import { MailbagError, remark } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import ipp from 'ipp';

interface Answer {
  version: string;
  statusCode: string;
  id: number;
  'operation-attributes-tag'?: Record<string, unknown>;
  'job-attributes-tag'?: Record<string, unknown> | Record<string, unknown>[];
  'printer-attributes-tag'?: Record<string, unknown>;
}

/** How a job stands. `gone`: the printer knows it no more. */
export interface JobStatus {
  state: 'waiting' | 'printing' | 'stopped' | 'printed' | 'cancelled' | 'failed' | 'gone';
  statusMessage: string;
}

const TIMEOUT = 15_000;
const WHO = 'Mailbag';
const first = (value: Answer['job-attributes-tag']): Record<string, unknown> => (Array.isArray(value) ? value[0] : value) ?? {};

/** What reasons of printers mean (RFC 8011, 5.4.12); those not named here are told as they are. */
const reasons: Record<string, string> = {
  'media-empty': t`it is out of paper`,
  'media-needed': t`it wants paper`,
  'media-jam': t`paper is jammed`,
  'cover-open': t`a cover is open`,
  'door-open': t`a door is open`,
  'toner-empty': t`the toner is used up`,
  'marker-supply-empty': t`the ink is used up`,
  paused: t`it is paused`,
  'offline-report': t`it is offline`,
};
const reasonWords = (value: unknown): string =>
  [value ?? []]
    .flat()
    .map(String)
    .filter((one) => one !== 'none')
    .map((one) => reasons[one.replace(/-(report|warning|error)$/, '')] ?? one.replaceAll('-', ' '))
    .join(', ');

/** A printer that speaks IPP (RFC 8010, RFC 8011). */
export class IppPrinter {
  constructor(private readonly uri: string) {}

  private ask(
    operation: string,
    attributes: Record<string, unknown>,
    { job, data }: { job?: Record<string, unknown>; data?: Buffer } = {},
  ): Promise<Answer> {
    const printer = new ipp.Printer(this.uri, { version: '2.0' } as never);
    const message = {
      'operation-attributes-tag': { 'requesting-user-name': WHO, ...attributes },
      ...(job ? { 'job-attributes-tag': job } : {}),
      ...(data ? { data } : {}),
    };
    return new Promise((resolve, reject) => {
      const fail = (why: string): void => reject(new MailbagError('printer-unreachable', { uri: this.uri, why }));
      // A megabyte more takes a second more.
      const timer = setTimeout(() => fail(t`no answer in time`), TIMEOUT + (data ? data.length / 1000 : 0));
      try {
        printer.execute(operation as never, message as never, (error: Error | null, answer: unknown) => {
          clearTimeout(timer);
          if (error) fail((error as NodeJS.ErrnoException).code ?? error.message);
          else resolve(answer as Answer);
        });
      } catch (error) {
        clearTimeout(timer);
        fail(error instanceof Error ? error.message : String(error));
      }
    });
  }

  /** What the printer says of itself: a test of its address. @throws MailbagError printer-unreachable, printer-refused */
  async about(): Promise<Detail> {
    const answer = await this.ask('Get-Printer-Attributes', {
      'requested-attributes': ['printer-name', 'printer-make-and-model', 'printer-state', 'printer-state-reasons'],
    });
    if (!answer.statusCode.startsWith('successful'))
      throw new MailbagError('printer-refused', { uri: this.uri, answer: answer.statusCode });
    const {
      'printer-name': name,
      'printer-make-and-model': model,
      'printer-state': state,
      'printer-state-reasons': why,
    } = answer['printer-attributes-tag'] ?? {};
    const printer = String(model ?? name ?? this.uri);
    const known = `printer-${String(state)}`;
    const code = known === 'printer-processing' || known === 'printer-stopped' ? known : 'printer-idle';
    return remark(code, { printer, why: reasonWords(why) });
  }

  /** Sends a PDF as one job. @param name by which the job can be found again @returns its number @throws MailbagError printer-unreachable, printer-refused */
  async print(data: Buffer, name: string, duplex: boolean): Promise<number> {
    const answer = await this.ask(
      'Print-Job',
      { 'job-name': name, 'document-format': 'application/pdf' },
      { job: { sides: duplex ? 'two-sided-long-edge' : 'one-sided', media: 'iso_a4_210x297mm' }, data },
    );
    const id = Number(first(answer['job-attributes-tag'])['job-id']);
    if (!answer.statusCode.startsWith('successful') || !Number.isInteger(id))
      throw new MailbagError('printer-refused', {
        uri: this.uri,
        answer: String(answer['operation-attributes-tag']?.['status-message'] ?? answer.statusCode),
      });
    return id;
  }

  /** Number of a job by its name; null: the printer knows none. */
  async find(name: string): Promise<number | null> {
    for (const which of ['not-completed', 'completed']) {
      const answer = await this.ask('Get-Jobs', { 'which-jobs': which, 'requested-attributes': ['job-id', 'job-name'], limit: 100 });
      const jobs = [answer['job-attributes-tag'] ?? []].flat();
      const found = jobs.find((job) => job['job-name'] === name);
      if (found) return Number(found['job-id']);
    }
    return null;
  }

  /** @throws MailbagError printer-unreachable */
  async status(jobId: number): Promise<JobStatus> {
    const answer = await this.ask('Get-Job-Attributes', {
      'job-id': jobId,
      'requested-attributes': ['job-id', 'job-state', 'job-state-reasons', 'job-state-message', 'job-media-sheets-completed'],
    });
    if (answer.statusCode === 'client-error-not-found' || answer.statusCode === 'client-error-gone')
      return { state: 'gone', statusMessage: '' };
    const job = first(answer['job-attributes-tag']);
    // RFC 8011, 5.3.7: states of a job.
    const states: Record<string, JobStatus['state']> = {
      pending: 'waiting',
      'pending-held': 'waiting',
      processing: 'printing',
      'processing-stopped': 'stopped',
      canceled: 'cancelled',
      aborted: 'failed',
      completed: 'printed',
    };
    const state = states[String(job['job-state'])] ?? 'waiting';
    const sheets = job['job-media-sheets-completed'];
    const why = reasonWords(job['job-state-reasons']);
    const own = typeof job['job-state-message'] === 'string' ? job['job-state-message'] : '';
    // Why a job stands still is often told by the printer alone.
    const printerWhy =
      state === 'stopped' || state === 'waiting'
        ? reasonWords(
            (await this.ask('Get-Printer-Attributes', { 'requested-attributes': ['printer-state-reasons'] }).catch(() => null))?.[
              'printer-attributes-tag'
            ]?.['printer-state-reasons'],
          )
        : '';
    const reasons = [
      own,
      printerWhy || (state === 'stopped' || state === 'failed' ? why : ''),
      typeof sheets === 'number' && sheets > 0 ? `${sheets} sheets printed` : '',
    ]
      .filter(Boolean)
      .join(' · ');
    return { state, statusMessage: reasons };
  }

  async cancel(jobId: number): Promise<void> {
    await this.ask('Cancel-Job', { 'job-id': jobId });
  }
}
