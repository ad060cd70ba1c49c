import { t, translated } from '@mailbag/core/words';
import type { HistoryLine, Role } from '@mailbag/contract';
import { partsWords } from '../../features/mailing/parts-words';

/** What stands between the things that a line is about. */
const BETWEEN = ' · ';
/** Behind what was done more than once in a short while. */
const TIMES = / \((\d+) times\)$/;

const roles: Record<Role, true> = { administrator: true, operator: true, viewer: true };

/** What somebody did, and to what. Names stay as they are. */
export const actionWords = ({ action, subject }: Pick<HistoryLine, 'action' | 'subject'>): string =>
  [translated(action), subject.split(BETWEEN).map(subjectWords).join(BETWEEN)].filter(Boolean).join(': ');

/** Only what has words of Mailbag's own about it: “number 7”, “3 copies”; a mailing that is called “Map” is called so. */
const subjectWords = (text: string): string => (/\d|^an unknown address$/.test(text) ? translated(text) : text);

/** What else a line knows: the parts of a mailing that were changed, where something leads now, whose role it was. */
export function aboutWords({ action, detail }: Pick<HistoryLine, 'action' | 'detail'>): string {
  if (detail === null) return '';
  const times = Number(TIMES.exec(detail)?.[1] ?? 1);
  const once = detail.replace(TIMES, '');
  const words = action === 'changed a mailing' ? changedParts(once) : once.split(BETWEEN).map(pieceWords).join(BETWEEN);
  return times > 1 ? `${words} (${t`${times} times`})` : words;
}

const pieceWords = (text: string): string => (Object.hasOwn(roles, text) || text.startsWith('from network ') ? translated(text) : text);

/** Parts of a mailing by what they are called, one after another. */
function changedParts(text: string): string {
  const whole = translated(text);
  return whole === text ? partsWords(text.split(', ')) : whole;
}
