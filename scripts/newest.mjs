import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../', import.meta.url));
const time = (path) => (existsSync(path) ? statSync(path).mtimeMs : 0);

/**
 * The program of an application: its bundle, which starts in half the time, or what the compiler wrote where that is newer.
 * @param app a folder of apps
 */
export function newest(app) {
  const compiled = join(root, 'apps', app, 'dist/main.js');
  const bundle = join(root, 'apps', app, 'dist/bundle/main.js');
  const parts = [join('apps', app), ...readdirSync(join(root, 'packages')).map((name) => join('packages', name))];
  // The compiler touches these whenever it has written anything.
  const written = Math.max(time(compiled), ...parts.map((part) => time(join(root, part, 'tsconfig.tsbuildinfo'))));
  return time(bundle) >= written ? bundle : compiled;
}
