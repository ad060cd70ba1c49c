import { counted, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { SubmissionLine } from '@mailbag/contract';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, sentenceOf } from '../../api/client';
import { Button } from '../../ui/button';
import { Toggled } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { Mark, Notice } from '../../ui/mark';
import { Table } from '../../ui/table';

interface Props {
  intakeId: number;
  line: SubmissionLine;
}

/** What a recipient corrected by their personal link: old and new value beside each other, to be taken over or left aside. */
export function AnswerChanges({ intakeId, line }: Props) {
  const { id, copyCode, changes, settled } = line;
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const client = useQueryClient();
  const settle = useMutation({
    mutationFn: (accepted: string[]) => api.post(`/api/intakes/${intakeId}/submissions/${id}/settle`, { accepted }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['intakes'] }),
  });
  if (copyCode === null) return null;
  const wanted = changes.map(({ column }) => column).filter((column) => !left.has(column));
  return (
    <Stack $gap={8} style={{ marginBottom: 14 }}>
      <Row>
        <Small>{phrase`Answered by the personal link of ${(<Link to={`/ledger?text=${copyCode}`}>{copyCode}</Link>)}`}</Small>
        {settled === 'open' && <Mark $tone="ochre">{counted(changes.length, 'correction waits', 'corrections wait')}</Mark>}
        {settled === 'accepted' && <Mark $tone="moss">{t`taken over`}</Mark>}
        {settled === 'refused' && <Mark $tone="slate">{t`not taken over`}</Mark>}
      </Row>
      {changes.length === 0 ? (
        <Small>{t`What the records say was right.`}</Small>
      ) : (
        <Table aria-label={t`Corrections`}>
          <thead>
            <tr>
              <th>{settled === 'open' ? t`Take over` : t`Column`}</th>
              <th>{t`Was`}</th>
              <th>{t`Would be`}</th>
            </tr>
          </thead>
          <tbody>
            {changes.map(({ column, was, now }) => (
              <tr key={column}>
                <td>
                  {settled === 'open' ? (
                    <Toggled
                      label={column}
                      value={!left.has(column)}
                      onChange={(isWanted) => setLeft(new Set(isWanted ? [...left].filter((one) => one !== column) : [...left, column]))}
                    />
                  ) : (
                    column
                  )}
                </td>
                <td>{was || <Small>{t`empty`}</Small>}</td>
                <td>
                  <b>{now || t`empty`}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {settled === 'open' && (
        <Row>
          <Button changes look="go" isDisabled={settle.isPending || wanted.length === 0} onPress={() => settle.mutate(wanted)}>
            {wanted.length === changes.length ? t`Take over` : t`Take over ${wanted.length} of ${changes.length}`}
          </Button>
          <Button changes isDisabled={settle.isPending} onPress={() => settle.mutate([])}>{t`Leave the records as they are`}</Button>
        </Row>
      )}
      {settle.error && <Notice tone="brick">{sentenceOf(settle.error)}</Notice>}
    </Stack>
  );
}
