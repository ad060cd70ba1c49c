import { spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/**
 * `npm run faces [-- --data FOLDER] [-- jp kr sc tc]`: brings faces for Chinese, Japanese and Korean from the registry into the folder of faces of a data
 * folder. They are too large to be part of every installation.
 */
const packages = {
  sc: ['@expo-google-fonts/noto-sans-sc@0.4.3', 'NotoSansSC', 'Chinese, simplified'],
  tc: ['@expo-google-fonts/noto-sans-tc@0.4.3', 'NotoSansTC', 'Chinese, traditional'],
  jp: ['@expo-google-fonts/noto-sans-jp@0.4.3', 'NotoSansJP', 'Japanese'],
  kr: ['@expo-google-fonts/noto-sans-kr@0.4.3', 'NotoSansKR', 'Korean'],
};
const words = process.argv.slice(2);
const at = words.indexOf('--data');
const data = at >= 0 ? words[at + 1] : (process.env.MAILBAG_DATA ?? 'data');
const asked = words.filter((word, index) => at < 0 || (index !== at && index !== at + 1));
const unknown = asked.filter((word) => !(word in packages));
if (!data || unknown.length > 0) {
  console.error(`Usage: npm run faces -- [--data FOLDER] [${Object.keys(packages).join(' ')}]`);
  process.exit(2);
}
const folder = join(data, 'faces');
mkdirSync(folder, { recursive: true });
for (const key of asked.length > 0 ? asked : Object.keys(packages)) {
  const [name, face, language] = packages[key];
  const target = join(folder, `${face}-Regular.ttf`);
  if (existsSync(target)) {
    console.log(`${language}: already there, ${target}`);
    continue;
  }
  const work = mkdtempSync(join(tmpdir(), 'mailbag-faces-'));
  try {
    const packed = spawnSync('npm', ['pack', name, '--pack-destination', work, '--silent'], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const archive = readdirSync(work).find((file) => file.endsWith('.tgz'));
    if (packed.status !== 0 || !archive)
      throw new Error(`${name} could not be brought from the registry. Is there a network, and the registry set?`);
    const inside = `package/400Regular/${face}_400Regular.ttf`;
    const unpacked = spawnSync('tar', ['-xzf', join(work, archive), '-C', work, inside], { stdio: 'inherit' });
    if (unpacked.status !== 0) throw new Error(`${name} does not hold ${inside}.`);
    copyFileSync(join(work, inside), target);
    console.log(`${language}: ${target}, ${Math.round(statSync(target).size / 1e6)} MB`);
  } catch (error) {
    console.error(String(error.message ?? error));
    process.exitCode = 1;
  } finally {
    rmSync(work, { recursive: true, force: true });
  }
}
console.log('New batches and previews use them after the server has been started again.');
