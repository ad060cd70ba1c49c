import { t } from '@mailbag/core/words';
import { onPage, pageOf, withoutDrawn } from '@mailbag/core';
import { Trash2 } from 'lucide-react';
import { Button } from '../../../ui/button';
import { Small, Stack } from '../../../ui/layout';
import { FieldSettings } from './field-settings';
import { ArrangeSettings, PlaceSettings } from './place-settings';
import { RepeatSettings } from './repeat-settings';
import { StampSettings } from './stamp-settings';
import { drawnLabel } from './tools';
import type { LayoutBoard } from './use-layout-board';

const keys: [string, string][] = [
  [t`Arrow keys`, t`move by 1 point, with Shift by 10`],
  [t`Alt+arrows`, t`wider, narrower, higher, lower`],
  [t`Tab`, t`to the next field`],
  [t`Ctrl+D`, t`duplicate`],
  [t`Ctrl+C, X, V`, t`copy, cut, paste, also into another template`],
  [t`Ctrl+A`, t`all on this page`],
  [t`Del`, t`remove`],
  [t`Enter on a tool`, t`puts one in the middle of the page`],
  [t`Alt while dragging`, t`without snapping`],
];

/** What can be said of what is chosen; where nothing is, which keys there are. */
export function ChosenSettings({ board }: { board: LayoutBoard }) {
  const { chosenItems, boxes, change } = board;
  const [first] = chosenItems;
  if (!first)
    return (
      <Stack $gap={8} style={{ padding: 12 }}>
        <Small>{t`Choose a field to see what it is, or draw one: take a tool and drag on the page.`}</Small>
        <dl style={{ margin: 0, fontSize: 12, lineHeight: '16px' }}>
          {keys.map(([key, does]) => (
            <div key={key} style={{ marginBottom: 4 }}>
              <dt style={{ fontWeight: 600 }}>{key}</dt>
              <dd style={{ margin: 0 }}>{does}</dd>
            </div>
          ))}
        </dl>
      </Stack>
    );
  const isOne = chosenItems.length === 1;
  const names = new Set([
    ...board.ownNames,
    ...board.drawn.flatMap((one) =>
      one.what === 'field' &&
      one.key !== first.key &&
      !(first.what === 'field' && first.field.kind === 'radio' && one.field.kind === 'radio')
        ? [one.field.name]
        : [],
    ),
  ]);
  const box = boxes.get(first.key)!;
  const place = (
    <PlaceSettings
      box={box}
      unit={board.unit}
      onUnit={board.setUnit}
      onChange={(next) => board.move(new Map([[first.key, onPage(next, board.pages[pageOf(first) - 1]!)]]))}
    />
  );
  return (
    <Stack $gap={10} style={{ padding: 12 }}>
      <h2 style={{ overflowWrap: 'anywhere', fontSize: 14 }}>{isOne ? drawnLabel(first) : t`${chosenItems.length} chosen`}</h2>
      {isOne && first.what === 'field' && (
        <FieldSettings
          key={first.key}
          field={first.field}
          taken={names}
          place={board.fieldKeys.indexOf(first.key) + 1}
          count={board.fieldKeys.length}
          onChange={(next) => change((one) => ({ ...one, fields: { ...one.fields, [first.key]: { ...one.fields[first.key]!, ...next } } }))}
          onPlace={(at) => board.putAt(first.key, at - 1)}
        >
          {place}
        </FieldSettings>
      )}
      {isOne && first.what === 'stamp' && (
        <StampSettings
          key={first.key}
          stamp={first.stamp}
          onChange={(stamp) => change((one) => ({ ...one, stamps: { ...one.stamps, [first.key]: stamp } }))}
        />
      )}
      {isOne ? (
        first.what === 'stamp' && place
      ) : (
        <ArrangeSettings boxes={new Map([...board.chosen].map((key) => [key, boxes.get(key)!]))} onChange={board.move} />
      )}
      <RepeatSettings
        height={board.heightOfChosen()}
        pages={board.pages.length}
        onDuplicate={board.duplicate}
        onRepeatDown={board.repeatDown}
        onEveryPage={board.onEveryPage}
      />
      <Button
        small
        changes
        look="danger"
        onPress={() => {
          change((one) => withoutDrawn(one, board.chosen));
          board.choose([]);
        }}
      >
        <Trash2 size={14} />
        {t`Remove`}
      </Button>
    </Stack>
  );
}
