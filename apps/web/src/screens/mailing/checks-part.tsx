import type { FindingsAnswer } from '@mailbag/contract';
import { findingSentence, findingTitle } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { CircleAlert, Eye, UserMinus, UserPlus } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { count, counted } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Bar, Empty, Loading, Pane, Scroll, Small, Split } from '../../ui/layout';
import { Mark, Notice } from '../../ui/mark';
import { Table } from '../../ui/table';

const Kind = styled.button`
  display: flex;
  width: 100%;
  gap: 8px;
  align-items: baseline;
  text-align: left;
  border: 0;
  border-bottom: 1px solid ${color.hair};
  background: none;
  padding: 8px 12px;
  cursor: pointer;
  & > span:first-child {
    flex: 1;
  }
  &:hover {
    background: ${color.paper};
  }
  &[aria-pressed='true'] {
    background: ${color.plumWash};
  }
  & > b {
    font-variant-numeric: tabular-nums;
  }
`;
const PAGE = 100;

/** Which findings are listed: all, a kind, or the records that were left out. */
type Filter = { code: string; severity: string } | 'all' | 'left out';

/** What the checks say of the records, and what can be done about each. */
export function ChecksPart({ work: { mailing, plan, change, columns, setIndex } }: { work: MailingWork }) {
  const { data: checks } = useQuery(queries.checks(mailing.id));
  const [filter, setFilter] = useState<Filter>('all');
  const [pages, setPages] = useState(1);
  const query = typeof filter === 'object' ? `&code=${filter.code}&severity=${filter.severity}` : '';
  const { data: findings } = useQuery({ ...queries.findings(mailing.id, query, 0, PAGE * pages), enabled: filter !== 'left out' });
  const navigate = useNavigate();
  const leaveOut = (row: number, out: boolean): void =>
    change((one) => ({ ...one, leftOut: out ? [...one.leftOut, row] : one.leftOut.filter((other) => other !== row) }));

  if (!checks) return <Loading what="the checks" />;
  if (!checks.possible)
    return <Empty title="Nothing to check yet">The checks run by themselves as soon as the mailing has templates and records.</Empty>;
  const total = checks.groups.reduce((sum, group) => sum + group.findings, 0);
  return (
    <Split $columns="300px minmax(0, 1fr)">
      <Pane aria-label="Kinds of findings">
        <Bar>
          <b>{count(checks.records - checks.stopped - checks.leftOut)}</b>
          <Small>of {counted(checks.records, 'record')} can run</Small>
          {!checks.current && <Mark $tone="ochre">checking …</Mark>}
        </Bar>
        <Scroll>
          <Kind aria-pressed={filter === 'all'} onClick={() => setFilter('all')}>
            <span>All findings</span>
            <b>{count(total)}</b>
          </Kind>
          {checks.groups.map((group) => (
            <Kind
              key={`${group.code} ${group.severity}`}
              aria-pressed={typeof filter === 'object' && filter.code === group.code}
              onClick={() => {
                setFilter(group);
                setPages(1);
              }}
            >
              <span>{findingTitle(group.code)}</span>
              <Mark $tone={group.severity === 'stop' ? 'brick' : 'ochre'}>
                {group.severity === 'stop' ? <CircleAlert /> : <Eye />}
                {group.severity}
              </Mark>
              <b>{count(group.records)}</b>
            </Kind>
          ))}
          <Kind aria-pressed={filter === 'left out'} onClick={() => setFilter('left out')}>
            <span>Left out by hand</span>
            <b>{count(plan.leftOut.length)}</b>
          </Kind>
        </Scroll>
        <Bar style={{ borderTop: `1px solid ${color.line}`, borderBottom: 0 }}>
          <Small>
            A <b>stop</b> holds its record back. A <b>look</b> runs all the same; look at it first. Mend a value in the sheet and read it
            again, or leave the record out.
          </Small>
        </Bar>
      </Pane>
      <Pane aria-label="Records concerned">
        {checks.error && (
          <div style={{ padding: 12 }}>
            <Notice tone="brick">{checks.error}</Notice>
          </div>
        )}
        {filter === 'left out' ? (
          <LeftOut rows={plan.leftOut} onTakeIn={(row) => leaveOut(row, false)} />
        ) : findings && findings.items.length > 0 ? (
          <Scroll>
            <Table>
              <thead>
                <tr>
                  <th>Row</th>
                  <th>{plan.keyColumn ?? 'Record'}</th>
                  <th>Column</th>
                  <th>Value</th>
                  <th>What is to be said</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {findings.items.map(({ finding, record, index }: FindingsAnswer['items'][number], at) => (
                  <tr
                    key={at}
                    data-link
                    onClick={() => {
                      setIndex(index);
                      void navigate(`/mailings/${mailing.id}/map`);
                    }}
                  >
                    <td className="number">{finding.row}</td>
                    <td style={{ whiteSpace: 'nowrap' }}>
                      {record.cells[columns.findIndex(({ name }) => name === plan.keyColumn)]?.text ?? '—'}
                    </td>
                    <td>{finding.column ?? '—'}</td>
                    <td style={{ maxWidth: 190, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'pre' }}>
                      {finding.value || <Small>empty</Small>}
                    </td>
                    <td>
                      <Mark $tone={finding.severity === 'stop' ? 'brick' : 'ochre'} style={{ marginRight: 6 }}>
                        {finding.severity}
                      </Mark>
                      {findingSentence(finding)}
                    </td>
                    <td onClick={(event) => event.stopPropagation()}>
                      {plan.leftOut.includes(finding.row) ? (
                        <Small>left out</Small>
                      ) : (
                        <Button small onPress={() => leaveOut(finding.row, true)} aria-label={`Leave out row ${finding.row}`}>
                          <UserMinus size={13} />
                          Leave out
                        </Button>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
            {findings.total > findings.items.length && (
              <div style={{ padding: 12 }}>
                <Button onPress={() => setPages(pages + 1)}>Show more of {count(findings.total)}</Button>
              </div>
            )}
          </Scroll>
        ) : findings ? (
          <Empty title={checks.current ? 'Nothing to be said' : 'Checking …'}>
            {checks.current
              ? 'Every record that is checked can run as it is.'
              : 'The records are being checked against the map and the forms.'}
          </Empty>
        ) : (
          <Loading what="the findings" />
        )}
      </Pane>
    </Split>
  );
}

function LeftOut({ rows, onTakeIn }: { rows: readonly number[]; onTakeIn: (row: number) => void }) {
  if (rows.length === 0)
    return (
      <Empty title="No record is left out">Leave out a record in the list of its findings; it comes here and can be taken in again.</Empty>
    );
  return (
    <Scroll>
      <Table>
        <thead>
          <tr>
            <th>Row in the sheet</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {[...rows]
            .sort((a, b) => a - b)
            .map((row) => (
              <tr key={row}>
                <td>Row {row}</td>
                <td>
                  <Button small onPress={() => onTakeIn(row)} aria-label={`Take in row ${row}`}>
                    <UserPlus size={13} />
                    Take in again
                  </Button>
                </td>
              </tr>
            ))}
        </tbody>
      </Table>
    </Scroll>
  );
}
