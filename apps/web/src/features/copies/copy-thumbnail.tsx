import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { api } from '../../api/client';
import { openForDrawing } from '../../platform/pdf-reader';
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
      const page = await pdf.getPage(1);
      const viewport = page.getViewport({ scale: 208 / page.getViewport({ scale: 1 }).width });
      const aside = document.createElement('canvas');
      aside.width = viewport.width;
      aside.height = viewport.height;
      await page.render({ canvas: aside, viewport }).promise;
      await pdf.destroy();
      if (stale || !canvas.current) return;
      canvas.current.width = aside.width;
      canvas.current.height = aside.height;
      canvas.current.getContext('2d')?.drawImage(aside, 0, 0);
    })().catch(() => !stale && setFailed(true));
    return () => {
      stale = true;
    };
  }, [id]);
  return failed ? <Small>The file cannot be shown.</Small> : <Thumb ref={canvas} role="img" aria-label="First page of the copy" />;
}
