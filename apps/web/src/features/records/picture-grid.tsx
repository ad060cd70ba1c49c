import { t } from '@mailbag/core/words';
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { sentenceOf } from '../../api/client';
import { queries } from '../../api/queries';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Small } from '../../ui/layout';
import { Loading } from '../../ui/loading';
import { Notice } from '../../ui/mark';
import { useNear } from '../page/use-near';
import { count as inWords } from '@mailbag/core/words';

const Grid = styled.ul`
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
  gap: 12px;
`;
const Frame = styled.div`
  height: 96px;
  border: 1px solid ${color.line};
  border-radius: 6px;
  background: #fff;
  display: grid;
  place-items: center;
  overflow: hidden;
  & > img {
    max-width: 100%;
    max-height: 96px;
  }
`;
const Name = styled.div`
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 13px;
  padding-top: 4px;
`;

/** One picture, read when it is on the screen or nearly. */
function Picture({ sourceId, name }: { sourceId: number; name: string }) {
  const frame = useRef<HTMLDivElement>(null);
  const isNear = useNear(frame);
  const { data: bytes } = useQuery({ ...queries.sourcePicture(sourceId, name), enabled: isNear });
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    if (!bytes) return;
    const made = URL.createObjectURL(new Blob([bytes as BlobPart]));
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [bytes]);
  return (
    <li>
      <Frame ref={frame}>
        {address && <img src={address} alt="" />}
        {bytes === null && <Small>{t`cannot be shown`}</Small>}
      </Frame>
      <Name title={name}>{name}</Name>
    </li>
  );
}

/** The pictures of a source with their names, a page at a time. @param count how many there are */
export function PictureGrid({ sourceId, count }: { sourceId: number; count: number }) {
  const list = useInfiniteQuery(queries.pictureNames(sourceId, count));
  const names = list.data?.pages.flatMap((page) => page.names) ?? [];
  if (list.error) return <Notice tone="brick">{sentenceOf(list.error)}</Notice>;
  if (list.isLoading) return <Loading what={t`the pictures`} />;
  return (
    <>
      <Grid aria-label={t`Pictures`}>
        {names.map((name) => (
          <Picture key={name} sourceId={sourceId} name={name} />
        ))}
      </Grid>
      {list.hasNextPage && (
        <Button
          small
          isDisabled={list.isFetchingNextPage}
          onPress={() => void list.fetchNextPage()}
        >{t`Show more of ${inWords(count)}`}</Button>
      )}
    </>
  );
}
