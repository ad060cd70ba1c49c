import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'rolldown';

/** Makes a few files of what the compiler and others wrote in thousands, so that programs and threads start in a third of the time. */
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

const programs = {
  cli: { threads: [], external: ['harfbuzzjs', 'libsql'] },
  server: {
    threads: ['worker-thread', 'mail-thread'],
    external: (id) => id.startsWith('node:') || [...asInstalled, ...notThere].some((one) => one.test(id)),
  },
};

for (const [app, { threads, external }] of Object.entries(programs))
  await build({
    cwd: root,
    input: [...['main', ...threads].map((name) => `apps/${app}/dist/${name}.js`), ...hostThreads],
    platform: 'node',
    external,
    plugins: [withoutOldTypeOrm],
    output: { dir: join(root, 'apps', app, 'dist/bundle'), keepNames: true, cleanDir: true },
    logLevel: 'warn',
  });
