import { t } from '@mailbag/core/words';
import { Copy, Files } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../../ui/button';
import { Row, Stack } from '../../../ui/layout';
import { NumberInput } from '../../../ui/special-input';
import { AmountInput } from './commit-input';
import { SettingsHeading, Two } from './field-settings';

/** What is chosen, again: next to it, down a column, on every page. */
export function RepeatSettings({
  height,
  pages,
  onDuplicate,
  onRepeatDown,
  onEveryPage,
}: {
  /** Of what is chosen, points. */
  height: number;
  pages: number;
  onDuplicate: () => void;
  /** @param step points from one upper edge to the next */
  onRepeatDown: (count: number, step: number) => void;
  onEveryPage: () => void;
}) {
  const [count, setCount] = useState(5);
  const [gap, setGap] = useState(4);
  return (
    <Stack $gap={8}>
      <SettingsHeading>{t`Again`}</SettingsHeading>
      <Two>
        <NumberInput label={t`Times`} value={count} minimum={1} maximum={200} onChange={setCount} />
        <AmountInput label={t`Gap, points`} value={gap} onCommit={setGap} />
      </Two>
      <Row $gap={6} style={{ flexWrap: 'wrap' }}>
        <Button small changes onPress={() => onRepeatDown(count, height + gap)}>{t`Repeat down`}</Button>
        <Button small changes tip={t`Ctrl+D`} onPress={onDuplicate}>
          <Copy size={14} />
          {t`Duplicate`}
        </Button>
        {pages > 1 && (
          <Button small changes onPress={onEveryPage}>
            <Files size={14} />
            {t`On every page`}
          </Button>
        )}
      </Row>
    </Stack>
  );
}
