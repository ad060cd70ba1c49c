import { t } from '@mailbag/core/words';
import { Heading, Modal } from 'react-aria-components';
import styled from 'styled-components';
import { color, font } from '../../theme';
import { Button } from '../../ui/button';
import { Box, Veil } from '../../ui/dialog';
import { Toggled } from '../../ui/field';
import { Row, Small } from '../../ui/layout';
import type { Shortcut } from '../../ui/shortcuts';
import { shortcuts, useAreLettersOn, useShortcuts } from '../../ui/shortcuts';

const Keys = styled.dl`
  margin: 0;
  display: grid;
  grid-template-columns: 132px minmax(0, 1fr);
  gap: 6px 14px;
  align-items: baseline;
  & dt {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
  }
  & dd {
    margin: 0;
  }
  & kbd {
    font: 12px/16px ${font.mono};
    border: 1px solid ${color.line};
    border-radius: 4px;
    padding: 1px 5px;
    background: ${color.paper};
  }
`;

function KeyList({ list }: { list: readonly Shortcut[] }) {
  return (
    <Keys>
      {list.map(({ keys, what }) => (
        <div key={`${keys} ${what}`} style={{ display: 'contents' }}>
          <dt>
            {keys.split(' ').map((key, at) => (
              <kbd key={at}>{key}</kbd>
            ))}
          </dt>
          <dd>{what}</dd>
        </div>
      ))}
    </Keys>
  );
}

/** The keys of this screen and those that work everywhere. */
export function ShortcutHelp({ isOpen, onOpen }: { isOpen: boolean; onOpen: (isOpen: boolean) => void }) {
  const all = useShortcuts();
  const areLettersOn = useAreLettersOn();
  const here = all.filter(({ isEverywhere }) => !isEverywhere);
  return (
    <Veil isDismissable isOpen={isOpen} onOpenChange={onOpen}>
      <Modal>
        <Box>
          {({ close }) => (
            <>
              <Heading slot="title" level={2}>{t`Keyboard shortcuts`}</Heading>
              {here.length > 0 && (
                <>
                  <h3>{t`On this screen`}</h3>
                  <KeyList list={here} />
                </>
              )}
              <h3>{t`Everywhere`}</h3>
              <KeyList list={all.filter(({ isEverywhere }) => isEverywhere)} />
              <Toggled label={t`Single letters are shortcuts`} value={areLettersOn} onChange={(isOn) => shortcuts.switchLetters(isOn)} />
              <Small>{t`Never while you type. Switch them off if speech input presses them by mistake. Holds in this browser.`}</Small>
              <Row style={{ justifyContent: 'flex-end' }}>
                <Button onPress={close}>{t`Close`}</Button>
              </Row>
            </>
          )}
        </Box>
      </Modal>
    </Veil>
  );
}
