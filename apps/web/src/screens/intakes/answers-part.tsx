import type { IntakeDetail } from '@mailbag/contract';
import { orderedQuestions } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { count, counted, when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Bar, Empty, Facts, Pane, Scroll, Small, Split } from '../../ui/layout';
import { FileButton, LinkButton } from '../../ui/link-button';
import { Loading } from '../../ui/loading';
import { Mark } from '../../ui/mark';
import { Table } from '../../ui/table';
import { AnswerChanges } from './answer-changes';

const ON_PAGE = 100;
const Picked = styled.tr`
  cursor: pointer;
  &[data-chosen] td {
    background: ${color.plumWash};
  }
`;

/** What people have answered, the newest first; one of them beside. */
export function AnswersPart({ intake }: { intake: IntakeDetail }) {
  const [from, setFrom] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const { data, error } = useQuery(queries.submissions(intake.id, from, ON_PAGE));
  if (error && !data) return <Empty title="The answers cannot be shown">{sentenceOf(error)}</Empty>;
  if (!data) return <Loading what="answers" />;
  if (data.total === 0)
    return (
      <Empty
        title="Nobody has answered yet"
        action={
          intake.isPublished ? (
            <FileButton href={`/in/${intake.word}`} target="_blank" rel="noreferrer">
              Open the page
            </FileButton>
          ) : undefined
        }
      >
        {intake.isPublished ? `Whoever opens /in/${intake.word} can answer.` : 'Publish the page, and its answers are listed here.'}
      </Empty>
    );
  const questions = orderedQuestions(intake.plan).filter(({ kind, isAway }) => !isAway && kind !== 'signature' && kind !== 'image');
  const told = questions.filter(({ column }) => data.lines.some(({ values }) => (values[column] ?? '') !== '')).slice(0, 3);
  const line = data.lines.find(({ id }) => id === chosen) ?? data.lines[0]!;
  return (
    <Split $columns="minmax(0, 3fr) minmax(320px, 2fr)">
      <Pane aria-label="Answers">
        <Bar>
          <Small>{counted(data.total, 'answer')}</Small>
          {data.total > ON_PAGE && (
            <>
              <Button small isDisabled={from === 0} onPress={() => setFrom(Math.max(0, from - ON_PAGE))}>
                Newer
              </Button>
              <Button small isDisabled={from + ON_PAGE >= data.total} onPress={() => setFrom(from + ON_PAGE)}>
                Older
              </Button>
            </>
          )}
          <div className="fill" />
          <LinkButton $small to={`/sources/${intake.sourceId}`}>
            As a source
          </LinkButton>
          <FileButton $small href={`/api/sources/${intake.sourceId}/records.csv`}>
            CSV
          </FileButton>
          <FileButton $small href={`/api/sources/${intake.sourceId}/records.xlsx`}>
            XLSX
          </FileButton>
        </Bar>
        <Scroll>
          <Table aria-label="Answers">
            <thead>
              <tr>
                <th>Received</th>
                <th>Number</th>
                <th>Copies</th>
                {told.map(({ id, words }) => (
                  <th key={id}>{words.slice(0, 28)}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data.lines.map((one) => (
                <Picked key={one.id} data-chosen={one.id === line.id || undefined} onClick={() => setChosen(one.id)}>
                  <td>{when(one.receivedAt)}</td>
                  <td className="mono">
                    <Button small look="bare" aria-label={`Show the answer ${one.number}`} onPress={() => setChosen(one.id)}>
                      {one.number}
                    </Button>
                  </td>
                  <td>
                    {one.copies > 0 ? (
                      <Link to={`/ledger?text=${encodeURIComponent(one.number)}`}>{count(one.copies)}</Link>
                    ) : (
                      <Mark $tone="ochre">none yet</Mark>
                    )}{' '}
                    {one.settled === 'open' && <Mark $tone="ochre">corrects</Mark>}
                  </td>
                  {told.map(({ id, column }) => (
                    <td key={id}>{one.values[column]}</td>
                  ))}
                </Picked>
              ))}
            </tbody>
          </Table>
        </Scroll>
      </Pane>
      <Pane aria-label={`Answer ${line.number}`}>
        <Bar>
          <b className="mono">{line.number}</b>
          <Small>
            {when(line.receivedAt)} · {line.language}
          </Small>
          <div className="fill" />
          {line.copies === 0 && (
            <LinkButton $small to={`/mailings/${intake.mailingId}/checks`}>
              Why no copies?
            </LinkButton>
          )}
        </Bar>
        <Scroll style={{ padding: '10px 14px' }}>
          <AnswerChanges key={line.id} intakeId={intake.id} line={line} />
          <Facts $names="40%">
            {questions.map(({ id, words, column }) =>
              Object.hasOwn(line.values, column) ? (
                <div key={id} style={{ display: 'contents' }}>
                  <dt>{words}</dt>
                  <dd>{line.values[column] || <Small>not answered</Small>}</dd>
                </div>
              ) : null,
            )}
          </Facts>
        </Scroll>
      </Pane>
    </Split>
  );
}
