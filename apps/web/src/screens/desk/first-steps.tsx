import { t } from '@mailbag/core/words';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Check, FlaskConical } from 'lucide-react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { makeSampleMailing } from '../../features/trial/sample-mailing';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Row, Small, Stack } from '../../ui/layout';
import { LinkButton } from '../../ui/link-button';
import { Notice } from '../../ui/mark';

const Steps = styled.ol`
  margin: 0;
  padding: 4px 12px 8px;
  list-style: none;
  display: grid;
  gap: 4px;
  & > li {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    padding: 8px 0;
    border-bottom: 1px solid ${color.hair};
  }
  & > li > i {
    width: 26px;
    height: 26px;
    border-radius: 50%;
    display: grid;
    place-items: center;
    font-style: normal;
    font-weight: 600;
    background: ${color.kraft};
  }
  & > li[data-done] > i {
    background: ${color.mossWash};
    color: ${color.moss};
  }
`;

/** What a new office does first, and a sample for those who have no form at hand. */
export function FirstSteps() {
  const { data: templates } = useQuery(queries.templates());
  const { data: sources } = useQuery(queries.sources());
  const client = useQueryClient();
  const navigate = useNavigate();
  const sample = useMutation({
    mutationFn: makeSampleMailing,
    onSuccess: async (id) => {
      await client.invalidateQueries();
      void navigate(`/mailings/${id}/map`);
    },
  });
  const steps = [
    {
      to: '/templates',
      does: t`Add a template`,
      why: t`a PDF form: its fields are found, or drawn on its blanks`,
      isDone: (templates?.length ?? 0) > 0,
    },
    { to: '/sources', does: t`Add records`, why: t`a workbook, a CSV file, form data or a database`, isDone: (sources?.length ?? 0) > 0 },
    { to: '/mailings', does: t`Begin a mailing`, why: t`says what goes where; the filled page is beside it`, isDone: false },
  ];
  const next = steps.findIndex(({ isDone }) => !isDone);
  return (
    <Stack $gap={8}>
      <Steps>
        {steps.map(({ to, does, why, isDone }, at) => (
          <li key={to} {...(isDone && { 'data-done': '' })}>
            <i>{isDone ? <Check size={15} aria-label={t`done`} /> : at + 1}</i>
            <div>
              <b style={{ fontWeight: 600 }}>{does}</b>
              <br />
              <Small>{why}</Small>
            </div>
            <LinkButton $small to={to} {...(at === next && { $look: 'go' as const })}>
              {does}
            </LinkButton>
          </li>
        ))}
      </Steps>
      <Row style={{ padding: '0 12px 12px', flexWrap: 'wrap' }}>
        <Small
          style={{ flex: 1 }}
        >{t`Nothing at hand? A sample form with twelve made-up records shows how it goes. Nothing is mailed.`}</Small>
        <Button changes small isDisabled={sample.isPending} onPress={() => sample.mutate()}>
          <FlaskConical size={14} />
          {sample.isPending ? t`Setting it up …` : t`Try it with a sample`}
        </Button>
      </Row>
      {sample.error && <Notice tone="brick">{sentenceOf(sample.error)}</Notice>}
    </Stack>
  );
}
