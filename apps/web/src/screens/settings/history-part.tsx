import { t, translated } from '@mailbag/core/words';
import type { HistoryLine } from '@mailbag/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { historyPages } from '../../api/queries';
import { fullWhen } from '../../features/when';
import { TextInput } from '../../ui/field';
import { Card, Empty, Stack } from '../../ui/layout';
import type { ListColumn } from '../../ui/list/column';
import { List } from '../../ui/list/list';
import { Loading } from '../../ui/loading';
import { aboutWords, actionWords } from './history-words';

const keyOf = ({ id }: HistoryLine): number => id;
const nameOf = ({ who, action }: HistoryLine): string => `${translated(who)} ${translated(action)}`;

const columns: readonly ListColumn<HistoryLine>[] = [
  { id: 'when', head: t`Date and time`, minWidth: 112, isFixed: true, isUnordered: true, text: ({ at }) => fullWhen(at) },
  { id: 'who', head: t`Who`, minWidth: 120, share: 1, isUnordered: true, text: ({ who }) => translated(who) },
  {
    id: 'what',
    head: t`What`,
    minWidth: 200,
    share: 3,
    isUnordered: true,
    text: actionWords,
  },
  { id: 'about', head: t`About`, minWidth: 140, share: 3, isUnordered: true, text: aboutWords },
];

/** Who did what, the last first, read as one scrolls. */
export default function HistoryPart() {
  const [text, setText] = useState('');
  const { data, hasNextPage, isFetchingNextPage, fetchNextPage } = useInfiniteQuery(historyPages(text));
  const rows = useMemo(() => data?.pages.flat() ?? [], [data]);
  const onEnd = useCallback(() => void (!isFetchingNextPage && fetchNextPage()), [isFetchingNextPage, fetchNextPage]);
  return (
    <Stack style={{ height: '100%' }}>
      <div style={{ width: 320 }} data-print="no">
        <TextInput label={t`Search the history`} hideLabel placeholder={t`Who, what, about what`} value={text} onChange={setText} />
      </div>
      {!data ? (
        <Loading what={t`the history`} />
      ) : (
        <Card style={{ flex: 1 }}>
          <List
            id="history"
            label={t`history`}
            noun={['line', 'lines']}
            columns={columns}
            rows={rows}
            keyOf={keyOf}
            nameOf={nameOf}
            far={{ order: null, onOrder: () => undefined, hasMore: hasNextPage, onEnd }}
            empty={() => <Empty title={t`No matches`}>{t`Every change is written down here with who did it.`}</Empty>}
          />
        </Card>
      )}
    </Stack>
  );
}
