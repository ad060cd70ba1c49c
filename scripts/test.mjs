import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { build, install, must } from './run.mjs';

/** Installs what the tests need, then types, lint, unit and browser tests. */
install();
const chromium = process.env.CHROMIUM ?? '/usr/bin/chromium';
if (!existsSync(chromium)) {
  const isRoot = process.getuid?.() === 0;
  const apt = (...args) =>
    spawnSync(isRoot ? 'apt-get' : 'sudo', isRoot ? args : ['apt-get', ...args], {
      stdio: 'inherit',
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update');
  apt('install', '-y', '--no-install-recommends', 'chromium', 'fonts-dejavu-core');
  if (!existsSync(chromium)) {
    console.error('The browser tests need Chromium. Install it and set CHROMIUM to its path.');
    process.exit(1);
  }
}
build();
must('npm', ['run', 'types', '--silent']);
must('npm', ['run', 'lint', '--silent']);
must(process.execPath, ['--experimental-vm-modules', 'node_modules/jest/bin/jest.js', ...process.argv.slice(2)], {
  env: { ...process.env, CHROMIUM: chromium, NODE_NO_WARNINGS: '1' },
});
