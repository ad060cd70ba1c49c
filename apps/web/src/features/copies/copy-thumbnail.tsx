import { t } from '@mailbag/core/words';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { api } from '../../api/client';
import { drawnPage, openForDrawing, showDrawn } from '../../platform/pdf-reader';
import { color } from '../../theme';
import { Small } from '../../ui/layout';

const Thumb = styled.canvas`
  width: 104px;
  height: 147px;
  border: 1px solid ${color.line};
  background: #fff;
`;

/** The first page of a copy, small. */
export function Thumbnail({ id }: { id: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let stale = false;
    setFailed(false);
    void (async () => {
      const pdf = await openForDrawing(await api.bytes(`/api/copies/${id}/pdf`));
      const drawn = await drawnPage(pdf, 1, 208);
      await pdf.destroy();
      if (!stale && canvas.current) showDrawn([drawn], canvas.current);
    })().catch(() => !stale && setFailed(true));
    return () => {
      stale = true;
    };
  }, [id]);
  return failed ? <Small>{t`The file cannot be shown.`}</Small> : <Thumb ref={canvas} role="img" aria-label={t`First page of the copy`} />;
}
