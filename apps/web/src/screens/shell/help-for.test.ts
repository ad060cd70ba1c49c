import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { helpFor } from './help-for';

const manual = join(import.meta.dirname, '../../../../../docs/manual');
test.each([
  ['/desk', 'start'],
  ['/mailings', 'start'],
  ['/mailings/12/map', 'map'],
  ['/mailings/12/contact', 'map'],
  ['/mailings/12/checks', 'checks'],
  ['/templates/4/layout', 'templates'],
  ['/batches/3', 'batches'],
  ['/settings/people', 'office'],
])('help on %s is the page “%s”, which is there', (address, page) => {
  expect(helpFor(address)).toBe(`/help/${page}`);
  expect(existsSync(manual) && readdirSync(manual).some((name) => name.replace(/^\d+-|\.md$/g, '') === page)).toBe(true);
});
