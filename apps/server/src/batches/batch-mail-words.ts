import type { CopyState } from '@mailbag/core';

/** What a mail tells of a batch that ended. `took`: milliseconds; `reason`: why it is paused, in English; null: somebody paused it. */
export interface BatchEnd {
  number: number;
  mailingName: string;
  isPaused: boolean;
  took: number;
  counts: Partial<Record<CopyState, number>>;
  reason: string | null;
}
interface Mail {
  subject: string;
  text: string;
}

/** How long something took, in words. @param ms milliseconds @param words a minute, minutes and hours */
export function durationWords(ms: number, [minute, minutes, hours] = ['a minute', 'minutes', 'hours']): string {
  const count = Math.round(ms / 60_000);
  if (count < 2) return minute!;
  return count < 120 ? `${count} ${minutes}` : `${Math.round(count / 60)} ${hours}`;
}

const paragraphs = (...lines: (string | null)[]): string => lines.filter(Boolean).join('\n\n');
const countsIn = (locale: string, { counts }: BatchEnd, words?: Record<string, string>): string | null =>
  Object.entries(counts)
    .filter(([, count]) => count > 0)
    .map(([state, count]) => `${count.toLocaleString(locale)} ${words?.[state] ?? state}`)
    .join(', ') || null;

const germanStates: Record<CopyState, string> = {
  planned: 'geplant',
  made: 'erstellt',
  queued: 'eingereiht',
  sending: 'wird gesendet',
  sent: 'gesendet',
  retrying: 'neuer Versuch',
  bounced: 'unzustellbar',
  unconfirmed: 'ungewiss',
  printed: 'gedruckt',
  returned: 'zurückgekommen',
  complete: 'abgeschlossen',
  withdrawn: 'zurückgezogen',
};

const languages: Record<'en' | 'de', (batch: BatchEnd) => Mail> = {
  en(batch) {
    const [name, counts] = [`Batch ${batch.number} of ${batch.mailingName}`, countsIn('en', batch)];
    const why = 'You get this because you started the batch. You can change that in Mailbag under Settings, Your account.';
    return batch.isPaused
      ? {
          subject: `${name} is paused`,
          text: paragraphs(`${name} is paused: ${batch.reason ?? 'somebody paused it.'}`, counts && `So far: ${counts}.`, why),
        }
      : {
          subject: `${name} is done`,
          text: paragraphs(`${name} is done. It took ${durationWords(batch.took)}.`, counts && `${counts}.`, why),
        };
  },
  de(batch) {
    const [name, counts] = [`Stapel ${batch.number} von ${batch.mailingName}`, countsIn('de', batch, germanStates)];
    const why =
      'Sie bekommen diese Nachricht, weil Sie den Stapel begonnen haben. In Mailbag können Sie das unter Einstellungen, Ihr Konto ändern.';
    const took = durationWords(batch.took, ['eine Minute', 'Minuten', 'Stunden']);
    return batch.isPaused
      ? {
          subject: `${name} ist angehalten`,
          text: paragraphs(
            batch.reason === null
              ? `${name} ist angehalten: Jemand hat ihn angehalten.`
              : `${name} ist angehalten. Was geschehen ist, steht in Mailbag bei diesem Stapel.`,
            counts && `Bisher: ${counts}.`,
            why,
          ),
        }
      : { subject: `${name} ist fertig`, text: paragraphs(`${name} ist fertig. Es dauerte ${took}.`, counts && `${counts}.`, why) };
  },
};

/** The mail to whoever started a batch. @param language theirs (ISO 639-1); one that is not spoken, or none: English */
export const batchMail = (language: string, batch: BatchEnd): Mail => (language === 'de' ? languages.de : languages.en)(batch);
