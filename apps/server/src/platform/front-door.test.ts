import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { FrontDoor } from './front-door.js';

const doors: FrontDoor[] = [];
const opened = async (): Promise<{ door: FrontDoor; base: string }> => {
  const door = new FrontDoor();
  doors.push(door);
  return { door, base: `http://127.0.0.1:${await door.listen(0, '127.0.0.1')}` };
};
afterEach(async () => {
  for (const door of doors.splice(0)) await door.close(0);
});

test('before it is open a program is told so by code, and a person by a page that looks again by itself', async () => {
  const { base } = await opened();
  const program = await fetch(`${base}/api/desk`);
  expect([program.status, program.headers.get('retry-after'), program.headers.get('cache-control')]).toEqual([503, '1', 'no-store']);
  expect(await program.json()).toMatchObject({ code: 'server-starts', message: expect.stringContaining('starting') });
  const person = await fetch(`${base}/desk`);
  expect(person.status).toBe(503);
  expect(await person.text()).toMatch(/<meta http-equiv="refresh" content="1">.*Mailbag is starting/);
});

test('once it is open, requests are answered', async () => {
  const { door, base } = await opened();
  door.open((_request, response) => response.end('here'));
  expect(await (await fetch(`${base}/api/desk`)).text()).toBe('here');
});

test('whoever is being answered when it closes is answered, and nobody new is', async () => {
  const { door, base } = await opened();
  let go = (): void => undefined;
  const held = new Promise<void>((done) => (go = done));
  let begun = (): void => undefined;
  const isBegun = new Promise<void>((done) => (begun = done));
  door.open((_request, response) => {
    begun();
    void held.then(() => response.end('late'));
  });
  const answer = fetch(`${base}/slow`);
  await isBegun;
  const closing = door.close(5000);
  go();
  expect(await (await answer).text()).toBe('late');
  await closing;
  await expect(fetch(`${base}/again`)).rejects.toThrow();
});

test('who takes longer than there is patience is cut off, so that a stop comes to its end', async () => {
  const { door, base } = await opened();
  let begun = (): void => undefined;
  const isBegun = new Promise<void>((done) => (begun = done));
  door.open(() => begun());
  const answer = fetch(`${base}/never`);
  const failing = expect(answer).rejects.toThrow();
  await isBegun;
  await door.close(30);
  await failing;
});

test('a port that another program has is named, with what to do', async () => {
  const other = createServer();
  await new Promise<void>((done) => other.listen(0, '127.0.0.1', done));
  const { port } = other.address() as AddressInfo;
  const door = new FrontDoor();
  await expect(door.listen(port, '127.0.0.1')).rejects.toMatchObject({
    code: 'port-taken',
    message: `Port ${port} of 127.0.0.1 is taken by another program. Choose another one with --port.`,
  });
  await new Promise((done) => other.close(done));
});
