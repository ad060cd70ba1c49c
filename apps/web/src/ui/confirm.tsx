import { t } from '@mailbag/core/words';
import type { ReactNode } from 'react';
import { DialogTrigger, Heading, Modal } from 'react-aria-components';
import { Button } from './button';
import { Box, Veil } from './dialog';
import { Row } from './layout';

/** Asks before something that cannot be undone. `children` is the button that asks. */
export function Confirm({
  title,
  text,
  yes,
  no = t`Cancel`,
  onYes,
  children,
  look = 'danger',
}: {
  title: string;
  text: ReactNode;
  yes: string;
  /** What is pressed to leave everything as it is. */
  no?: string;
  onYes: () => void;
  children: ReactNode;
  look?: 'danger' | 'go';
}) {
  return (
    <DialogTrigger>
      {children}
      <Veil isDismissable>
        <Modal>
          <Box role="alertdialog">
            {({ close }) => (
              <>
                <Heading slot="title" level={2}>
                  {title}
                </Heading>
                <div>{text}</div>
                <Row style={{ justifyContent: 'flex-end' }}>
                  <Button onPress={close}>{no}</Button>
                  <Button
                    look={look}
                    onPress={() => {
                      close();
                      onYes();
                    }}
                  >
                    {yes}
                  </Button>
                </Row>
              </>
            )}
          </Box>
        </Modal>
      </Veil>
    </DialogTrigger>
  );
}
