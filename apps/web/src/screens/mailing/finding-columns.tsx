import { count, t, translated } from '@mailbag/core/words';
import type { FindingsAnswer } from '@mailbag/contract';
import type { Remedy } from '@mailbag/core';
import { findingSentence, remediesOf, remedied, smallerType } from '@mailbag/core';
import { ArrowRight, UserMinus, Wrench } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { CellEditor } from '../../features/records/cell-editor';
import type { Corrections } from '../../features/records/use-corrections';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Row, Small } from '../../ui/layout';
import type { ListColumn } from '../../ui/list/column';
import { Mark } from '../../ui/mark';
import { changedQuery } from '../../ui/use-address';

const Reason = styled.input`
  width: 190px;
  height: 26px;
  padding: 0 8px;
  border: 1px solid ${color.plum};
  border-radius: 4px;
`;
export type Item = FindingsAnswer['items'][number];

const remedyHelp: Record<Remedy, string> = {
  smaller: t`For this field, in every copy where its value needs it. The arrow above takes it back.`,
  wrap: t`For this field, in every copy where its value needs it: further lines in the same box. The arrow above takes it back.`,
  shorten: t`For this field, in every copy: ends behind the last whole word. The arrow above takes it back.`,
};
const remedyWords = (remedy: Remedy, { details }: Item['finding']): string =>
  remedy === 'smaller' ? t`Smaller type, ${smallerType(details)} pt` : remedy === 'wrap' ? t`Wrap` : t`Shorten to ${count(details.limit!)}`;

/** What the columns of the list need beside the finding of their row. */
interface Findings {
  work: MailingWork;
  /** Values that were corrected. */
  corrected: FindingsAnswer['corrections'];
  corrections: Corrections;
  onLeaveOut: (row: number) => void;
}

/** Where a finding leads: its field in its template, with its record. */
export function placeOf({ mailing, plan }: MailingWork, { finding, index }: Item): string {
  const template = finding.template === null ? null : (plan.packet[finding.template] ?? null);
  return `/mailings/${mailing.id}/map${changedQuery('', { record: index, template, field: finding.field })}`;
}

/** The text of a finding's value, as the sheet has it or as it was corrected. */
function valueOf({ columns }: MailingWork, { finding, record }: Item): string {
  const at = columns.findIndex(({ name }) => name === finding.column);
  return at < 0 ? finding.value : (record.cells[at]?.text ?? '');
}

/** The columns of the list of findings. */
export function findingColumns(findings: Findings): readonly ListColumn<Item>[] {
  const { work, corrected, corrections } = findings;
  const { plan, columns } = work;
  const keyAt = columns.findIndex(({ name }) => name === plan.keyColumn);
  return [
    {
      id: 'row',
      head: t`Row`,
      minWidth: 44,
      isNumber: true,
      isFixed: true,
      text: ({ finding }) => String(finding.row),
      cell: (item) => (
        <Link data-name="" to={placeOf(work, item)} aria-label={t`${item.finding.row}: on the map`}>
          {item.finding.row}
        </Link>
      ),
    },
    {
      id: 'key',
      head: plan.keyColumn ?? t`Record`,
      minWidth: 70,
      isUnordered: true,
      text: ({ record }) => record.cells[keyAt]?.text ?? '—',
    },
    { id: 'column', head: t`Column`, minWidth: 100, text: ({ finding }) => finding.column ?? '—' },
    {
      id: 'value',
      head: t`Value`,
      minWidth: 140,
      share: 1,
      text: (item) => valueOf(work, item),
      cell: (item) => {
        const { row, column } = item.finding;
        const text = valueOf(work, item);
        if (!columns.some(({ name }) => name === column)) return text || <Small>{t`empty`}</Small>;
        return (
          <CellEditor
            label={t`${column}, row ${row}`}
            text={text}
            correction={corrected.find((one) => one.row === row && one.column === column) ?? null}
            onSave={(value) => corrections.correct(row, column!, value)}
            onUndo={corrections.undo}
          />
        );
      },
    },
    {
      id: 'kind',
      head: t`Problem`,
      minWidth: 280,
      share: 3,
      text: ({ finding }) => findingSentence(finding),
      cell: (item) => <Problem item={item} findings={findings} />,
    },
  ];
}

/** What a finding says, and what can be done about it. */
function Problem({
  item: { finding, acceptance },
  findings: {
    work: { mailing, plan, change },
    corrections,
    onLeaveOut,
  },
}: {
  item: Item;
  findings: Findings;
}) {
  const [reason, setReason] = useState<string | null>(null);
  const template = finding.template === null ? undefined : plan.packet[finding.template];
  const rule = template === undefined || finding.field === null ? undefined : plan.maps[template]?.[finding.field];
  const remedies = finding.code === 'overflows' ? remediesOf(finding, rule) : [];
  const remedy = (one: Remedy): void =>
    change((draft) => ({
      ...draft,
      maps: { ...draft.maps, [template!]: { ...draft.maps[template!], [finding.field!]: remedied(rule!, one, finding) } },
    }));
  const accept = (): void => {
    if (!reason?.trim()) return;
    const { row, code, column, field } = finding;
    corrections.accept(mailing.id, [{ row, code, column, field }], reason);
    setReason(null);
  };
  return (
    <div style={{ padding: '3px 0' }}>
      <Mark $tone={finding.severity === 'stop' ? 'brick' : 'ochre'} style={{ marginRight: 6 }}>
        {translated(finding.severity)}
      </Mark>
      {findingSentence(finding)}
      {acceptance && (
        <div>
          <Small>{t`Accepted by ${acceptance.who}, ${when(acceptance.at)}: ${acceptance.reason}`}</Small>
        </div>
      )}
      <Row data-print="no" $gap={4} style={{ paddingTop: 4, flexWrap: 'wrap' }}>
        {reason !== null ? (
          <>
            <Reason
              autoFocus
              aria-label={t`Why this is right`}
              placeholder={t`Why is it right?`}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
              onKeyDown={(event) => {
                if (event.key === 'Enter') accept();
                if (event.key === 'Escape') setReason(null);
              }}
            />
            <Button changes small look="go" isDisabled={!reason.trim()} onPress={accept}>{t`Accept`}</Button>
          </>
        ) : acceptance ? (
          <Button changes small onPress={() => corrections.takeBack(mailing.id, acceptance.id)}>{t`Withdraw acceptance`}</Button>
        ) : (
          <>
            {remedies.map((one) => (
              <Button
                key={one}
                changes
                small
                tip={remedyHelp[one]}
                aria-label={`${remedyWords(one, finding)}, ${finding.label ?? ''}`}
                onPress={() => remedy(one)}
              >
                <Wrench size={13} />
                {remedyWords(one, finding)}
              </Button>
            ))}
            {finding.mend && finding.column && (
              <Button
                changes
                small
                tip={t`Use the proposed value`}
                aria-label={t`Change row ${finding.row} to ${finding.mend}`}
                onPress={() => corrections.correct(finding.row, finding.column!, finding.mend!)}
              >
                <ArrowRight size={13} />
                <span style={{ maxWidth: 130, overflow: 'hidden', textOverflow: 'ellipsis' }}>{finding.mend}</span>
              </Button>
            )}
            {finding.severity === 'look' && (
              <Button changes small onPress={() => setReason('')} aria-label={t`Accept row ${finding.row}`}>{t`Accept …`}</Button>
            )}
            {plan.leftOut.includes(finding.row) ? (
              <Small>{t`left out`}</Small>
            ) : (
              <Button changes small onPress={() => onLeaveOut(finding.row)} aria-label={t`Leave out row ${finding.row}`}>
                <UserMinus size={13} />
                {t`Leave out`}
              </Button>
            )}
          </>
        )}
      </Row>
    </div>
  );
}
