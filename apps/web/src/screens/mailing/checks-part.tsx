import { count, counted, plural, t, translated } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { FindingGroup, FindingSort } from '@mailbag/contract';
import { findingTitle } from '@mailbag/core';
import { useQuery } from '@tanstack/react-query';
import { CircleAlert, Download, Eye, Settings2, UserPlus, Wrench } from 'lucide-react';
import { useCallback, useMemo, useState } from 'react';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { UndoLine } from '../../features/records/undo-line';
import { useCorrections } from '../../features/records/use-corrections';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { FileButton } from '../../ui/link-button';
import { TextInput } from '../../ui/field';
import { Bar, Empty, Pane, Scroll, Small } from '../../ui/layout';
import { Split } from '../../ui/split';
import { List } from '../../ui/list/list';
import { Loading } from '../../ui/loading';
import { Mark, Notice } from '../../ui/mark';
import { Table } from '../../ui/table';
import { CheckSettings } from './check-settings';
import { FindingActions, looksIn } from './finding-actions';
import type { Item } from './finding-columns';
import { findingColumns, placeOf } from './finding-columns';
import { useAddress } from '../../ui/use-address';

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
    min-width: 24px;
    text-align: right;
  }
`;
const PAGE = 100;
const keyOf = ({ finding: { row, code, column, template, field } }: Item): string => [row, code, column, template, field].join(' ');
const nameOf = ({ finding }: Item): string => t`row ${finding.row}`;

/** Which findings are listed: all, a kind, the looks that were accepted, or the records that were left out. */
type Filter = { code: string; severity: string } | 'all' | 'accepted' | 'left out';

/** The filter as it stands in the address. */
function readFilter(kind: string | null): Filter {
  if (kind === null) return 'all';
  if (kind === 'accepted' || kind === 'left out') return kind;
  const [code = '', severity = ''] = kind.split(' ');
  return { code, severity };
}

/** What the checks say of the records, and what can be done about each. */
export default function ChecksPart({ work }: { work: MailingWork }) {
  const { mailing, plan, change } = work;
  const { data: checks } = useQuery(queries.checks(mailing.id));
  const { query: address, put } = useAddress();
  const filter = readFilter(address.get('kind'));
  const [pages, setPages] = useState(1);
  const onEnd = useCallback(() => setPages((before) => before + 1), []);
  const [isSetting, setIsSetting] = useState(false);
  const corrections = useCorrections(plan.sourceId ?? 0);
  const text = address.get('text') ?? '';
  const setText = (next: string): void => put({ text: next });
  const order = { sort: (address.get('sort') ?? 'row') as FindingSort, isDown: address.get('down') === 'yes' };
  const query = String(
    new URLSearchParams({
      ...(typeof filter === 'object' && { code: filter.code, severity: filter.severity }),
      ...(filter === 'accepted' && { accepted: 'yes' }),
      ...(text.trim() !== '' && { text: text.trim() }),
      sort: order.sort,
      ...(order.isDown && { down: 'yes' }),
    }),
  );
  const { data: findings, isPlaceholderData } = useQuery({
    ...queries.findings(mailing.id, `&${query}`, 0, PAGE * pages),
    enabled: filter !== 'left out',
    // While more of the same are read, those before stay.
    placeholderData: (before) => (pages > 1 ? before : undefined),
  });
  const listed = useMemo(() => findings?.items ?? [], [findings]);
  const leaveOut = (rows: readonly number[], out: boolean): void =>
    change((one) => {
      const others = one.leftOut.filter((row) => !rows.includes(row));
      return { ...one, leftOut: out ? [...others, ...rows] : others };
    });

  if (!checks) return <Loading what={t`the checks`} />;
  if (!checks.possible)
    return (
      <Empty title={t`Nothing to check yet`}>{t`The checks run by themselves as soon as the mailing has templates and records.`}</Empty>
    );
  const groups = checks.groups.filter((group) => group.findings > 0);
  const total = groups.reduce((sum, group) => sum + group.findings, 0);
  const chosen =
    typeof filter === 'object' ? groups.find((group) => group.code === filter.code && group.severity === filter.severity) : undefined;
  const show = (next: Filter) => () => {
    put({ kind: typeof next === 'object' ? `${next.code} ${next.severity}` : next === 'all' ? null : next });
    setPages(1);
  };
  return (
    <Split $columns={isSetting ? '230px minmax(0, 1fr) 300px' : '300px minmax(0, 1fr)'}>
      <Pane aria-label={t`Kinds of findings`}>
        <Bar>
          <b>{count(checks.records - checks.stopped - checks.leftOut)}</b>
          <Small>{t`of ${count(checks.records)} can run`}</Small>
          {!checks.current && <Mark $tone="ochre">{checks.progress > 0 ? t`checked ${count(checks.progress)} …` : t`checking …`}</Mark>}
          <div className="fill" />
          <Button small pressed={isSetting} onPress={() => setIsSetting(!isSetting)}>
            <Settings2 size={13} />
            {t`What is checked`}
          </Button>
        </Bar>
        <Scroll>
          <Kind aria-pressed={filter === 'all'} onClick={show('all')}>
            <span>{t`All findings`}</span>
            <b>{count(total)}</b>
          </Kind>
          {groups.map((group) => (
            <Kind key={`${group.code} ${group.severity}`} aria-pressed={chosen === group} onClick={show(group)}>
              <span>{findingTitle(group.code)}</span>
              <Mark $tone={group.severity === 'stop' ? 'brick' : 'ochre'}>
                {group.severity === 'stop' ? <CircleAlert /> : <Eye />}
                {translated(group.severity)}
              </Mark>
              <b>{count(group.records)}</b>
            </Kind>
          ))}
          {checks.accepted > 0 && (
            <Kind aria-pressed={filter === 'accepted'} onClick={show('accepted')}>
              <span>{t`Accepted looks`}</span>
              <b>{count(checks.accepted)}</b>
            </Kind>
          )}
          <Kind aria-pressed={filter === 'left out'} onClick={show('left out')}>
            <span>{t`Left out by hand`}</span>
            <b>{count(plan.leftOut.length)}</b>
          </Kind>
        </Scroll>
        <Bar style={{ borderTop: `1px solid ${color.line}`, borderBottom: 0 }}>
          <Small>{phrase`A ${(<b>{t`stop`}</b>)} holds its record back. A ${(<b>{t`look`}</b>)} runs all the same; accept it when it is right. Change a value here, and the sheet’s own is kept beside it.`}</Small>
        </Bar>
      </Pane>
      <Pane aria-label={t`Records concerned`}>
        {(checks.error || corrections.error || corrections.last) && (
          <div style={{ padding: '8px 12px', display: 'grid', gap: 6 }}>
            {checks.error && <Notice tone="brick">{checks.error}</Notice>}
            <UndoLine corrections={corrections} />
          </div>
        )}
        {chosen && chosen.mends > 0 && (
          <MendAll group={chosen} isBusy={corrections.isBusy} onMend={() => corrections.mend(mailing.id, { code: chosen.code })} />
        )}
        {filter === 'left out' ? (
          <LeftOut rows={plan.leftOut} onTakeIn={(row) => leaveOut([row], false)} />
        ) : findings ? (
          <List
            id="findings"
            label={t`findings`}
            noun={['finding', 'findings']}
            columns={findingColumns({
              work,
              corrected: findings.corrections,
              corrections,
              onLeaveOut: (row) => leaveOut([row], true),
            })}
            rows={listed}
            keyOf={keyOf}
            nameOf={nameOf}
            to={(item) => placeOf(work, item)}
            keepsBar={text !== ''}
            lead={
              <>
                <div style={{ flex: '0 1 240px', minWidth: 120 }}>
                  <TextInput
                    label={t`Search the findings`}
                    hideLabel
                    placeholder={t`Search the findings’ records`}
                    value={text}
                    onChange={(next) => {
                      setText(next);
                      setPages(1);
                    }}
                  />
                </div>
                <Small role="status" style={{ whiteSpace: 'nowrap' }}>
                  {counted(findings.total, 'finding')}
                </Small>
              </>
            }
            tools={
              findings.total > 0 && (
                <>
                  <FileButton
                    $small
                    href={`/api/mailings/${mailing.id}/findings.csv?${query}`}
                    download
                  >{phrase`${(<Download size={13} />)} CSV`}</FileButton>
                  <FileButton
                    $small
                    href={`/api/mailings/${mailing.id}/findings.xlsx?${query}`}
                    download
                  >{phrase`${(<Download size={13} />)} Excel`}</FileButton>
                </>
              )
            }
            actions={(picked, done) => (
              <FindingActions
                picked={picked}
                onAccept={(reason) => {
                  corrections.accept(
                    mailing.id,
                    looksIn(picked).map(({ finding: { row, code, column, field } }) => ({ row, code, column, field })),
                    reason,
                  );
                  done();
                }}
                onLeaveOut={() => {
                  leaveOut([...new Set(picked.map(({ finding }) => finding.row))], true);
                  done();
                }}
              />
            )}
            far={{
              order: { column: order.sort, isDown: order.isDown },
              onOrder: (next) => put({ sort: next?.column ?? null, down: next?.isDown ?? false }),
              hasMore: !isPlaceholderData && findings.total > findings.items.length,
              onEnd,
            }}
            empty={() => (
              <Empty title={text.trim() !== '' ? t`Nothing found` : checks.current ? t`No finding` : t`Checking …`}>
                {text.trim() !== ''
                  ? t`No record with such a finding matches.`
                  : checks.current
                    ? filter === 'all'
                      ? t`Every record that is checked can run as it is.`
                      : t`Nothing of this kind is left.`
                    : t`The records are being checked against the map and the forms.`}
              </Empty>
            )}
          />
        ) : (
          <Loading what={t`the findings`} />
        )}
      </Pane>
      {isSetting && (
        <CheckSettings
          work={work}
          startWith={chosen ? (findings?.items[0]?.finding.column ?? null) : null}
          onClose={() => setIsSetting(false)}
        />
      )}
    </Split>
  );
}

/** Takes over all proposals of a kind at once. */
function MendAll({ group, isBusy, onMend }: { group: FindingGroup; isBusy: boolean; onMend: () => void }) {
  return (
    <Bar>
      <Small>
        {group.mends === group.findings
          ? t`A fix is proposed for each of them.`
          : t`A fix is proposed for ${plural(group.mends, 'of them', 'of them')}.`}
      </Small>
      <div className="fill" />
      <Button changes small look="go" isDisabled={isBusy} onPress={onMend}>
        <Wrench size={13} />
        {group.mends === 1 ? t`Fix` : t`Fix all ${count(group.mends)}`}
      </Button>
    </Bar>
  );
}

function LeftOut({ rows, onTakeIn }: { rows: readonly number[]; onTakeIn: (row: number) => void }) {
  if (rows.length === 0)
    return (
      <Empty
        title={t`No record is left out`}
      >{t`Leave out a record in the list of its findings; it comes here and can be included again.`}</Empty>
    );
  return (
    <Scroll>
      <Table>
        <thead>
          <tr>
            <th>{t`Row in the sheet`}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {[...rows]
            .sort((a, b) => a - b)
            .map((row) => (
              <tr key={row}>
                <td>{t`Row ${row}`}</td>
                <td>
                  <Button changes small onPress={() => onTakeIn(row)} aria-label={t`Include row ${row}`}>
                    <UserPlus size={13} />
                    {t`Include again`}
                  </Button>
                </td>
              </tr>
            ))}
        </tbody>
      </Table>
    </Scroll>
  );
}
