import { settingsPlaces } from '../settings/settings-places';

/** A place or an action that is found by its words. */
export interface FoundPlace {
  name: string;
  detail: string;
  to: string;
}

/** Each with further words by which people look for it. */
const actions: readonly (FoundPlace & { words: string })[] = [
  { name: 'Begin a mailing', detail: 'Action', to: '/mailings', words: 'new create start' },
  { name: 'Upload a template', detail: 'Action', to: '/templates', words: 'new add pdf form' },
  { name: 'Bring in records', detail: 'Action', to: '/sources', words: 'new add source sheet spreadsheet database upload' },
  { name: 'Make an intake', detail: 'Action', to: '/intakes', words: 'new create page questions form' },
  { name: 'Gather for the post', detail: 'Action', to: '/paper', words: 'print letters paper run' },
  { name: 'Copies that bounced', detail: 'Ledger', to: '/ledger?state=bounced', words: 'undelivered returned mail' },
  { name: 'Copies on paper', detail: 'Ledger', to: '/ledger?paper=yes', words: 'post print' },
];

/** Most that are offered beside what is found on the server. */
const MOST = 4;

/** Places and actions in which a word begins with each word of a text. @param isAdministrator who is none finds no settings that are for administrators */
export function placesFor(text: string, isAdministrator: boolean): FoundPlace[] {
  const wanted = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return [];
  const settings = settingsPlaces
    .filter(({ forAdministrators }) => isAdministrator || !forAdministrators)
    .map(({ id, text: name }) => ({ name, detail: 'Settings', to: `/settings/${id}`, words: 'settings' }));
  return [...actions, ...settings]
    .filter(({ name, words }) => {
      const own = `${name} ${words}`.toLowerCase().split(/\s+/);
      return wanted.every((word) => own.some((one) => one.startsWith(word)));
    })
    .slice(0, MOST)
    .map(({ name, detail, to }) => ({ name, detail, to }));
}
