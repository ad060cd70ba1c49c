import { t } from '@mailbag/core/words';
import type { Clash, Json } from '@mailbag/core';
import { Button } from '../../ui/button';
import { Row, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';

const LONGEST = 160;
/** A value of a document as a person reads it. */
function words(value: Json | undefined): string {
  if (value === undefined || value === null || value === '') return t`nothing`;
  if (typeof value === 'boolean') return value ? t`yes` : t`no`;
  const text = typeof value === 'object' ? JSON.stringify(value) : String(value).replace(/<[^>]{0,500}>/g, ' ');
  const short = text.replace(/\s+/g, ' ').trim();
  return `“${short.length > LONGEST ? `${short.slice(0, LONGEST)} …` : short}”`;
}

/** Something that was changed here and elsewhere at the same time, with both values. @param place what it is called on the screen */
export function ClashNotice({ clash, place, onSettle }: { clash: Clash; place: string; onSettle: (mine: boolean) => void }) {
  return (
    <Notice tone="ochre">
      <Stack $gap={6}>
        <span>{t`${place.charAt(0).toUpperCase() + place.slice(1)} was also changed elsewhere. It is now ${words(clash.theirs)}; your change would make it ${words(clash.mine)}.`}</span>
        <Row>
          <Button small onPress={() => onSettle(false)}>{t`Keep theirs`}</Button>
          <Button small changes onPress={() => onSettle(true)}>{t`Use mine`}</Button>
        </Row>
      </Stack>
    </Notice>
  );
}
