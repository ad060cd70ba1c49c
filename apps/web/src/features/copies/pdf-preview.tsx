import { t } from '@mailbag/core/words';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { api } from '../../api/client';
import { drawnPage, openForDrawing, showDrawn } from '../../platform/pdf-reader';
import { color } from '../../theme';
import { IconButton } from '../../ui/button';
import { Row, Small } from '../../ui/layout';

const Ground = styled.div`
  background: ${color.ground};
  border-left: 1px solid ${color.line};
  min-height: 0;
  overflow: auto;
  padding: 12px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  align-items: center;
`;
const Page = styled.canvas`
  width: 326px;
  background: #fff;
  border: 1px solid ${color.line};
`;

/** The pages of a file, one after the other. @param pages null: as many as it has @param name what it is, in sentences */
export function PdfPreview({ path, pages: told, name }: { path: string; pages: number | null; name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [number, setNumber] = useState(1);
  const [found, setFound] = useState(1);
  const pages = told ?? found;
  const [failed, setFailed] = useState(false);
  const file = useRef<{ path: string; pdf: ReturnType<typeof openForDrawing> } | null>(null);
  useEffect(() => {
    let stale = false;
    setFailed(false);
    void (async () => {
      if (file.current?.path !== path) file.current = { path, pdf: openForDrawing(await api.bytes(path)) };
      const pdf = await file.current.pdf;
      if (told === null && !stale) setFound(pdf.numPages);
      const drawn = await drawnPage(pdf, Math.min(number, told ?? pdf.numPages), 700);
      if (!stale && canvas.current) showDrawn([drawn], canvas.current);
    })().catch(() => !stale && setFailed(true));
    return () => {
      stale = true;
    };
  }, [path, number, told]);
  return (
    <Ground>
      <Row>
        <IconButton label={t`Previous page`} isDisabled={number <= 1} onPress={() => setNumber(number - 1)}>
          <ChevronLeft size={16} />
        </IconButton>
        <Small>{t`Page ${number} of ${pages}`}</Small>
        <IconButton label={t`Next page`} isDisabled={number >= pages} onPress={() => setNumber(number + 1)}>
          <ChevronRight size={16} />
        </IconButton>
      </Row>
      {failed ? <Small>{t`The file cannot be shown.`}</Small> : <Page ref={canvas} role="img" aria-label={t`Page ${number} of ${name}`} />}
    </Ground>
  );
}
