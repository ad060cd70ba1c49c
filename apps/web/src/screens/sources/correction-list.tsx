import { t } from '@mailbag/core/words';
import { useQuery } from '@tanstack/react-query';
import { Undo2 } from 'lucide-react';
import { queries } from '../../api/queries';
import { UndoLine } from '../../features/records/undo-line';
import type { Corrections } from '../../features/records/use-corrections';
import { fullWhen } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Empty, Scroll, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Mark } from '../../ui/mark';
import { Table } from '../../ui/table';

const states = {
  active: { text: t`holds`, tone: 'moss' },
  fulfilled: { text: t`in the source now`, tone: 'plain' },
  unfit: { text: t`no longer fits`, tone: 'ochre' },
  undone: { text: t`undone`, tone: 'plain' },
} as const;

/** Every value that was changed in Mailbag, with who and when; each can be taken back. */
export function CorrectionList({ sourceId, corrections }: { sourceId: number; corrections: Corrections }) {
  const { data } = useQuery(queries.corrections(sourceId));
  if (!data) return <Loading what={t`the corrections`} />;
  if (data.length === 0)
    return (
      <Empty
        title={t`No corrections`}
      >{t`Change a value in the records or take over what a check proposes. The source’s own value is kept, and the correction is made again when the source is read again.`}</Empty>
    );
  return (
    <Scroll style={{ background: color.sheet, borderTop: `1px solid ${color.line}` }}>
      <div style={{ padding: '8px 16px 0' }}>
        <UndoLine corrections={corrections} />
      </div>
      <Table>
        <thead>
          <tr>
            <th>{t`Record`}</th>
            <th>{t`Column`}</th>
            <th>{t`As the source has it`}</th>
            <th>{t`Corrected`}</th>
            <th>{t`State`}</th>
            <th>{t`Who and when`}</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {data.map((one) => (
            <tr key={one.id}>
              <td>
                {one.recordKey.toUpperCase()} <Small>{t`row ${one.row}`}</Small>
              </td>
              <td>{one.column}</td>
              <td style={{ whiteSpace: 'pre-wrap' }}>{one.was || <Small>{t`empty`}</Small>}</td>
              <td style={{ whiteSpace: 'pre-wrap' }}>{one.value || <Small>{t`empty`}</Small>}</td>
              <td>
                <Mark $tone={states[one.state].tone}>{states[one.state].text}</Mark>
              </td>
              <td>
                {one.who}, {fullWhen(one.at)}
              </td>
              <td>
                {one.state === 'active' && (
                  <Button changes small onPress={() => corrections.undo(one.id)} aria-label={t`Undo ${one.column} of row ${one.row}`}>
                    <Undo2 size={13} />
                    {t`Undo`}
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  );
}
