import { plural, t } from '@mailbag/core/words';
import type { RevisionUse, TakeOverAnswer } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { Button } from '../../ui/button';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';

interface Target {
  templateId: number;
  revisionId: number;
  number: number;
  pairs: readonly { old: string; new: string }[];
}

/** A mailing that fills an older revision: what would go on in the new one, and the step there and back. */
export function RevisionMailing({ use, target }: { use: RevisionUse; target: Target }) {
  const { data: mailing } = useQuery(queries.mailing(use.id));
  const client = useQueryClient();
  const [done, setDone] = useState<TakeOverAnswer | null>(null);
  const refresh = (): Promise<unknown> =>
    Promise.all([client.invalidateQueries({ queryKey: ['mailings'] }), client.invalidateQueries({ queryKey: ['templates'] })]);
  const goOver = useMutation({
    mutationFn: () =>
      api.post<TakeOverAnswer>(`/api/mailings/${use.id}/revision`, {
        templateId: target.templateId,
        revisionId: target.revisionId,
        pairs: target.pairs,
      }),
    onSuccess: (answer) => {
      setDone(answer);
      void refresh();
    },
  });
  const goBack = useMutation({
    mutationFn: () => api.post<TakeOverAnswer>(`/api/mailings/${use.id}/revision`, { templateId: target.templateId, ...done!.before }),
    onSuccess: () => {
      setDone(null);
      void refresh();
    },
  });
  const mapped = mailing ? Object.keys(mailing.plan.maps[target.templateId] ?? {}) : [];
  const matched = mapped.filter((field) => target.pairs.some(({ old }) => old === field)).length;
  const error = goOver.error ?? goBack.error;
  return (
    <Stack $gap={6}>
      <Row>
        <Link to={`/mailings/${use.id}/map`} style={{ flex: 1, minWidth: 0 }}>
          {use.name}
        </Link>
        {done ? (
          <Button changes small isDisabled={goBack.isPending} onPress={() => goBack.mutate()}>{t`Undo`}</Button>
        ) : (
          <Button changes look="go" small isDisabled={!mailing || goOver.isPending} onPress={() => goOver.mutate()}>{t`Take over`}</Button>
        )}
      </Row>
      {error && <Notice tone="brick">{sentenceOf(error)}</Notice>}
      {done ? (
        <Notice tone={done.lost.length > 0 ? 'ochre' : 'moss'}>
          {t`It fills revision ${target.number} now: ${plural(done.carried, 'rule')} went along.`}
          {done.lost.length > 0 && t` Without a field: ${done.lost.join(', ')}.`}
          {done.open > 0 && t` ${plural(done.open, 'field')} of the new edition ${done.open === 1 ? t`has` : t`have`} no rule yet.`}
        </Notice>
      ) : (
        mailing && (
          <Small>
            {matched === mapped.length
              ? t`All of its ${plural(mapped.length, 'rule')} go along.`
              : t`${matched} of ${plural(mapped.length, 'rule')} go along; ${mapped.length - matched} ${mapped.length - matched === 1 ? t`has` : t`have`} no field any more.`}
          </Small>
        )
      )}
    </Stack>
  );
}
