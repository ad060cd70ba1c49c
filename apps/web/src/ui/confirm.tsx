import type { ReactNode } from 'react';
import { Dialog, DialogTrigger, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { color, shadow } from '../theme';
import { Button } from './button';
import { Row } from './layout';

const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: rgba(34, 48, 60, 0.35);
  display: grid;
  place-items: center;
  z-index: 50;
`;
const Box = styled(Dialog)`
  background: ${color.sheet};
  border-radius: 8px;
  box-shadow: ${shadow};
  padding: 20px;
  width: 440px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  outline: none;
  & h2 {
    font-size: 16px;
  }
`;

/** Asks before something that cannot be undone. `children` is the button that asks. */
export function Confirm({
  title,
  text,
  yes,
  onYes,
  children,
  look = 'danger',
}: {
  title: string;
  text: ReactNode;
  yes: string;
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
                  <Button onPress={close}>Leave it</Button>
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
