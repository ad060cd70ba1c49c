import { translated } from '@mailbag/core/words';
import type { CopyState } from '@mailbag/core';
import { Ban, CheckCheck, CircleHelp, Clock, FileCheck, FileClock, MailX, Printer, Send, SendHorizontal, Timer, Undo2 } from 'lucide-react';
import type { ComponentType } from 'react';
import type { Tone } from '../../theme';
import { Mark } from '../../ui/mark';

export const stateLooks: Record<CopyState, { tone: Tone; icon: ComponentType<{ size?: number }> }> = {
  planned: { tone: 'plain', icon: FileClock },
  made: { tone: 'slate', icon: FileCheck },
  queued: { tone: 'plain', icon: Clock },
  sending: { tone: 'plum', icon: SendHorizontal },
  sent: { tone: 'plum', icon: Send },
  retrying: { tone: 'ochre', icon: Timer },
  bounced: { tone: 'brick', icon: MailX },
  unconfirmed: { tone: 'ochre', icon: CircleHelp },
  printed: { tone: 'slate', icon: Printer },
  returned: { tone: 'lagoon', icon: Undo2 },
  complete: { tone: 'moss', icon: CheckCheck },
  withdrawn: { tone: 'plain', icon: Ban },
};

/** The state of a copy: its word with a mark. */
export function StateMark({ state }: { state: CopyState }) {
  const { tone, icon: Icon } = stateLooks[state] ?? stateLooks.planned;
  return (
    <Mark $tone={tone}>
      <Icon />
      {translated(state)}
    </Mark>
  );
}
