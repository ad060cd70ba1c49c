import { count, counted, t } from '@mailbag/core/words';
import type { IntakeDetail } from '@mailbag/contract';
import { orderedQuestions } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Pane, Scroll, Small } from '../../ui/layout';
import { Split } from '../../ui/split';
import { FileButton, LinkButton } from '../../ui/link-button';
import { Loading } from '../../ui/loading';
import { Mark } from '../../ui/mark';
import { Table } from '../../ui/table';
import { AnswerPane } from './answer-pane';

const ON_PAGE = 100;
const filters = { all: t`all answers`, 'without-copies': t`without copies`, corrects: t`that correct records` };
const Picked = styled.tr`
  cursor: pointer;
  td {
    vertical-align: middle;
  }
  &[data-chosen] td {
    background: ${color.plumWash};
  }
`;

/** What people have answered, the newest first; one of them beside. */
export function AnswersPart({ intake }: { intake: IntakeDetail }) {
  const [from, setFrom] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const [text, setText] = useState('');
  const [only, setOnly] = useState<keyof typeof filters>('all');
  const { data, error } = useQuery(queries.submissions(intake.id, from, ON_PAGE, useDeferredValue(text), only));
  if (error && !data) return <Empty title={t`The answers cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!data) return <Loading what={t`answers`} />;
  if (data.total === 0)
    return (
      <Empty
        title={t`Nobody has answered yet`}
        action={
          intake.isPublished ? (
            <FileButton href={`/in/${intake.word}`} target="_blank" rel="noreferrer">{t`Open the page`}</FileButton>
          ) : undefined
        }
      >
        {intake.isPublished ? t`Whoever opens /in/${intake.word} can answer.` : t`Publish the page, and its answers are listed here.`}
      </Empty>
    );
  const questions = orderedQuestions(intake.plan).filter(({ kind, isAway }) => !isAway && kind !== 'signature' && kind !== 'image');
  const told = questions.filter(({ column }) => data.lines.some(({ values }) => (values[column] ?? '') !== '')).slice(0, 2);
  const line = data.lines.find(({ id }) => id === chosen) ?? data.lines[0];
  return (
    <Split $columns="minmax(0, 3fr) minmax(320px, 2fr)">
      <Pane aria-label={t`Answers`}>
        <Bar>
          <Small>{counted(data.total, 'answer')}</Small>
          <TextInput
            label={t`Find in the answers`}
            value={text}
            onChange={(next) => {
              setText(next);
              setFrom(0);
            }}
          />
          <Choice
            label={t`Show`}
            items={Object.entries(filters).map(([id, name]) => ({ id, text: name }))}
            value={only}
            onChange={(next) => {
              setOnly(next as keyof typeof filters);
              setFrom(0);
            }}
          />
          {data.total > ON_PAGE && (
            <>
              <Button small isDisabled={from === 0} onPress={() => setFrom(Math.max(0, from - ON_PAGE))}>{t`Newer`}</Button>
              <Button small isDisabled={from + ON_PAGE >= data.total} onPress={() => setFrom(from + ON_PAGE)}>{t`Older`}</Button>
            </>
          )}
          <div className="fill" />
          <LinkButton $small to={`/sources/${intake.sourceId}`}>{t`As a source`}</LinkButton>
          <FileButton $small href={`/api/sources/${intake.sourceId}/records.csv`}>{t`CSV`}</FileButton>
          <FileButton $small href={`/api/sources/${intake.sourceId}/records.xlsx`}>{t`XLSX`}</FileButton>
        </Bar>
        <Scroll>
          <Table aria-label={t`Answers`}>
            <thead>
              <tr>
                <th>{t`Received`}</th>
                <th>{t`Number`}</th>
                <th>{t`Copies`}</th>
                {told.map(({ id, words }) => (
                  <th key={id}>{words.slice(0, 28)}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {data.lines.map((one) => (
                <Picked key={one.id} data-chosen={one.id === line?.id || undefined} onClick={() => setChosen(one.id)}>
                  <td>{when(one.receivedAt)}</td>
                  <td className="mono">
                    <Button small look="bare" aria-label={t`Show the answer ${one.number}`} onPress={() => setChosen(one.id)}>
                      {one.number}
                    </Button>
                  </td>
                  <td>
                    {one.copies > 0 ? (
                      <Link to={`/ledger?text=${encodeURIComponent(one.number)}`}>{count(one.copies)}</Link>
                    ) : (
                      <Mark $tone="ochre">{t`none yet`}</Mark>
                    )}{' '}
                    {one.mendedBy !== null && <Small>{t`corrected`}</Small>}{' '}
                    {one.settled === 'open' && <Mark $tone="ochre">{t`corrects`}</Mark>}
                  </td>
                  {told.map(({ id, column }) => (
                    <td key={id}>{one.values[column]}</td>
                  ))}
                </Picked>
              ))}
            </tbody>
          </Table>
          {data.lines.length === 0 && <Empty title={t`No matches`}>{t`Change your search, or show all.`}</Empty>}
        </Scroll>
      </Pane>
      {line && <AnswerPane key={line.id} intake={intake} line={line} onRemoved={() => setChosen(null)} />}
    </Split>
  );
}
