import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { front } from './front.js';

/** The demo's one port leads to two servers, and to nobody else's. */
const heard: string[] = [];
const listening = async (server: Server): Promise<string> => {
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
};
const mailbag = createServer((asked, answer) => {
  heard.push(`mailbag ${asked.headers.host} ${asked.url}`);
  answer.end(JSON.stringify({ account: asked.headers.cookie === 'session=known' ? { id: 1 } : null }));
});
const office = createServer((asked, answer) => {
  heard.push(`office ${asked.url}`);
  answer.setHeader('content-type', asked.url === '/one.pdf' ? 'application/pdf' : 'text/html').end('<script>1</script>');
});
let door: Server;
let base: string;
/** Asks with the path exactly as it is given, which `fetch` would tidy up. */
const ask = (path: string, cookie = 'session=known'): Promise<{ status: number; headers: NodeJS.Dict<string | string[]> }> =>
  new Promise((done, fail) => {
    const { hostname, port } = new URL(base);
    request({ hostname, port, path, headers: { cookie } }, (answer) => {
      answer.resume().once('end', () => done({ status: answer.statusCode!, headers: answer.headers }));
    })
      .once('error', fail)
      .end();
  });

beforeAll(async () => {
  door = front(await listening(mailbag), await listening(office));
  base = await listening(door);
});
beforeEach(() => void heard.splice(0));
afterAll(() => [door, mailbag, office].forEach((one) => one.close()));

test('what is Mailbag’s goes to Mailbag, under the name that was asked for', async () => {
  expect((await ask('/copies?x=1')).status).toBe(200);
  expect(heard).toEqual([`mailbag ${new URL(base).host} /copies?x=1`]);
});

test('the post office is shown to the signed-in only, shut in', async () => {
  expect((await ask('/post-office', '')).headers.location).toBe('/');
  expect(heard.filter((one) => one.startsWith('office'))).toEqual([]);
  expect((await ask('/post-office/messages/3')).headers['content-security-policy']).toContain('sandbox');
  expect((await ask('/post-office/one.pdf')).headers['content-security-policy']).not.toContain('sandbox');
  expect(heard.filter((one) => one.startsWith('office'))).toEqual(['office /messages/3', 'office /one.pdf']);
});

test.each(['//elsewhere.example/', 'http://elsewhere.example/', '/post-office//elsewhere.example/', '/post-office///elsewhere.example'])(
  'the path %s leads nowhere else',
  async (path) => {
    await ask(path);
    expect(heard.filter((one) => one.startsWith('office'))).toEqual([]);
  },
);
