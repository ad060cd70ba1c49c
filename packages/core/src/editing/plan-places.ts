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
  if (first === 'maps') return `the rule of “${third || second}”`;
  if (first === 'conditions') return 'who gets a template of the packet';
  if (first === 'counts') return 'how many copies of a template a record gets';
  if (first === 'checks') return second === 'columns' ? `the checks of “${third}”` : 'the checks';
  const words: Record<string, string> = {
    name: 'the name of the mailing',
    packet: 'the packet',
    sourceId: 'the records',
    keyColumn: 'the key column',
    leftOut: 'the records that are left out',
    'output.folder': 'the folder',
    'output.file': 'the file name',
    'output.finish': 'what becomes of the fields',
    'output.stamp': 'the copy code on the paper',
    'output.pictures': 'the pictures',
    'output.openPassword': 'the password that opens copies',
    'output.permissionsPassword': 'the permissions password',
    'message.subject': 'the subject',
    'message.body': 'the message',
    'message.recipient': 'the recipient’s name',
    'message.addressColumn': 'the column of addresses',
    'message.reminder': 'the reminder',
    'message.reminder.subject': 'the subject of the reminder',
    'message.reminder.body': 'the text of the reminder',
    paper: 'the postal address',
  };
  for (let length = place.length; length > 0; length--) {
    const known = words[place.slice(0, length).join('.')];
    if (known) return known;
  }
  return first === 'message' ? 'a setting of the message' : first === 'output' ? 'a setting of the output' : 'a setting';
}
