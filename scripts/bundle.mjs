import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'rolldown';

/** Makes a few files of what the compiler wrote in a thousand, so that programs and threads start in half the time. */
const root = fileURLToPath(new URL('../', import.meta.url));
const hostThreads = ['foreign-book-thread', 'copy-writer-thread'].map((name) => `packages/host/dist/${name}.js`);

/** What core is made of. All else of the server stays as it was installed. */
const withinServer = [
  /^@(mailbag|pdf-lib)\/|^@cantoo\/pdf-lib/,
  /^(bidi-js|bwip-js|culori|fast-png|fastest-levenshtein|fflate|ibantools|iobuffer|jschardet|libphonenumber-js)/,
  /^(liquidjs|localized-address-format|luxon|node-html-better-parser|numfmt|pako|papaparse|qrcode|saxes|tslib|validator|xmlchars)/,
];
const isFile = (id) => /^[./]/.test(id);

const programs = {
  cli: { threads: [], external: ['harfbuzzjs', 'libsql'] },
  server: {
    threads: ['worker-thread', 'mail-thread'],
    external: (id, from) =>
      id.startsWith('node:') || (!isFile(id) && !from?.includes('node_modules') && !withinServer.some((one) => one.test(id))),
  },
};

for (const [app, { threads, external }] of Object.entries(programs))
  await build({
    cwd: root,
    input: [...['main', ...threads].map((name) => `apps/${app}/dist/${name}.js`), ...hostThreads],
    platform: 'node',
    external,
    output: { dir: join(root, 'apps', app, 'dist/bundle'), keepNames: true, cleanDir: true },
    logLevel: 'warn',
  });
