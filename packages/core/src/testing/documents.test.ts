import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { errorDocument, ruleDocument, stateDocument } from './documents.js';

test.each([
  ['errors.md', errorDocument],
  ['fill-rules.md', ruleDocument],
  ['states.md', stateDocument],
])('docs/%s says what the code does', (file, make) => {
  const path = join(process.cwd(), 'docs', file);
  if (process.env.WRITE_DOCS) writeFileSync(path, make());
  // Run `npm run docs` after a change of the catalogue or the law.
  expect(readFileSync(path, 'utf8')).toBe(make());
});
