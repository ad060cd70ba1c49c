import type { IntakePlan } from '@mailbag/core/intake';
import type { PublicPage } from './api';
import type { Language, Say } from './words';

/** Parts of a time; a name of its zone cannot stand beside styles. */
const DAY = { year: 'numeric', month: 'long', day: 'numeric', hour: '2-digit', minute: '2-digit' } as const;

/** Why a page takes no answers, since or until when, and whom to ask. */
export function closedWords(
  { why, at }: NonNullable<PublicPage['closed']>,
  { contact, zone }: Pick<IntakePlan['opening'], 'contact' | 'zone'>,
  language: Language,
  say: Say,
): string {
  const day = at === '' ? '' : new Date(at).toLocaleString(language, zone ? { ...DAY, timeZone: zone, timeZoneName: 'short' } : DAY);
  const reason = why === 'full' ? say('closedFull') : say(why === 'not-yet' ? 'closedFrom' : 'closedUntil', { day });
  return [say('closed'), reason, ...(contact.trim() === '' ? [] : [say('closedAsk', { contact: contact.trim() })])].join(' ');
}
