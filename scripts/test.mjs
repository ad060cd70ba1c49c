import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { createInterface } from 'node:readline/promises';
import { build, install, mustTogether } from './run.mjs';

/** Installs what the tests need, then types, lint, unit and browser tests. */
install();
/** Chromium without its windows does the same with an eighth less of the processor. */
const headlessShell = '/usr/bin/chromium-headless-shell';
const chromiumThere = () => process.env.CHROMIUM ?? [headlessShell, '/usr/bin/chromium'].find((path) => existsSync(path));
/** The client alone makes the folder too. */
const hasPostgres = () =>
  existsSync('/usr/lib/postgresql') &&
  readdirSync('/usr/lib/postgresql').some((version) => existsSync(`/usr/lib/postgresql/${version}/bin/initdb`));
/** What the tests need of Debian: a browser, and the database servers that Mailbag reads. */
const needed = [
  {
    is: () => existsSync(chromiumThere() ?? ''),
    packages: ['chromium', 'fonts-dejavu-core'],
    why: 'the browser tests drive Chromium (or set CHROMIUM to the path of one)',
  },
  { is: hasPostgres, packages: ['postgresql'], why: 'sources are read from PostgreSQL' },
  { is: () => existsSync('/usr/sbin/mariadbd'), packages: ['mariadb-server'], why: 'sources are read from MariaDB' },
];
/** Programs of others that some tests use where they are. */
const wanted = [
  {
    is: () => process.env.CHROMIUM !== undefined || existsSync(headlessShell),
    packages: ['chromium-headless-shell'],
    why: 'the browser tests take less time with it',
  },
  { is: () => existsSync('/usr/sbin/dovecot'), packages: ['dovecot-imapd'], why: 'bounces are read from a real mailbox' },
  { is: () => existsSync('/usr/sbin/cupsd'), packages: ['cups-daemon'], why: 'a real print server takes a print run' },
  { is: () => existsSync('/usr/bin/swaks'), packages: ['swaks'], why: 'another mail program hands bounces in' },
  {
    is: () => existsSync('/usr/lib/python3/dist-packages/aiosmtpd'),
    packages: ['python3-aiosmtpd', 'openssl'],
    why: 'another mail server takes what is sent',
  },
  { is: () => existsSync('/usr/lib/python3/dist-packages/dkim'), packages: ['python3-dkim'], why: 'another program verifies signatures' },
  { is: () => existsSync('/usr/bin/qpdf'), packages: ['qpdf'], why: 'another program opens copies' },
];
const missing = [...needed, ...wanted].filter(({ is }) => !is());
if (missing.length > 0) {
  const isRoot = process.getuid?.() === 0;
  console.log('The tests use programs of Debian that are not here yet:');
  for (const { packages, why } of missing) console.log(`  ${packages.join(', ').padEnd(28)} ${why}`);
  if (isRoot || (await agreed())) {
    const apt = (...args) =>
      spawnSync(isRoot ? 'apt-get' : 'sudo', isRoot ? args : ['apt-get', ...args], {
        stdio: 'inherit',
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      });
    apt('update');
    // What one edition of Debian does not have keeps nothing else away.
    for (const list of [needed, wanted]) {
      const packages = missing.filter((one) => list.includes(one)).flatMap((one) => one.packages);
      if (packages.length > 0) apt('install', '-y', '--no-install-recommends', ...packages);
    }
  }
  const still = needed.filter(({ is }) => !is());
  if (still.length > 0) {
    console.error(still.map(({ packages, why }) => `${packages.join(', ')} is missing: ${why}.`).join('\n'));
    console.error('Install it and begin again. `npm run test:unit` runs what needs nothing of Debian.');
    process.exit(1);
  }
}

/** Whether a person at a terminal lets them be installed, for which sudo may ask for a password. Where nobody is there to ask, sudo is tried as it is. */
async function agreed() {
  if (!process.stdin.isTTY) return true;
  const asking = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await asking.question('Install them now with apt-get? sudo may ask for your password. [Y/n] ');
  asking.close();
  return !/^n/i.test(answer.trim());
}
build();
const npm = (script) => ({ command: 'npm', args: ['run', script, '--silent'], quiet: true });
// The tests wait for a server, a browser or a mail now and then: types and lint take what is left over of the cores.
await mustTogether(npm('types'), npm('lint'), {
  command: process.execPath,
  args: ['--experimental-vm-modules', 'node_modules/jest/bin/jest.js', ...process.argv.slice(2)],
  env: { ...process.env, CHROMIUM: chromiumThere(), NODE_NO_WARNINGS: '1' },
});
