import { t } from '@mailbag/core/words';
import { Rows3, Ruler } from 'lucide-react';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Bar, Small } from '../../ui/layout';
import { Zoom } from '../page/zoom';

interface Named {
  id: number;
  name: string;
}

/** Above the filled page: which template is shown, how large, and with whose values. */
export function PageBar({
  templates,
  template,
  onTemplate,
  hasRecord,
  showsRow,
  onRow,
  isWorst,
  onWorst,
  zoom,
  onZoom,
}: {
  templates: readonly Named[];
  template: Named | undefined;
  onTemplate: (id: number) => void;
  hasRecord: boolean;
  showsRow: boolean;
  onRow: (shows: boolean) => void;
  isWorst: boolean;
  onWorst: (isWorst: boolean) => void;
  zoom: number;
  onZoom: (zoom: number) => void;
}) {
  return (
    <Bar>
      {templates.length > 1 ? (
        <Choice
          label={t`Template on the page`}
          hideLabel
          small
          items={templates.map(({ id, name }) => ({ id: String(id), text: name }))}
          value={template ? String(template.id) : null}
          onChange={(id) => onTemplate(Number(id))}
        />
      ) : (
        <Small style={{ minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{template?.name}</Small>
      )}
      <div className="fill" />
      <Button
        small
        look="bare"
        pressed={showsRow}
        isDisabled={!hasRecord}
        tip={t`The row of the source beside the page`}
        onPress={() => onRow(!showsRow)}
      >
        <Rows3 size={14} />
        {t`Row`}
      </Button>
      <Button
        small
        look="bare"
        pressed={isWorst}
        isDisabled={!hasRecord}
        tip={t`A record that nobody has: the longest value of each field (key W)`}
        onPress={() => onWorst(!isWorst)}
      >
        <Ruler size={14} />
        {t`Worst case`}
      </Button>
      <Zoom zoom={zoom} onZoom={onZoom} />
    </Bar>
  );
}
