import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import styled from 'styled-components';
import { queries } from '../../api/queries';
import { thumbnailOf } from '../../platform/pdf-reader';
import { color } from '../../theme';
import { useNear } from './use-near';

const WIDTH = 36;
const Frame = styled.div`
  width: ${WIDTH}px;
  height: 48px;
  border: 1px solid ${color.line};
  background: ${color.sheet};
  overflow: hidden;
  flex: none;
  & > img {
    display: block;
    width: 100%;
  }
`;

/** The first page of a template, small; drawn when it comes into sight. */
export function Thumbnail({ templateId, revisionId }: { templateId: number; revisionId: number }) {
  const frame = useRef<HTMLDivElement>(null);
  const isNear = useNear(frame);
  const client = useQueryClient();
  const { data } = useQuery({
    queryKey: ['thumbnail', templateId, revisionId],
    queryFn: async () => thumbnailOf(await client.fetchQuery(queries.templatePdf(templateId, revisionId)), WIDTH * 4),
    enabled: isNear,
    staleTime: Infinity,
    retry: false,
  });
  return (
    <Frame ref={frame} aria-hidden>
      {data && <img src={data} alt="" />}
    </Frame>
  );
}
