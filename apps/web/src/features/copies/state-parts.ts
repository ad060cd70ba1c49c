import { translated } from '@mailbag/core/words';
import type { CopyState } from '@mailbag/core';
import { color, tones } from '../../theme';
import { stateLooks } from './state-mark';

/** The order in which states stand in bars: what is furthest comes first. */
export const barOrder: CopyState[] = [
  'complete',
  'returned',
  'printed',
  'sent',
  'unconfirmed',
  'retrying',
  'bounced',
  'sending',
  'queued',
  'made',
  'withdrawn',
];

export const stateColor = (state: CopyState): string =>
  state === 'queued' || state === 'sending' ? color.kraftDeep : state === 'made' ? '#A9B4BE' : tones[stateLooks[state].tone].ink;

/** Parts of a bar from copies by state. */
export const stateParts = (counts: Record<string, number>) =>
  barOrder
    .filter((state) => counts[state])
    .map((state) => ({ name: translated(state), share: counts[state] ?? 0, color: stateColor(state) }));
