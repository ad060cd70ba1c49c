import { fork } from 'node:child_process';
import { once } from 'node:events';
import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'rolldown';

/** Makes a few files of what the compiler and others wrote in thousands, so that programs and threads start in a fraction of the time. */
const root = fileURLToPath(new URL('../', import.meta.url));
const hostThreads = ['foreign-book-thread', 'copy-writer-thread'].map((name) => `packages/host/dist/${name}.js`);

/** Parts for one machine only, and packages that look for files beside themselves or are loaded when they are wanted: they stay as they were installed. */
const asInstalled = [
  /^(libsql|harfbuzzjs|piscina|@node-rs\/argon2|@sqlite\.org)/,
  /^(exceljs|html-to-text|imapflow|ipp|mailparser|mysql2|nodemailer|pg|sanitize-html|smtp-server|webdav|@zxcvbn-ts)/,
];
/** Packages that Nest and TypeORM try and do without. */
const notThere = [
  /^@nestjs\/(microservices|websockets|platform-socket|mapped-types)/,
  /^(@google-cloud|@sap|better-sqlite3|cache-manager|class-transformer\/storage|expo|hdb-pool|ioredis|kerberos|mongodb|mssql|mysql$|oracledb|react-native|redis|sql\.js|sqlite3|ts-node|typeorm-aurora)/,
];
/** What older editions of TypeORM had: Nest loads the whole of it a second time to see that it is gone. */
const withoutOldTypeOrm = {
  name: 'without-old-typeorm',
  load: (id) =>
    /@nestjs\/typeorm\/dist\/common\/typeorm-compat\.js$/.test(id)
      ? 'export const Connection = undefined, AbstractRepository = undefined;'
      : null,
};

/** Packages that are modules are loaded by what lies beside the bundle, see code-cache.cjs. */
const importsFromBeside = {
  name: 'imports-from-beside',
  renderChunk: (code) => code.replace(/\bimport\((["'][^"'./][^"']*["'])\)/g, 'require("./code-cache.cjs").load($1)'),
};

const programs = {
  cli: { threads: [], external: ['harfbuzzjs', 'libsql'], warmUp: (main) => run(main, ['--help']) },
  server: {
    threads: ['worker-thread', 'mail-thread'],
    external: (id) => id.startsWith('node:') || [...asInstalled, ...notThere].some((one) => one.test(id)),
    warmUp: async (main) => {
      const data = mkdtempSync(join(tmpdir(), 'mailbag-bundle-'));
      await run(main, [], { MAILBAG_DATA: data, MAILBAG_PORT: '0' });
      rmSync(data, { recursive: true, force: true });
    },
  },
};

/** Milliseconds that a program may take to be ready and gone again. */
const LONGEST_RUN = 120_000;

/** Runs a program until it ends, or is ready and told to stop, so that what was compiled for it is kept. */
async function run(main, args, env = {}) {
  const child = fork(main, args, {
    env: { ...process.env, ...env, MAILBAG_WRITE_CODE: '1' },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  const late = setTimeout(() => child.kill('SIGKILL'), LONGEST_RUN);
  child.once('message', () => child.kill('SIGTERM'));
  const [code] = await once(child, 'exit');
  clearTimeout(late);
  if (code !== 0) console.warn(`${main} could not be run once (${code ?? 'it took too long'}): its starts will take longer.`);
}

/** The door to a part of a bundle, as a module like those that the compiler wrote. */
const door = (name) => `import { createRequire } from 'node:module';

const require = createRequire(import.meta.url);
require('./code-cache.cjs');
export default require('./${name}.cjs').default;
`;

for (const [app, { threads, external, warmUp }] of Object.entries(programs)) {
  const folder = join(root, 'apps', app, 'dist/bundle');
  const { output } = await build({
    cwd: root,
    input: [...['main', ...threads].map((name) => `apps/${app}/dist/${name}.js`), ...hostThreads],
    platform: 'node',
    external,
    plugins: [withoutOldTypeOrm, importsFromBeside],
    // What V8 has compiled can be kept of scripts, and not yet of modules; what was written as modules is strict all the same.
    output: {
      dir: folder,
      format: 'cjs',
      exports: 'named',
      strict: true,
      entryFileNames: '[name].cjs',
      chunkFileNames: '[name]-[hash].cjs',
      keepNames: true,
      cleanDir: true,
    },
    logLevel: 'warn',
  });
  copyFileSync(join(root, 'scripts/code-cache.cjs'), join(folder, 'code-cache.cjs'));
  for (const { isEntry, name } of output) if (isEntry) writeFileSync(join(folder, `${name}.js`), door(name));
  await warmUp(join(folder, 'main.js'));
}
