import { get } from 'node:http';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';

const mailbag = new RunningMailbag();
beforeAll(() => mailbag.start());
afterAll(() => mailbag.close());

/** An answer as it came over the line: fetch unpacks what is packed. */
const asSent = (path: string, encoding: string): Promise<{ headers: Record<string, unknown>; bytes: Buffer }> =>
  new Promise((resolve, reject) => {
    get(mailbag.address + path, { headers: { 'accept-encoding': encoding } }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => resolve({ headers: response.headers, bytes: Buffer.concat(parts) }));
    }).on('error', reject);
  });

/** The program that a page begins with. */
const programOf = async (page: string): Promise<string> => {
  const html = await (await fetch(mailbag.address + page)).text();
  return /<script[^>]* src="([^"]+)"/.exec(html)![1]!;
};

// RFC 9110, 12.5.3: a server chooses among the encodings that a client takes.
test.each(['/', '/in/nowhere'])('the program of %s comes packed as the browser can unpack it, and is the same program', async (page) => {
  const path = await programOf(page);
  const plain = await asSent(path, 'identity');
  const brotli = await asSent(path, 'gzip, deflate, br, zstd');
  const gzip = await asSent(path, 'gzip, deflate');
  expect(plain.headers).not.toHaveProperty('content-encoding');
  expect(brotli.headers).toMatchObject({ 'content-encoding': 'br', vary: 'Accept-Encoding' });
  expect(gzip.headers).toMatchObject({ 'content-encoding': 'gzip', vary: 'Accept-Encoding' });
  expect(brotliDecompressSync(brotli.bytes).equals(plain.bytes)).toBe(true);
  expect(gunzipSync(gzip.bytes).equals(plain.bytes)).toBe(true);
  for (const { headers } of [plain, brotli, gzip])
    expect(headers).toMatchObject({
      'content-type': expect.stringMatching(/javascript/) as string,
      'cache-control': 'public, max-age=31536000, immutable',
      'x-content-type-options': 'nosniff',
    });
});

test('a file that is not there is not kept by browsers', async () => {
  const answer = await asSent('/assets/nowhere.js', 'br');
  expect(answer.headers).not.toHaveProperty('cache-control', expect.stringContaining('immutable'));
});
