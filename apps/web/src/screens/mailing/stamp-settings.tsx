import { t } from '@mailbag/core/words';
import type { CopyStamp } from '@mailbag/core';
import { stampWidths, usualStamp } from '@mailbag/core';
import { Choice } from '../../ui/choice';
import { Fields } from '../../ui/columns';
import { Toggled } from '../../ui/field';
import { Small, Stack } from '../../ui/layout';
import { PickOne } from '../../ui/pick-one';
import { NumberInput } from '../../ui/special-input';

const symbologies: Record<CopyStamp['symbology'] | 'none', { text: string; detail: string }> = {
  none: { text: t`none`, detail: t`the paper stays as it is` },
  qr: { text: t`QR code`, detail: t`read by every phone` },
  datamatrix: { text: t`Data Matrix`, detail: t`the smallest` },
  code128: { text: t`Code 128`, detail: t`bars, for hand-held readers` },
};
const pages: Record<CopyStamp['pages'], string> = { first: t`the first page`, last: t`the last page`, all: t`every page` };
const corners: Record<CopyStamp['corner'], string> = {
  'top-left': t`top left`,
  'top-right': t`top right`,
  'bottom-left': t`bottom left`,
  'bottom-right': t`bottom right`,
};
const items = (words: Record<string, string>): { id: string; text: string }[] => Object.entries(words).map(([id, text]) => ({ id, text }));

/** Whether and where the copy code stands on the paper, so that a copy that comes back is known by it. */
export function StampSettings({
  stamp,
  hasLinks,
  onChange,
}: {
  stamp: CopyStamp | null;
  /** Whether the mailing has personal links. */
  hasLinks: boolean;
  onChange: (stamp: CopyStamp | null) => void;
}) {
  const set = (part: Partial<CopyStamp>): void => onChange({ ...usualStamp, ...stamp, ...part });
  return (
    <Stack $gap={10}>
      <h2>{t`Copy code on the paper`}</h2>
      <Small>{t`A copy that comes back on paper is found by it.`}</Small>
      <Fields>
        <Choice
          label={t`Symbol`}
          items={Object.entries(symbologies).map(([id, words]) => ({ id, ...words }))}
          value={stamp?.symbology ?? 'none'}
          onChange={(next) => (next === 'none' ? onChange(null) : set({ symbology: next as CopyStamp['symbology'] }))}
        />
        {stamp && (
          <Choice label={t`On`} items={items(pages)} value={stamp.pages} onChange={(next) => set({ pages: next as CopyStamp['pages'] })} />
        )}
      </Fields>
      {stamp && (
        <>
          <Fields $columns="repeat(4, minmax(0, 1fr))">
            <Choice
              label={t`Corner`}
              items={items(corners)}
              value={stamp.corner}
              onChange={(next) => set({ corner: next as CopyStamp['corner'] })}
            />
            <NumberInput
              label={t`From the side, mm`}
              value={stamp.fromSide}
              minimum={0}
              maximum={500}
              onChange={(fromSide) => set({ fromSide })}
            />
            <NumberInput
              label={stamp.corner.startsWith('top') ? t`From the top, mm` : t`From the bottom, mm`}
              value={stamp.fromEnd}
              minimum={0}
              maximum={500}
              onChange={(fromEnd) => set({ fromEnd })}
            />
            <NumberInput
              label={t`Width, mm`}
              value={stamp.width}
              minimum={stampWidths.minimum}
              maximum={stampWidths.maximum}
              onChange={(width) => set({ width })}
            />
          </Fields>
          {stamp.symbology !== 'code128' && (hasLinks || stamp.holds === 'link') && (
            <PickOne
              label={t`The symbol holds`}
              items={[
                { id: 'code', text: t`the copy code`, detail: t`The office scans it when the paper comes back.` },
                {
                  id: 'link',
                  text: t`the recipient’s personal link`,
                  detail: t`A phone opens the page with it. 28 mm or more is read reliably.`,
                },
              ]}
              value={stamp.holds ?? 'code'}
              onChange={(holds) => set({ holds })}
            />
          )}
          <Toggled label={t`The code in print below it`} value={stamp.inPrint} onChange={(inPrint) => set({ inPrint })} />
        </>
      )}
    </Stack>
  );
}
