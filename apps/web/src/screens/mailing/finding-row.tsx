import { count, t, translated } from '@mailbag/core/words';
import type { FindingsAnswer } from '@mailbag/contract';
import type { Remedy } from '@mailbag/core';
import { findingSentence, remediesOf, remedied, smallerType } from '@mailbag/core';
import { ArrowRight, UserMinus, Wrench } from 'lucide-react';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { CellEditor } from '../../features/records/cell-editor';
import type { Corrections } from '../../features/records/use-corrections';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Row, Small } from '../../ui/layout';
import { Mark } from '../../ui/mark';
import { changedQuery } from '../../ui/use-address';

const Reason = styled.input`
  width: 190px;
  height: 26px;
  padding: 0 8px;
  border: 1px solid ${color.plum};
  border-radius: 4px;
`;
type Item = FindingsAnswer['items'][number];

const remedyHelp: Record<Remedy, string> = {
  smaller: t`For this field, in every copy where its value needs it. The arrow above takes it back.`,
  wrap: t`For this field, in every copy where its value needs it: further lines in the same box. The arrow above takes it back.`,
  shorten: t`For this field, in every copy: ends behind the last whole word. The arrow above takes it back.`,
};
const remedyWords = (remedy: Remedy, { details }: Item['finding']): string =>
  remedy === 'smaller' ? t`Smaller type, ${smallerType(details)} pt` : remedy === 'wrap' ? t`Wrap` : t`Shorten to ${count(details.limit!)}`;

/** One finding: its value in place, what is to be said of it, and what can be done. */
export function FindingRow({
  work: { mailing, plan, change, columns },
  item: { finding, record, index, acceptance },
  answer,
  corrections,
  isNarrow,
  onLeaveOut,
}: {
  work: MailingWork;
  item: Item;
  answer: FindingsAnswer;
  corrections: Corrections;
  /** Other panes take most of the room. */
  isNarrow: boolean;
  onLeaveOut: () => void;
}) {
  const navigate = useNavigate();
  const [reason, setReason] = useState<string | null>(null);
  const at = columns.findIndex(({ name }) => name === finding.column);
  const text = at < 0 ? finding.value : (record.cells[at]?.text ?? '');
  const correction = answer.corrections.find((one) => one.row === finding.row && one.column === finding.column) ?? null;
  const template = finding.template === null ? undefined : plan.packet[finding.template];
  const rule = template === undefined || finding.field === null ? undefined : plan.maps[template]?.[finding.field];
  const remedies = finding.code === 'overflows' ? remediesOf(finding, rule) : [];
  const remedy = (one: Remedy): void =>
    change((draft) => ({
      ...draft,
      maps: { ...draft.maps, [template!]: { ...draft.maps[template!], [finding.field!]: remedied(rule!, one, finding) } },
    }));
  const place = {
    pathname: `/mailings/${mailing.id}/map`,
    search: changedQuery('', { record: index, template: template ?? null, field: finding.field }),
  };
  const accept = (): void => {
    if (!reason?.trim()) return;
    const { row, code, column, field } = finding;
    corrections.accept(mailing.id, { row, code, column, field, reason });
    setReason(null);
  };
  return (
    <tr data-link onClick={() => void navigate(place)}>
      <td className="number">
        <Link to={place} onClick={(event) => event.stopPropagation()} aria-label={t`${finding.row}: on the map`}>
          {finding.row}
        </Link>
      </td>
      <td style={{ whiteSpace: 'nowrap' }}>{record.cells[columns.findIndex(({ name }) => name === plan.keyColumn)]?.text ?? '—'}</td>
      <td>{finding.column ?? '—'}</td>
      <td style={{ maxWidth: isNarrow ? 130 : 220, padding: '3px 4px' }}>
        {at < 0 ? (
          text || <Small>{t`empty`}</Small>
        ) : (
          <CellEditor
            label={t`${finding.column}, row ${finding.row}`}
            text={text}
            correction={correction}
            onSave={(value) => corrections.correct(finding.row, finding.column!, value)}
            onUndo={corrections.undo}
          />
        )}
      </td>
      <td>
        <Mark $tone={finding.severity === 'stop' ? 'brick' : 'ochre'} style={{ marginRight: 6 }}>
          {translated(finding.severity)}
        </Mark>
        {findingSentence(finding)}
        {acceptance && (
          <div>
            <Small>{t`Accepted by ${acceptance.who}, ${when(acceptance.at)}: ${acceptance.reason}`}</Small>
          </div>
        )}
        <Row $gap={4} style={{ paddingTop: 4, flexWrap: 'wrap' }} onClick={(event) => event.stopPropagation()}>
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
                  tip={t`Take over what is proposed`}
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
                <Button changes small onPress={onLeaveOut} aria-label={t`Leave out row ${finding.row}`}>
                  <UserMinus size={13} />
                  {t`Leave out`}
                </Button>
              )}
            </>
          )}
        </Row>
      </td>
    </tr>
  );
}
