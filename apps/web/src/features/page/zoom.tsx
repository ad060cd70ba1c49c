import { ZoomIn, ZoomOut } from 'lucide-react';
import { IconButton } from '../../ui/button';
import { Row, Small } from '../../ui/layout';

export function Zoom({ zoom, onZoom }: { zoom: number; onZoom: (zoom: number) => void }) {
  return (
    <Row $gap={2}>
      <IconButton label="Smaller" isDisabled={zoom <= 0.5} onPress={() => onZoom(Math.max(0.5, zoom - 0.25))}>
        <ZoomOut size={16} />
      </IconButton>
      <Small style={{ width: 40, textAlign: 'center', whiteSpace: 'nowrap' }}>{Math.round(zoom * 100)} %</Small>
      <IconButton label="Larger" isDisabled={zoom >= 3} onPress={() => onZoom(Math.min(3, zoom + 0.25))}>
        <ZoomIn size={16} />
      </IconButton>
    </Row>
  );
}
