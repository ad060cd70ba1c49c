import { NoAnswer, api, sentenceOf } from './client';

type Answered = { status: number; body?: unknown; bytes?: Uint8Array };
let asked: { path: string; init: RequestInit }[] = [];
/** The server as it answers; null: it does not. */
function answering(...answers: (Answered | null)[]): void {
  asked = [];
  globalThis.fetch = ((path: string, init: RequestInit = {}) => {
    asked.push({ path, init });
    const answer = answers.shift();
    if (!answer) return Promise.reject(new TypeError('Failed to fetch'));
    return Promise.resolve({
      ok: answer.status < 400,
      status: answer.status,
      json: () => (answer.body === undefined ? Promise.reject(new Error('no JSON')) : Promise.resolve(answer.body)),
      arrayBuffer: () => Promise.resolve((answer.bytes ?? new Uint8Array()).buffer),
    });
  }) as never;
}
const real = globalThis.fetch;
afterAll(() => void (globalThis.fetch = real));

test('what is sent carries the header that no other site’s form can send, and JSON where there is something to say', async () => {
  answering({ status: 200, body: { id: 1 } }, { status: 204 }, { status: 200, body: [] });
  expect(await api.post('/api/x', { a: 1 })).toEqual({ id: 1 });
  expect(asked[0]!.init).toMatchObject({
    method: 'POST',
    body: '{"a":1}',
    headers: { 'x-mailbag': '1', 'content-type': 'application/json' },
  });
  expect(await api.remove('/api/x/1')).toBeUndefined();
  await api.get('/api/x');
  expect(asked[2]!.init.body).toBeUndefined();
  expect(asked[2]!.init.headers).not.toHaveProperty('content-type');
});

test('what the server says is the sentence of the catalogue, made here from its code and fields', async () => {
  answering({
    status: 422,
    body: { code: 'source-key-missing', fields: { source: 'tenancies', column: 'Plot' }, message: 'in another language' },
  });
  await expect(api.get('/api/x')).rejects.toMatchObject({
    code: 'source-key-missing',
    message: '“tenancies” has no column “Plot”. Choose another record key.',
  });
});

test.each<[Answered | null, boolean, RegExp]>([
  [null, true, /does not answer.*Your work is kept here/],
  [{ status: 502 }, true, /does not answer/],
  [{ status: 503, body: { code: 'server-stops', fields: {} } }, true, /The server is stopping/],
  [{ status: 500, body: { message: 'broken' } }, true, /broken/],
  [{ status: 500 }, true, /does not answer/],
  [{ status: 404, body: { message: 'gone' } }, false, /gone/],
  [{ status: 418 }, false, /answered with 418/],
  [{ status: 409, body: { code: 'of-tomorrow', message: 'a newer sentence' } }, false, /a newer sentence/],
])('%j: whether it may be answered a little later is %s', async (answer, later, says) => {
  answering(answer);
  const error: unknown = await api.get('/api/x').catch((thrown: unknown) => thrown);
  expect(error instanceof NoAnswer).toBe(later);
  expect(sentenceOf(error)).toMatch(says);
});

test('bytes come as bytes, and what is refused in place of them as its sentence', async () => {
  answering(
    { status: 200, bytes: Uint8Array.of(1, 2, 3) },
    { status: 404, body: { code: 'not-found', fields: { what: 'template' } } },
    null,
  );
  expect([...(await api.bytes('/api/t'))]).toEqual([1, 2, 3]);
  await expect(api.bytes('/api/t')).rejects.toThrow('There is no template with this address');
  await expect(api.bytes('/api/t')).rejects.toBeInstanceOf(NoAnswer);
});
