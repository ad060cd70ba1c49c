import { t } from '../words/words.js';
import type { IsWhole } from './changes.js';

/** What of a mailing's plan is changed as a whole: a fill rule, a condition, a count of copies, the setting of a check, an extra file, and what may be there or not. */
export const isWholeInPlan: IsWhole = (place) =>
  (place[0] === 'maps' && place.length === 3) ||
  (place[0] === 'conditions' && place.length === 2) ||
  (place[0] === 'counts' && place.length === 2) ||
  (place[0] === 'checks' && place[1] === 'columns' && place.length === 4);

/** How a place of a plan is called on the screen. */
export function planPlaceWords(place: readonly string[]): string {
  const [first = '', second = '', third = ''] = place;
  if (first === 'maps') return t`the rule of “${third || second}”`;
  if (first === 'conditions') return t`who gets a template of the packet`;
  if (first === 'counts') return t`how many copies of a template a record gets`;
  if (first === 'checks') return second === 'columns' ? t`the checks of “${third}”` : t`the checks`;
  const words: Record<string, string> = {
    name: t`the name of the mailing`,
    packet: t`the packet`,
    sourceId: t`the records`,
    keyColumn: t`the key column`,
    leftOut: t`the records that are left out`,
    'output.folder': t`the folder`,
    'output.file': t`the file name`,
    'output.finish': t`what becomes of the fields`,
    'output.stamp': t`the copy code on the paper`,
    'output.pictures': t`the pictures`,
    'output.openPassword': t`the password that opens copies`,
    'output.permissionsPassword': t`the permissions password`,
    'message.subject': t`the subject`,
    'message.body': t`the message`,
    'message.recipient': t`the recipient’s name`,
    'message.addressColumn': t`the column of addresses`,
    'message.reminder': t`the reminder`,
    'message.reminder.subject': t`the subject of the reminder`,
    'message.reminder.body': t`the text of the reminder`,
    paper: t`the postal address`,
  };
  for (let length = place.length; length > 0; length--) {
    const known = words[place.slice(0, length).join('.')];
    if (known) return known;
  }
  return first === 'message' ? t`a setting of the message` : first === 'output' ? t`a setting of the output` : t`a setting`;
}
