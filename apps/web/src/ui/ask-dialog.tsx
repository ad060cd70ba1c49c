import { t } from '@mailbag/core/words';
import type { ReactNode } from 'react';
import { DialogTrigger, Heading, Modal } from 'react-aria-components';
import { Button } from './button';
import { Box, Veil } from './dialog';
import { Row, Stack } from './layout';

interface Props {
  /** The button that opens it. */
  opener: ReactNode;
  title: string;
  /** What is filled in. It begins anew each time that the dialog opens. */
  children: ReactNode;
  yes: string;
  /** Whether enough is filled in. */
  isReady?: boolean;
  onYes: () => void;
}

/** Asks for what an action needs, and does it. */
export function AskDialog({ opener, title, children, yes, isReady = true, onYes }: Props) {
  return (
    <DialogTrigger>
      {opener}
      <Veil isDismissable>
        <Modal>
          <Box>
            {({ close }) => (
              <form
                onSubmit={(event) => {
                  event.preventDefault();
                  if (!isReady) return;
                  close();
                  onYes();
                }}
              >
                <Stack>
                  <Heading slot="title" level={2}>
                    {title}
                  </Heading>
                  {children}
                  <Row style={{ justifyContent: 'flex-end' }}>
                    <Button onPress={close}>{t`Cancel`}</Button>
                    <Button type="submit" look="go" isDisabled={!isReady}>
                      {yes}
                    </Button>
                  </Row>
                </Stack>
              </form>
            )}
          </Box>
        </Modal>
      </Veil>
    </DialogTrigger>
  );
}
