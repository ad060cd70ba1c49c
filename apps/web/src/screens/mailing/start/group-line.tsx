import { count, t } from '@mailbag/core/words';
import type { StartGroup } from '@mailbag/contract';
import { useInfiniteQuery } from '@tanstack/react-query';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import { sentenceOf } from '../../../api/client';
import { startList } from '../../../api/queries';
import { color } from '../../../theme';
import { Button } from '../../../ui/button';
import { Small } from '../../../ui/layout';
import { Notice } from '../../../ui/mark';
import { RecordList } from './record-list';

const Line = styled(AriaButton)`
  display: grid;
  grid-template-columns: 16px 64px minmax(0, 1fr);
  gap: 8px;
  align-items: baseline;
  width: 100%;
  padding: 6px 0;
  border: 0;
  border-top: 1px solid ${color.hair};
  background: none;
  text-align: left;
  cursor: pointer;
  & > svg {
    align-self: center;
    color: ${color.faded};
  }
  & > b {
    font-weight: 600;
    text-align: right;
  }
  &[data-disabled] {
    cursor: default;
    color: ${color.faded};
  }
  &[data-focus-visible] {
    outline: 2px solid ${color.plum};
    outline-offset: -2px;
  }
`;
const List = styled.div`
  padding: 0 0 10px 24px;
  max-height: 260px;
  overflow: auto;
`;

/** A number with what it means, and the records behind it when it is opened. */
export function GroupLine({
  mailing,
  digest,
  group,
  number,
  text,
  isOpen,
  onToggle,
}: {
  mailing: number;
  digest: string;
  group: StartGroup;
  number: number;
  text: string;
  isOpen: boolean;
  onToggle: () => void;
}) {
  const list = useInfiniteQuery({ ...startList(mailing, digest, group), enabled: isOpen && number > 0 });
  const shown = list.data?.pages.flatMap(({ rows }) => rows) ?? [];
  return (
    <div>
      <Line onPress={onToggle} isDisabled={number === 0} aria-expanded={isOpen}>
        {isOpen ? <ChevronDown size={14} /> : <ChevronRight size={14} style={number === 0 ? { visibility: 'hidden' } : undefined} />}
        <b>{count(number)}</b>
        <span>{text}</span>
      </Line>
      {isOpen && number > 0 && (
        <List>
          {list.error && <Notice tone="brick">{sentenceOf(list.error)}</Notice>}
          {list.isLoading && <Small role="status">{t`Reading the records …`}</Small>}
          <RecordList mailing={mailing} label={text} records={shown} />
          {list.hasNextPage && (
            <Button
              small
              isDisabled={list.isFetchingNextPage}
              onPress={() => void list.fetchNextPage()}
            >{t`Show more of ${count(number)}`}</Button>
          )}
        </List>
      )}
    </div>
  );
}
