import { t } from '@mailbag/core/words';
import type { IntakeBoxRequest, IntakeDetail } from '@mailbag/contract';
import type { IntakeQuestion, PageSize, SeenBox } from '@mailbag/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { useState } from 'react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { DrawBox } from '../../features/page/draw-box';
import { Button } from '../../ui/button';
import { Toggled } from '../../ui/field';
import { Bar, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import type { IntakeWork } from './intake-work';

interface Props {
  work: IntakeWork;
  /** Whose answer stands in the box; null: a signature is asked for it. */
  question: IntakeQuestion | null;
  /** Id of the form that is shown. */
  template: number;
  onDone: (question: string | null) => void;
}

/** What a form needs while a box for a signature, initials or a picture is drawn on it: what lies over its pages, and what is said above them. */
export function useDrawSignature({ work: { intake, settle }, question, template, onDone }: Props): {
  over: (number: number, size: PageSize, scale: number) => ReactNode;
  head: ReactNode;
} {
  const [drawn, setDrawn] = useState<{ page: number; box: SeenBox } | null>(null);
  const [everyPage, setEveryPage] = useState(false);
  const [dated, setDated] = useState(false);
  const client = useQueryClient();
  const put = useMutation({
    mutationFn: async (body: IntakeBoxRequest) => {
      await settle();
      return api.post<IntakeDetail>(`/api/intakes/${intake.id}/boxes`, body);
    },
    onSuccess: async (told) => {
      const before = new Set(Object.keys(intake.plan.questions));
      client.setQueryData(queries.intake(intake.id).queryKey, told);
      await Promise.all(['mailings', 'templates'].map((name) => client.invalidateQueries({ queryKey: [name] })));
      onDone(question?.id ?? Object.keys(told.plan.questions).find((id) => !before.has(id)) ?? null);
    },
  });
  const name = intake.templates.find(({ id }) => id === template)?.name ?? t`the form`;
  const words = question?.words || t`Signature`;
  return {
    over: (number, size, scale) => (
      <DrawBox
        number={number}
        size={size}
        scale={scale}
        box={drawn && (drawn.page === number || everyPage) ? drawn.box : null}
        label={words}
        onBox={(box) => setDrawn({ page: number, box })}
      />
    ),
    head: (
      <Stack $gap={0} role="group" aria-label={t`A box for it`}>
        <Bar>
          <Small role="status">
            {drawn
              ? t`“${words}” stands here. Writing it makes another revision of “${name}”.`
              : t`Click on the page where it should stand.`}
          </Small>
          <div className="fill" />
          <Button small onPress={() => onDone(question?.id ?? null)}>{t`Cancel`}</Button>
          <Button
            small
            look="go"
            changes
            isDisabled={!drawn || put.isPending}
            onPress={() => drawn && put.mutate({ question: question?.id ?? null, template, ...drawn, everyPage, dated })}
          >
            {put.isPending ? t`Writing it …` : t`Put it there`}
          </Button>
        </Bar>
        <Bar>
          <Toggled label={t`On every page`} value={everyPage} onChange={setEveryPage} />
          <Toggled label={t`With the date beside it`} value={dated} onChange={setDated} />
        </Bar>
        {put.error && <Notice tone="brick">{sentenceOf(put.error)}</Notice>}
      </Stack>
    ),
  };
}
