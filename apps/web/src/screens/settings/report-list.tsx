import { t } from '@mailbag/core/words';
import { detailText } from '@mailbag/core';
import type { IncomingReport } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { ListLine, Padded } from '../../ui/columns';
import { Row, Small, Stack } from '../../ui/layout';
import { Mark, Notice } from '../../ui/mark';

const kinds: Record<IncomingReport['kind'], { text: string; tone: 'brick' | 'ochre' | 'moss' | 'slate' }> = {
  bounce: { text: t`bounce`, tone: 'brick' },
  delay: { text: t`delay`, tone: 'ochre' },
  delivered: { text: t`delivered`, tone: 'moss' },
  answer: { text: t`automatic answer`, tone: 'slate' },
  other: { text: t`no report`, tone: 'slate' },
  unreadable: { text: t`unreadable`, tone: 'ochre' },
};

/** What the mark beside a report says. */
function ReportMark({ kind, doubt, settled }: IncomingReport) {
  if (doubt && settled === null) return <Mark $tone="ochre">{t`to decide`}</Mark>;
  if (settled === 'dismissed') return <Mark $tone="slate">{t`dismissed`}</Mark>;
  return <Mark $tone={kinds[kind].tone}>{kinds[kind].text}</Mark>;
}

/** What came to the bounce mailbox last. What could have been written by anybody waits for a person's word. */
export function ReportList() {
  const client = useQueryClient();
  const { data: reports } = useQuery(queries.reports());
  const settle = useMutation({
    mutationFn: ({ id, isBounce }: { id: number; isBounce: boolean }) => api.post(`/api/bounces/reports/${id}`, { isBounce }),
    onSuccess: () => {
      for (const queryKey of [queries.reports().queryKey, ['desk'], ['copies']]) void client.invalidateQueries({ queryKey });
    },
  });
  return (
    <Padded style={{ gap: 4 }}>
      <h2>{t`Latest reports`}</h2>
      {settle.error && <Notice tone="brick">{sentenceOf(settle.error)}</Notice>}
      {reports?.length === 0 && (
        <Small>{t`Nothing yet. Bounces, delays and automatic answers are listed here, and told in the story of their copy.`}</Small>
      )}
      <Stack $gap={0}>
        {reports?.slice(0, 40).map((one) => (
          <ListLine key={one.id} actions={<ReportMark {...one} />}>
            {one.copyId ? (
              <Link to={`/ledger?copy=${one.copyId}`}>{one.subject || one.sender}</Link>
            ) : (
              one.subject || one.sender || t`A message`
            )}
            <div>
              <Small>
                {when(one.at)} · {one.detail === null ? one.sender : detailText(one.detail)}
              </Small>
            </div>
            {one.doubt && one.settled === null && (
              <>
                <Small style={{ color: color.ochre }}>{t`${detailText(one.doubt)} Did the copy bounce?`}</Small>
                <Row style={{ paddingTop: 4 }}>
                  <Button
                    changes
                    small
                    isDisabled={settle.isPending}
                    onPress={() => settle.mutate({ id: one.id, isBounce: true })}
                  >{t`It bounced`}</Button>
                  <Button
                    changes
                    small
                    isDisabled={settle.isPending}
                    onPress={() => settle.mutate({ id: one.id, isBounce: false })}
                  >{t`It did not`}</Button>
                </Row>
              </>
            )}
            {!one.copyId && one.kind !== 'other' && one.kind !== 'unreadable' && (
              <Small style={{ color: color.ochre }}>{t`It is not about any of our copies.`}</Small>
            )}
          </ListLine>
        ))}
      </Stack>
    </Padded>
  );
}
