import { t } from '@mailbag/core/words';
import { ZoomIn, ZoomOut } from 'lucide-react';
import { IconButton } from '../../ui/button';
import { Row, Small } from '../../ui/layout';

/** Steps are finer where little is seen of a step. */
const stepAt = (zoom: number): number => (zoom < 2 ? 0.25 : zoom < 4 ? 0.5 : 1);

export function Zoom({ zoom, onZoom, maximum: limit = 3 }: { zoom: number; onZoom: (zoom: number) => void; maximum?: number }) {
  return (
    <Row $gap={2}>
      <IconButton label={t`Smaller`} isDisabled={zoom <= 0.5} onPress={() => onZoom(Math.max(0.5, zoom - stepAt(zoom - 0.01)))}>
        <ZoomOut size={16} />
      </IconButton>
      <Small style={{ width: 40, textAlign: 'center', whiteSpace: 'nowrap' }}>{Math.round(zoom * 100)} %</Small>
      <IconButton label={t`Larger`} isDisabled={zoom >= limit} onPress={() => onZoom(Math.min(limit, zoom + stepAt(zoom)))}>
        <ZoomIn size={16} />
      </IconButton>
    </Row>
  );
}
