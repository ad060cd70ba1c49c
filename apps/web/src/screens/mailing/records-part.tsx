import { counted, t } from '@mailbag/core/words';
import { useQuery } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { queries } from '../../api/queries';
import { sourceReady } from '../../api/source-ready';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { guessColumns } from '../../features/mailing/guess-columns';
import { AddSource } from '../../features/records/add-source';
import { RecordGrid } from '../../features/records/grid/record-grid';
import { UndoLine } from '../../features/records/undo-line';
import { useCorrections } from '../../features/records/use-corrections';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Bar, Empty, Screen, Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { FileButton } from '../../ui/link-button';

/** Where the records come from, and which column tells them apart. */
export default function RecordsPart({ work: { mailing, plan, change, settle, columns } }: { work: MailingWork }) {
  const { data: sources } = useQuery(queries.sources());
  const corrections = useCorrections(plan.sourceId ?? 0);
  const { data: flagged } = useQuery(queries.flagged(mailing.id));
  const [adding, setAdding] = useState(plan.sourceId === null);
  const choose = async (id: number): Promise<void> => {
    setAdding(false);
    const source = await sourceReady(id);
    change((one) => guessColumns({ ...one, sourceId: id, leftOut: [] }, source));
    await settle();
  };
  const items = (sources ?? []).map((one) => ({
    id: String(one.id),
    text: one.name,
    detail: `${counted(one.count, 'record')}, ${counted(one.columns.length, 'column')}`,
  }));
  return (
    <Screen style={{ borderTop: `1px solid ${color.line}`, background: color.sheet }}>
      <Bar>
        {items.length > 0 && (
          <Choice
            label={t`Source`}
            hideLabel
            items={items}
            value={plan.sourceId === null ? null : String(plan.sourceId)}
            placeholder={t`Choose a source`}
            onChange={(id) => void choose(Number(id))}
          />
        )}
        <Button changes onPress={() => setAdding(!adding)}>
          {adding ? t`Close` : t`Another source`}
        </Button>
        {plan.packet.length > 0 && (
          <FileButton
            href={`/api/mailings/${mailing.id}/starter.xlsx`}
            download
            title={t`An empty sheet with a column for every answer, menus for choices, required columns marked`}
          >
            <Download size={14} />
            {t`Starter sheet`}
          </FileButton>
        )}
        <div className="fill" />
        {mailing.source && (
          <>
            <Small>{t`Records are identified by`}</Small>
            <Choice
              label={t`Record key`}
              hideLabel
              items={[
                { id: '', text: t`no column` },
                ...columns.map((column) => ({
                  id: column.name,
                  text: column.name,
                  detail: t`${column.distinct >= 1000 ? t`over 1,000` : column.distinct} different, ${column.empty} empty`,
                })),
              ]}
              value={plan.keyColumn ?? ''}
              onChange={(keyColumn) => change((one) => ({ ...one, keyColumn: keyColumn || null }))}
            />
          </>
        )}
      </Bar>
      {adding && (
        <div style={{ padding: 16 }}>
          <AddSource onAdded={(id) => void choose(id)} />
        </div>
      )}
      {!adding && !mailing.source && (
        <Empty
          title={t`No records yet`}
          action={<Button changes look="go" onPress={() => setAdding(true)}>{t`Add records`}</Button>}
        >{t`Choose a source above, or bring a workbook, a CSV file, form data or a database.`}</Empty>
      )}
      {mailing.source?.state === 'reading' && <Loading what={t`the records`} />}
      {mailing.source?.state === 'failed' && <Empty title={t`The records could not be read`}>{mailing.source.error?.message}</Empty>}
      {mailing.source?.state === 'ready' && !adding && (
        <>
          {(corrections.last ?? corrections.error) && (
            <div style={{ padding: '8px 12px' }}>
              <UndoLine corrections={corrections} />
            </div>
          )}
          <RecordGrid
            key={`${mailing.source.id} ${mailing.source.readAt}`}
            sourceId={mailing.source.id}
            columns={columns}
            total={mailing.source.count}
            corrections={corrections}
            keyColumn={plan.keyColumn}
            flagged={flagged?.indexes ?? []}
          />
        </>
      )}
    </Screen>
  );
}
