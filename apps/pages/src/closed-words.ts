import type { PublicPage } from './api';
import type { Language, Say } from './words';

/** Why a page takes no answers, since or until when, and whom to ask. */
export function closedWords({ why, at }: NonNullable<PublicPage['closed']>, contact: string, language: Language, say: Say): string {
  const day = at === '' ? '' : new Date(at).toLocaleString(language, { dateStyle: 'long', timeStyle: 'short' });
  const reason = why === 'full' ? say('closedFull') : say(why === 'not-yet' ? 'closedFrom' : 'closedUntil', { day });
  return [say('closed'), reason, ...(contact.trim() === '' ? [] : [say('closedAsk', { contact: contact.trim() })])].join(' ');
}
