import { Dialog, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';
import { color, shadow } from '../theme';

/** What lies over the screen behind a dialog. */
export const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: rgba(34, 48, 60, 0.35);
  display: grid;
  place-items: center;
  z-index: 50;
`;
/** The sheet of a dialog. */
export const Box = styled(Dialog)`
  background: ${color.sheet};
  border-radius: 8px;
  box-shadow: ${shadow};
  padding: 20px;
  width: 440px;
  max-width: calc(100vw - 16px);
  max-height: calc(100dvh - 16px);
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 12px;
  outline: none;
  & h2 {
    font-size: 16px;
  }
`;
