import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { build, install, must } from './run.mjs';

/** Installs what the tests need, then types, lint, unit and browser tests. */
install();
const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
/** The client alone makes the folder too. */
const hasPostgres = () =>
  existsSync('/usr/lib/postgresql') &&
  readdirSync('/usr/lib/postgresql').some((version) => existsSync(`/usr/lib/postgresql/${version}/bin/initdb`));
/** What the tests need of Debian: a browser, and the database servers that Mailbag reads. */
const needed = [
  {
    is: () => existsSync(chromium),
    packages: ['chromium', 'fonts-dejavu-core'],
    why: 'The browser tests need Chromium. Install it and set CHROMIUM to its path.',
  },
  { is: hasPostgres, packages: ['postgresql'], why: 'The database tests need PostgreSQL.' },
  { is: () => existsSync('/usr/sbin/mariadbd'), packages: ['mariadb-server'], why: 'The database tests need MariaDB.' },
];
/** Programs of others that some tests use where they are: a mailbox, a print server, mail programs, a verifier of signatures, another PDF reader. */
const wanted = [
  { is: () => existsSync('/usr/sbin/dovecot'), packages: ['dovecot-imapd'] },
  { is: () => existsSync('/usr/sbin/cupsd'), packages: ['cups-daemon'] },
  { is: () => existsSync('/usr/bin/swaks'), packages: ['swaks'] },
  { is: () => existsSync('/usr/lib/python3/dist-packages/aiosmtpd'), packages: ['python3-aiosmtpd', 'openssl'] },
  { is: () => existsSync('/usr/lib/python3/dist-packages/dkim'), packages: ['python3-dkim'] },
  { is: () => existsSync('/usr/bin/qpdf'), packages: ['qpdf'] },
];
const missing = [...needed, ...wanted].filter(({ is }) => !is());
if (missing.length > 0) {
  const isRoot = process.getuid?.() === 0;
  const apt = (...args) =>
    spawnSync(isRoot ? 'apt-get' : 'sudo', isRoot ? args : ['apt-get', ...args], {
      stdio: 'inherit',
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update');
  apt('install', '-y', '--no-install-recommends', ...missing.flatMap(({ packages }) => packages));
  const still = needed.filter(({ is }) => !is());
  if (still.length > 0) {
    console.error(still.map(({ why }) => why).join('\n'));
    process.exit(1);
  }
}
build();
must('npm', ['run', 'types', '--silent']);
must('npm', ['run', 'lint', '--silent']);
must(process.execPath, ['--experimental-vm-modules', 'node_modules/jest/bin/jest.js', ...process.argv.slice(2)], {
  env: { ...process.env, CHROMIUM: chromium, NODE_NO_WARNINGS: '1' },
});
