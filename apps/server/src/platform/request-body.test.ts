import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import { isMailbagError } from '@mailbag/core';
import { OPEN_LIMITS, USUAL_LIMITS, readBody } from './request-body.js';
import type { BodyLimits } from './request-body.js';

let server: Server;
let base: string;
let limits: BodyLimits = USUAL_LIMITS;
beforeAll(async () => {
  server = createServer((request, response) => {
    readBody(request, response, limits).then(
      () => response.end(JSON.stringify({ body: (request as { body?: unknown }).body ?? null })),
      (error: unknown) => {
        response.statusCode = 422;
        response.end(
          JSON.stringify({
            code: isMailbagError(error) ? error.code : 'thrown',
            fields: isMailbagError(error) ? error.fields : String(error),
          }),
        );
      },
    );
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => {
  server.closeAllConnections();
  return new Promise((done) => server.close(done));
});
beforeEach(() => void (limits = USUAL_LIMITS));

const send = async (
  body: BodyInit | undefined,
  type: string | null = 'application/json',
  more: Record<string, string> = {},
): Promise<Record<string, unknown>> => {
  const response = await fetch(base, {
    method: 'POST',
    ...(body === undefined ? {} : { body }),
    headers: { ...(type === null ? {} : { 'content-type': type }), ...more },
  });
  return (await response.json()) as Record<string, unknown>;
};
const nested = (levels: number): string => '['.repeat(levels) + ']'.repeat(levels);

test('JSON is read, and nothing where nothing was sent', async () => {
  expect(await send('{"a":[1,"ä"]}')).toEqual({ body: { a: [1, 'ä'] } });
  expect(await send('{"a":1}', 'application/json; charset=utf-8')).toEqual({ body: { a: 1 } });
  expect(await send(undefined, null)).toEqual({ body: null });
});

test.each<[string, BodyInit, string | null, Record<string, string>, string]>([
  ['another type', '{"a":1}', 'text/plain', {}, 'request-type'],
  ['a form', 'a=1', 'application/x-www-form-urlencoded', {}, 'request-type'],
  ['another encoding of letters (RFC 8259, 8.1)', '{"a":1}', 'application/json; charset=latin1', {}, 'request-type'],
  ['a packed body', gzipSync('{"a":1}'), 'application/json', { 'content-encoding': 'gzip' }, 'request-type'],
  ['broken JSON', '{"a":', 'application/json', {}, 'request-wrong'],
  ['too much', JSON.stringify({ a: 'x'.repeat(300_000) }), 'application/json', {}, 'request-too-large'],
  ['too deep', nested(41), 'application/json', {}, 'request-too-deep'],
])('%s is refused', async (_, body, type, more, code) => {
  expect(await send(body, type, more)).toMatchObject({ code });
});

test('a stranger may send less, and less deeply', async () => {
  limits = OPEN_LIMITS;
  expect(await send(nested(8))).toHaveProperty('body');
  expect(await send(nested(9))).toMatchObject({ code: 'request-too-deep' });
  expect(await send(JSON.stringify({ a: 'x'.repeat(70_000) }))).toMatchObject({ code: 'request-too-large', fields: { limitKb: 64 } });
  // Brackets within a text are no levels.
  expect(await send(JSON.stringify({ a: '['.repeat(100) }))).toHaveProperty('body');
});
