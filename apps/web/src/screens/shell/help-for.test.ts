import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { speak } from '@mailbag/core/words';
import { helpFor, manualStart } from './help-for';

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

test('who is spoken to in German reads the German manual, which has the same pages', () => {
  speak({ locale: 'de-DE', say: () => null, find: () => null });
  expect(helpFor('/mailings/12/map')).toBe('/help/de/map');
  expect(manualStart()).toBe('/help/de');
  speak(null);
  const pagesOf = (folder: string): string[] => readdirSync(folder).filter((name) => name.endsWith('.md'));
  expect(pagesOf(join(manual, 'de'))).toEqual(pagesOf(manual));
});
