import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

/**
 * Puts packed copies beside the files that browsers load, as small as they get: packed at each request, they would be a tenth larger and take the server's time.
 * What has been packed before is taken from there. Brotli (RFC 7932) for browsers that take it, gzip (RFC 1952) for the others, which is all of them where the
 * address is neither secure nor this machine's.
 */
const root = fileURLToPath(new URL('../', import.meta.url));
const packed = join(root, 'node_modules/.cache/packed');
/** The best of all, 11, takes twice the time for a fiftieth less. */
const QUALITY = 10;
const packers = {
  br: (bytes) =>
    promisify(brotliCompress)(bytes, {
      params: { [constants.BROTLI_PARAM_QUALITY]: QUALITY, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length },
    }),
  gz: (bytes) => promisify(gzip)(bytes, { level: constants.Z_BEST_COMPRESSION }),
};
/** A packed copy of less is not worth its file. */
const FEWEST_BYTES = 1024;

mkdirSync(packed, { recursive: true });

/** @param path of a file that is to lie packed beside itself */
async function pack(path) {
  const bytes = readFileSync(path);
  if (bytes.length < FEWEST_BYTES) return;
  const digest = createHash('sha256').update(bytes).digest('hex');
  for (const [ending, packer] of Object.entries(packers)) {
    const known = join(packed, `${digest}.${ending}`);
    const isKnown = existsSync(known);
    const small = isKnown ? readFileSync(known) : await packer(bytes);
    if (!isKnown) writeFileSync(known, small);
    writeFileSync(`${path}.${ending}`, small);
  }
}

const files = ['web', 'pages'].flatMap((app) => {
  const folder = join(root, 'apps', app, 'dist/assets');
  return readdirSync(folder)
    .filter((name) => /\.(?:bcmap|css|js|mjs|ttf|wasm)$/.test(name))
    .map((name) => join(folder, name));
});
await Promise.all(files.map(pack));
