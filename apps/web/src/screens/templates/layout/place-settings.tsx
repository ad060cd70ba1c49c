import { t } from '@mailbag/core/words';
import type { Alignment, SeenBox } from '@mailbag/core';
import { aligned, distributed, sameSized } from '@mailbag/core';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceAround,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceAround,
  Scaling,
} from 'lucide-react';
import { Button, IconButton } from '../../../ui/button';
import { Row, Stack } from '../../../ui/layout';
import { AmountInput } from './commit-input';
import { SettingsHeading, Two } from './field-settings';

export type LengthUnit = 'mm' | 'pt';
const POINTS: Record<LengthUnit, number> = { mm: 72 / 25.4, pt: 1 };

/** Where a box lies, by numbers from the page's left upper corner. */
export function PlaceSettings({
  box,
  unit,
  onUnit,
  onChange,
}: {
  box: SeenBox;
  unit: LengthUnit;
  onUnit: (unit: LengthUnit) => void;
  onChange: (box: SeenBox) => void;
}) {
  const points = POINTS[unit];
  const { left, top, right, bottom } = box;
  return (
    <>
      <Row style={{ justifyContent: 'space-between' }}>
        <SettingsHeading>{t`Place on the page`}</SettingsHeading>
        <Button small look="bare" tip={t`Millimetres or points`} onPress={() => onUnit(unit === 'mm' ? 'pt' : 'mm')}>
          {unit}
        </Button>
      </Row>
      <Two>
        <AmountInput
          label={t`From the left`}
          value={left / points}
          onCommit={(x) => onChange({ ...box, left: x * points, right: right - left + x * points })}
        />
        <AmountInput
          label={t`From the top`}
          value={top / points}
          onCommit={(y) => onChange({ ...box, top: y * points, bottom: bottom - top + y * points })}
        />
        <AmountInput
          label={t`Width`}
          minimum={1}
          value={(right - left) / points}
          onCommit={(width) => onChange({ ...box, right: left + width * points })}
        />
        <AmountInput
          label={t`Height`}
          minimum={1}
          value={(bottom - top) / points}
          onCommit={(height) => onChange({ ...box, bottom: top + height * points })}
        />
      </Two>
    </>
  );
}

const ways: [how: Alignment, words: string, icon: typeof Scaling][] = [
  ['left', t`Align left edges`, AlignStartVertical],
  ['centre', t`Align middles, left to right`, AlignCenterVertical],
  ['right', t`Align right edges`, AlignEndVertical],
  ['top', t`Align upper edges`, AlignStartHorizontal],
  ['middle', t`Align middles, top to bottom`, AlignCenterHorizontal],
  ['bottom', t`Align lower edges`, AlignEndHorizontal],
];

/** Several things put in order among themselves. The first that was chosen gives the size. */
export function ArrangeSettings({
  boxes,
  onChange,
}: {
  boxes: ReadonlyMap<string, SeenBox>;
  onChange: (boxes: ReadonlyMap<string, SeenBox>) => void;
}) {
  const keys = [...boxes.keys()];
  const all = [...boxes.values()];
  const put = (next: readonly SeenBox[]): void => onChange(new Map(keys.map((key, index) => [key, next[index]!])));
  return (
    <Stack $gap={8}>
      <SettingsHeading>{t`Arrange`}</SettingsHeading>
      <Row $gap={2} style={{ flexWrap: 'wrap' }} role="group" aria-label={t`Align`}>
        {ways.map(([how, words, Icon]) => (
          <IconButton key={how} changes label={words} onPress={() => put(aligned(all, how))}>
            <Icon size={16} />
          </IconButton>
        ))}
      </Row>
      <Row $gap={2} style={{ flexWrap: 'wrap' }} role="group" aria-label={t`Distribute`}>
        <IconButton changes label={t`Same gaps, left to right`} isDisabled={keys.length < 3} onPress={() => put(distributed(all, 'x'))}>
          <AlignHorizontalSpaceAround size={16} />
        </IconButton>
        <IconButton changes label={t`Same gaps, top to bottom`} isDisabled={keys.length < 3} onPress={() => put(distributed(all, 'y'))}>
          <AlignVerticalSpaceAround size={16} />
        </IconButton>
        <Button small changes tip={t`As large as the first one chosen`} onPress={() => put(sameSized(all))}>
          <Scaling size={14} />
          {t`Same size`}
        </Button>
      </Row>
    </Stack>
  );
}
