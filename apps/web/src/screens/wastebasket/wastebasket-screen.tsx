import { count, plural, t } from '@mailbag/core/words';
import type { WastebasketKind, WastebasketLine } from '@mailbag/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Trash2, Undo2 } from 'lucide-react';
import { api, sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { CHANGED } from '../../features/deleting';
import { when } from '../../features/when';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Confirm } from '../../ui/confirm';
import { Empty, Head, Row, Screen, Stack } from '../../ui/layout';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { useCrumbs } from '../shell/crumbs';
import { inOrder } from './in-order';

const DAY = 86_400_000;
const keyOf = ({ kind, id }: WastebasketLine): string => `${kind}/${id}`;
const nameOf = ({ name }: WastebasketLine): string => name;
/** Days until it is deleted for good. */
const daysLeft = ({ goesAt }: WastebasketLine): number => Math.max(0, Math.ceil((Date.parse(goesAt) - Date.now()) / DAY));

const kindWords: Record<WastebasketKind, string> = {
  template: t`template`,
  source: t`source`,
  mailing: t`mailing`,
  intake: t`intake`,
  connection: t`database`,
  sender: t`sender`,
  'mail-server': t`mail server`,
  printer: t`printer`,
  register: t`register`,
  view: t`saved view`,
};

const columns: readonly ListColumn<WastebasketLine>[] = [
  { id: 'name', head: t`Name`, minWidth: 200, share: 3, isFixed: true, text: nameOf, cell: (one) => <span data-name="">{one.name}</span> },
  { id: 'kind', head: t`Kind`, minWidth: 90, share: 1, text: ({ kind }) => kindWords[kind] },
  { id: 'by', head: t`Deleted by`, minWidth: 120, share: 1, text: ({ deletedBy }) => deletedBy },
  { id: 'at', head: t`Deleted`, minWidth: 104, text: ({ deletedAt }) => when(deletedAt), value: ({ deletedAt }) => deletedAt },
  {
    id: 'left',
    head: t`Time left`,
    minWidth: 90,
    isNumber: true,
    text: (one) => t`${plural(daysLeft(one), 'day')}`,
    value: daysLeft,
  },
];

/** What was deleted, for 30 days. */
export default function WastebasketScreen() {
  useCrumbs({ text: t`Wastebasket` });
  const { data, error } = useQuery(queries.wastebasket());
  const client = useQueryClient();
  const act = useMutation({
    mutationFn: async ({ lines, isBack }: { lines: readonly WastebasketLine[]; isBack: boolean }) => {
      for (const line of inOrder(lines, isBack))
        await (isBack ? api.post(`/api/wastebasket/${keyOf(line)}/back`) : api.remove(`/api/wastebasket/${keyOf(line)}`));
    },
    onSettled: () => Promise.all(CHANGED.map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
  if (error && !data) return <Empty title={t`The wastebasket cannot be shown`}>{sentenceOf(error)}</Empty>;
  if (!data) return <Loading what={t`the wastebasket`} />;
  return (
    <Screen>
      <Head title={t`Wastebasket`} note={t`What was deleted can be put back for 30 days. Then it is deleted for good.`} />
      {act.error && <Notice tone="brick">{sentenceOf(act.error)}</Notice>}
      <Stack $gap={0} style={{ background: color.sheet, borderTop: `1px solid ${color.line}`, flex: 1, minHeight: 0 }}>
        <List
          id="wastebasket"
          label={t`the wastebasket`}
          noun={['thing', 'things']}
          columns={columns}
          rows={data}
          keyOf={keyOf}
          nameOf={nameOf}
          searchHint={t`Name, kind or person`}
          actions={(picked, done) => (
            <Row>
              <Button
                changes
                small
                isDisabled={act.isPending}
                onPress={() => {
                  act.mutate({ lines: picked, isBack: true });
                  done();
                }}
              >
                <Undo2 size={14} />
                {t`Put back`}
              </Button>
              <Confirm
                title={picked.length === 1 ? t`Delete “${picked[0]!.name}” for good?` : t`Delete ${count(picked.length)} things for good?`}
                text={t`This cannot be undone. Copies that were made from them stay in the ledger.`}
                yes={t`Delete for good`}
                onYes={() => {
                  act.mutate({ lines: picked, isBack: false });
                  done();
                }}
              >
                <Button changes small look="danger" isDisabled={act.isPending}>
                  <Trash2 size={14} />
                  {t`Delete for good`}
                </Button>
              </Confirm>
            </Row>
          )}
          empty={(isSearch) =>
            isSearch ? (
              <Empty title={t`No matches`}>{t`Search for a part of a name, or for who deleted it.`}</Empty>
            ) : (
              <Empty
                title={t`The wastebasket is empty`}
              >{t`Whatever is deleted lies here for 30 days: templates, sources, mailings, intakes, and what was set up.`}</Empty>
            )
          }
        />
      </Stack>
    </Screen>
  );
}
