import type { IncomingMessage, ServerResponse } from 'node:http';
import { MailbagError, nestingOf } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { json } from 'body-parser';

export interface BodyLimits {
  bytes: number;
  /** Arrays and objects in one another. */
  levels: number;
}
/** What a stranger may send. */
export const OPEN_LIMITS: BodyLimits = { bytes: 64 * 1024, levels: 8 };
/** What is usual for the signed-in; a path that takes more says so. */
export const USUAL_LIMITS: BodyLimits = { bytes: 256 * 1024, levels: 40 };

type Reader = (request: IncomingMessage, response: ServerResponse, done: (error?: unknown) => void) => void;
const readers = new Map<string, Reader>();

function readerOf({ bytes, levels }: BodyLimits): Reader {
  const name = `${bytes} ${levels}`;
  const known = readers.get(name);
  if (known) return known;
  const reader = json({
    limit: bytes,
    // A packed body could be a thousand times as large as it looks.
    inflate: false,
    verify(_request, _response, body) {
      if (nestingOf(body.toString('latin1'), levels) > levels) throw new MailbagError('request-too-deep');
    },
  }) as Reader;
  readers.set(name, reader);
  return reader;
}

/** The type and charset of JSON (RFC 8259, 8.1: UTF-8 and nothing else). */
const JSON_TYPE = /^application\/json\s*(?:;\s*charset\s*=\s*"?utf-8"?\s*)?$/i;

/**
 * Reads the JSON of a request into `request.body`, once it is known who sends it and how much they may.
 * Forms with files are left to whoever takes them.
 * @throws MailbagError request-too-large, request-too-deep, request-type, request-wrong
 */
export async function readBody(request: IncomingMessage & { body?: unknown }, response: ServerResponse, limits: BodyLimits): Promise<void> {
  const type = request.headers['content-type'];
  const isEmpty = request.headers['transfer-encoding'] === undefined && Number(request.headers['content-length'] ?? 0) === 0;
  if (isEmpty || type?.startsWith('multipart/form-data')) return;
  if (type === undefined || !JSON_TYPE.test(type) || request.headers['content-encoding'] !== undefined)
    throw new MailbagError('request-type', { type: type?.slice(0, 100) ?? 'nothing' });
  await new Promise<void>((resolve, reject) => {
    readerOf(limits)(request, response, (error) => (error === undefined ? resolve() : reject(told(error, limits))));
  });
}

function told(error: unknown, { bytes }: BodyLimits): unknown {
  const { type } = error as { type?: string };
  if (type === 'entity.too.large') return new MailbagError('request-too-large', { limitKb: Math.round(bytes / 1024) });
  if (type === 'entity.parse.failed') return new MailbagError('request-wrong', { why: t`its JSON is broken` });
  // The parser wraps what our own check throws.
  if (type === 'entity.verify.failed') return new MailbagError('request-too-deep', {});
  if (type === 'request.aborted') return new MailbagError('request-wrong', { why: t`it broke off` });
  return error;
}
