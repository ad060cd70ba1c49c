import { t } from '@mailbag/core/words';
import { manualStart } from './help-for';
import { settingsPlaces } from '../settings/settings-places';

/** A place or an action that is found by its words. */
export interface FoundPlace {
  name: string;
  detail: string;
  to: string;
}

/** Each with further words by which people look for it. */
const actions: readonly (FoundPlace & { words: string })[] = [
  { name: t`Begin a mailing`, detail: t`Action`, to: '/mailings', words: t`new create start` },
  { name: t`Upload a template`, detail: t`Action`, to: '/templates', words: t`new add pdf form` },
  { name: t`Bring in records`, detail: t`Action`, to: '/sources', words: t`new add source sheet spreadsheet database upload` },
  { name: t`Make an intake`, detail: t`Action`, to: '/intakes', words: t`new create page questions form` },
  { name: t`Gather for the post`, detail: t`Action`, to: '/paper', words: t`print letters paper run` },
  { name: t`Wastebasket`, detail: t`Place`, to: '/wastebasket', words: t`deleted trash bin restore undo put back` },
  { name: t`Copies that bounced`, detail: t`Ledger`, to: '/ledger?state=bounced', words: t`undelivered returned mail` },
  { name: t`Copies on paper`, detail: t`Ledger`, to: '/ledger?paper=yes', words: t`post print` },
];

const places: readonly (FoundPlace & { words: string })[] = [
  { name: t`Desk`, to: '/desk' },
  { name: t`Mailings`, to: '/mailings' },
  { name: t`Templates`, to: '/templates' },
  { name: t`Sources`, to: '/sources' },
  { name: t`Intakes`, to: '/intakes' },
  { name: t`Ledger`, to: '/ledger' },
  { name: t`Paper`, to: '/paper' },
  { name: t`Help`, to: manualStart() },
].map((place) => ({ ...place, detail: t`Place`, words: '' }));

/** Most that are offered beside what is found on the server. */
const MOST = 4;

/** Places and actions in which a word begins with each word of a text. @param isAdministrator who is none finds no settings that are for administrators */
export function placesFor(text: string, isAdministrator: boolean): FoundPlace[] {
  const wanted = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return [];
  const settings = settingsPlaces
    .filter(({ forAdministrators }) => isAdministrator || !forAdministrators)
    .map(({ id, text: name }) => ({ name, detail: t`Settings`, to: `/settings/${id}`, words: 'settings' }));
  return [...places, ...actions, ...settings]
    .filter(({ name, words }) => {
      const own = `${name} ${words}`.toLowerCase().split(/\s+/);
      return wanted.every((word) => own.some((one) => one.startsWith(word)));
    })
    .slice(0, MOST)
    .map(({ name, detail, to }) => ({ name, detail, to }));
}
