import { t } from '@mailbag/core/words';
import type { IntakeDetail } from '@mailbag/contract';
import type { IntakePlan } from '@mailbag/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { Button } from '../../ui/button';
import { TextInput } from '../../ui/field';
import { Pane, Row, Scroll, Small, Stack } from '../../ui/layout';
import { Split } from '../../ui/split';
import { Notice } from '../../ui/mark';
import type { IntakeWork } from './intake-work';
import { OpeningSettings } from './opening-settings';
import { PersonalSettings } from './personal-settings';
import { PictureSetting } from './picture-setting';
import { Share, Sites } from './share';
import { VisitorFrame } from './visitor-frame';

const Settings = styled(Stack)`
  padding: 14px 16px 20px;
  max-width: 560px;
`;

/** What stands around the questions, where the page is reached, and when it takes answers. */
export function PagePart({ work }: { work: IntakeWork }) {
  const { document: plan, change, intake } = work;
  const set = (next: Partial<IntakePlan>): void => change((before) => ({ ...before, ...next }));
  const open = (next: Partial<IntakePlan['opening']>): void => change((before) => ({ ...before, opening: { ...before.opening, ...next } }));
  return (
    <Split $columns="minmax(420px, 9fr) minmax(0, 8fr)">
      <Pane aria-label={t`Page`}>
        <Scroll>
          <Settings>
            <TextInput label={t`Name, for the office`} value={plan.name} onChange={(name) => name.trim() !== '' && set({ name })} />
            <TextInput label={t`Heading of the page`} value={plan.title} onChange={(title) => set({ title })} />
            <TextInput
              label={t`Before the first question`}
              rows={4}
              value={plan.intro}
              placeholder={t`What it is about, and what to have at hand`}
              onChange={(intro) => set({ intro })}
            />
            <PictureSetting work={work} />
            <Address intake={intake} />
            <Share intake={intake} />
            <Sites sites={plan.opening.sites} onChange={(sites) => open({ sites })} />
            <OpeningSettings work={work} />
            {plan.personal && <PersonalSettings work={work} personal={plan.personal} />}
          </Settings>
        </Scroll>
      </Pane>
      <Pane aria-label={t`The page`}>
        <VisitorFrame work={work} />
      </Pane>
    </Split>
  );
}

/** Milliseconds without a key after which it is asked whether a word is free. */
const CALM = 300;

function Address({ intake }: { intake: IntakeDetail }) {
  const [word, setWord] = useState(intake.word);
  const [asked, setAsked] = useState(intake.word);
  const client = useQueryClient();
  useEffect(() => setWord(intake.word), [intake.word]);
  useEffect(() => {
    const timer = setTimeout(() => setAsked(word), CALM);
    return () => clearTimeout(timer);
  }, [word]);
  const isOwn = word === intake.word;
  const { error, isFetching } = useQuery({
    queryKey: ['intake-word', intake.id, asked],
    queryFn: () => api.get<null>(`/api/intakes/${intake.id}/words/${encodeURIComponent(asked || ' ')}`).then(() => true),
    enabled: asked !== intake.word,
    retry: false,
  });
  const take = useMutation({
    mutationFn: () => api.put<IntakeDetail>(`/api/intakes/${intake.id}/word`, { word }),
    onSuccess: (told) => {
      client.setQueryData(queries.intake(intake.id).queryKey, told);
      void client.invalidateQueries({ queryKey: ['intakes'] });
    },
  });
  const isAsked = asked === word && !isFetching;
  const fault = isOwn ? null : isAsked && error ? sentenceOf(error) : null;
  const isFree = !isOwn && isAsked && !error;
  return (
    <Stack $gap={4}>
      <Row style={{ alignItems: 'end' }}>
        <div style={{ flex: 1 }}>
          <TextInput
            label={t`Address: ${window.location.origin}/in/`}
            mono
            value={word}
            onChange={(text) => setWord(text.toLowerCase().replaceAll(' ', '-'))}
            error={fault}
            help={
              isFree
                ? t`This word is available.`
                : isOwn
                  ? t`It stays the same whatever changes in the forms.`
                  : t`Checking whether it is available …`
            }
          />
        </div>
        {!isOwn && <Button changes isDisabled={!isFree || take.isPending} onPress={() => take.mutate()}>{t`Use this word`}</Button>}
      </Row>
      {intake.earlierWords.length > 0 && (
        <Small>{t`Earlier words lead here too: ${intake.earlierWords.map((one) => `/in/${one}`).join(', ')}`}</Small>
      )}
      {take.error && <Notice tone="brick">{sentenceOf(take.error)}</Notice>}
    </Stack>
  );
}
