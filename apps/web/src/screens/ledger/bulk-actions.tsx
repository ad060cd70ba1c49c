import { counted, plural, t } from '@mailbag/core/words';
import type { BulkAction, CopyRow, ManyCopiesAnswer } from '@mailbag/contract';
import type { CopyState } from '@mailbag/core';
import { copyLaw } from '@mailbag/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, sentenceOf } from '../../api/client';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { Small } from '../../ui/layout';

interface Words {
  /** On the button, with the count. */
  verb: (count: string) => string;
  done: (count: string) => string;
  /** What is asked before; null: it can be taken back. */
  ask: { title: (count: string) => string; text: string; yes: string; look: 'go' | 'danger' } | null;
}
const actions: Record<Exclude<BulkAction, 'off-paper'>, Words> = {
  'send-again': {
    verb: (n) => t`Send ${n} again`,
    done: (n) => t`${n} are queued again.`,
    ask: {
      title: (n) => t`Send ${n} again?`,
      text: t`Each goes to the address it has, as a new message. A message that has gone out cannot be called back.`,
      yes: t`Send again`,
      look: 'go',
    },
  },
  'confirm-sent': {
    verb: (n) => t`${n} were sent`,
    done: (n) => t`${n} are settled as sent.`,
    ask: {
      title: (n) => t`Did ${n} arrive?`,
      text: t`They are settled as sent on your word. This cannot be taken back.`,
      yes: t`They were sent`,
      look: 'go',
    },
  },
  'to-paper': { verb: (n) => t`${n} to paper`, done: (n) => t`${n} wait for a print run.`, ask: null },
  withdraw: {
    verb: (n) => t`Withdraw ${n}`,
    done: (n) => t`${n} are withdrawn.`,
    ask: {
      title: (n) => t`Withdraw ${n}?`,
      text: t`They stay in the ledger as withdrawn and are not sent any more. This cannot be taken back.`,
      yes: t`Withdraw`,
      look: 'danger',
    },
  },
};
const ableStates: Record<keyof typeof actions, readonly string[]> = {
  'send-again': ['bounced', 'unconfirmed'],
  'confirm-sent': ['unconfirmed'],
  'to-paper': ['made', 'bounced'],
  withdraw: copyLaw.withdraw.from,
};

/** How many of some copies are in each state. */
export const statesOf = (copies: readonly Pick<CopyRow, 'state'>[]): Partial<Record<CopyState, number>> =>
  copies.reduce<Partial<Record<CopyState, number>>>((counts, { state }) => ({ ...counts, [state]: (counts[state] ?? 0) + 1 }), {});

interface Props {
  /** All copies that a filter leaves, or those that are named. */
  meant: { filter: Record<string, unknown>; ids?: never } | { ids: readonly number[]; filter?: never };
  byState: Partial<Record<CopyState, number>>;
  /** The state to which the filter holds; null: to none. */
  state: string | null;
}

/** The same with many copies: how many it can happen to is told before. */
export function BulkActions({ meant, byState, state }: Props) {
  const client = useQueryClient();
  const run = useMutation({
    mutationFn: ({ action, ids }: { action: BulkAction; ids?: number[] }) =>
      api.post<ManyCopiesAnswer>('/api/copies/many', ids ? { action, ids } : { action, ...meant }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['copies'] }),
  });
  // What was set aside on our side is made, but was meant to be mailed.
  const isSetAside = meant.filter?.trouble === 'our side';
  const able = (action: keyof typeof actions): number =>
    [...ableStates[action], ...(isSetAside && action === 'send-again' ? ['made'] : [])]
      .filter((one) => state === null || one === state)
      .reduce((sum, one) => sum + (byState[one as CopyState] ?? 0), 0);
  const last = run.variables?.action;
  const shown = (Object.keys(actions) as (keyof typeof actions)[]).filter(
    (action) => able(action) > 0 && (action !== 'withdraw' || meant.ids !== undefined || Object.keys(meant.filter).length > 0),
  );
  return (
    <>
      {shown.map((action) => {
        const { verb, ask } = actions[action];
        const words = counted(able(action), 'copy', 'copies');
        const button = (
          <Button
            changes
            small
            look={action === 'withdraw' ? 'danger' : 'plain'}
            isDisabled={run.isPending}
            {...(ask ? {} : { onPress: () => run.mutate({ action }) })}
          >
            {verb(words)}
          </Button>
        );
        return ask ? (
          <Confirm key={action} title={ask.title(words)} text={ask.text} yes={ask.yes} look={ask.look} onYes={() => run.mutate({ action })}>
            {button}
          </Confirm>
        ) : (
          <span key={action}>{button}</span>
        );
      })}
      {run.isPending && <Small role="status">{t`Working …`}</Small>}
      {run.data && last && (
        <Small role="status">
          {last === 'off-paper'
            ? t`${plural(run.data.done, 'copy', 'copies')} taken out again.`
            : actions[last].done(counted(run.data.done, 'copy', 'copies'))}
          {run.data.meant > run.data.done &&
            t` ${plural(run.data.meant - run.data.done, 'other was', 'others were')} in a state that does not allow it.`}{' '}
          {run.data.undo && <Button changes small look="bare" onPress={() => run.mutate(run.data!.undo!)}>{t`Undo`}</Button>}
        </Small>
      )}
      {run.error && <Small style={{ color: color.brick }}>{sentenceOf(run.error)}</Small>}
    </>
  );
}
