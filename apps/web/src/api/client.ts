import { t } from '@mailbag/core/words';
import type { ErrorFields } from '@mailbag/core';
import { MailbagError, catalogue } from '@mailbag/core';
import { errorWords } from '../words/speak-in';

/** The server did not answer, or could not: the same question may be answered a little later. */
export class NoAnswer extends Error {
  /** @param isLate it was waited for as long as a person waits: asking again at once would only double that */
  constructor(
    message: string,
    readonly isLate = false,
  ) {
    super(message);
  }
}
const NO_ANSWER = t`The server does not answer. Your work is kept here; it goes on when the server is back.`;

async function toError(told: { code?: string; fields?: ErrorFields; message?: string } | null, status: number): Promise<Error> {
  await errorWords();
  const known = told?.code && told.code in catalogue ? MailbagError.from({ code: told.code, fields: told.fields ?? {} }) : null;
  // RFC 9110, 15.6: it cannot just now, or what stands in front of it did not reach it.
  if (status >= 502 && status <= 504) return new NoAnswer(known?.message ?? NO_ANSWER);
  if (known) return known;
  if (status >= 500) return new NoAnswer(told?.message ?? NO_ANSWER);
  return new Error(told?.message ?? t`The server answered with ${status}. Try again in a moment.`);
}

/** Milliseconds in which a question that changes nothing must be answered. */
const PATIENCE = 9_000;
const LONG_PATIENCE = 180_000;

/** The only fetch of the application. @throws MailbagError what the server told; Error when it does not answer */
async function ask<T>(method: string, path: string, body?: unknown, patience = PATIENCE): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      ...(method === 'GET' ? { signal: AbortSignal.timeout(patience) } : {}),
      headers: { 'x-mailbag': '1', ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  } catch (error) {
    throw new NoAnswer(NO_ANSWER, error instanceof DOMException && error.name === 'TimeoutError');
  }
  if (response.ok) return response.status === 204 ? (undefined as T) : ((await response.json()) as T);
  throw await toError((await response.json().catch(() => null)) as null, response.status);
}

export const api = {
  get: <T>(path: string) => ask<T>('GET', path),
  /** For what is worked out over all records, or asked of another server. */
  getSlowly: <T>(path: string) => ask<T>('GET', path, undefined, LONG_PATIENCE),
  post: <T>(path: string, body?: unknown) => ask<T>('POST', path, body ?? {}),
  put: <T>(path: string, body: unknown) => ask<T>('PUT', path, body),
  patch: <T>(path: string, body: unknown) => ask<T>('PATCH', path, body),
  remove: (path: string) => ask<void>('DELETE', path),
  /** Bytes of a file. */
  async bytes(path: string): Promise<Uint8Array> {
    const response = await fetch(path).catch(() => {
      throw new NoAnswer(NO_ANSWER);
    });
    if (!response.ok) throw await toError((await response.json().catch(() => null)) as null, response.status);
    return new Uint8Array(await response.arrayBuffer());
  },
  /** Sends one file and tells how far it is, 0 to 1. */
  upload<T>(path: string, file: File, onProgress: (share: number) => void): Promise<T> {
    return new Promise((resolve, reject) => {
      const request = new XMLHttpRequest();
      request.open('POST', path);
      request.setRequestHeader('x-mailbag', '1');
      request.upload.onprogress = (event) => onProgress(event.total > 0 ? event.loaded / event.total : 0);
      request.onerror = () => reject(new Error(t`The connection was lost while the file was being sent. Choose it again.`));
      request.onload = () => {
        const told = (() => {
          try {
            return JSON.parse(request.responseText) as { code?: string };
          } catch {
            return null;
          }
        })();
        if (request.status >= 200 && request.status < 300) resolve(told as T);
        else void toError(told, request.status).then(reject);
      };
      const form = new FormData();
      form.append('file', file);
      request.send(form);
    });
  },
};

/** The sentence of an error for the screen. */
export const sentenceOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
