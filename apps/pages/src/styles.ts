import { color, font, motion, radius } from '@mailbag/look';
import styled, { createGlobalStyle } from 'styled-components';

export const GlobalStyle = createGlobalStyle`
  *, *::before, *::after { box-sizing: border-box; }
  html { -webkit-text-size-adjust: 100%; }
  body { margin: 0; background: ${color.paper}; color: ${color.ink}; font: 17px/25px ${font.text}; }
  h1, h2, legend { font-family: ${font.head}; font-weight: 600; margin: 0; }
  h1 { font-size: 28px; line-height: 34px; }
  h2 { font-size: 22px; line-height: 28px; }
  p { margin: 0; }
  a { color: ${color.plum}; text-underline-offset: 2px; }
  button, input, textarea, select { font: inherit; color: inherit; }
  :focus-visible { outline: 3px solid ${color.plum}; outline-offset: 2px; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none !important; animation: none !important; } }
  @media print { [data-frame]:has([data-printed]) > :not([data-printed]) { display: none !important; } }
`;

export const Frame = styled.div`
  max-width: 640px;
  min-height: 100dvh;
  margin: 0 auto;
  display: flex;
  flex-direction: column;
`;
export const Head = styled.header`
  background: ${color.kraft};
  padding: 14px 18px 12px;
  display: grid;
  gap: 8px;
`;
export const HeadLine = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
`;
export const Office = styled.p`
  font-family: ${font.head};
  font-weight: 600;
`;
export const LanguageSelect = styled.select`
  border: 1px solid ${color.slate};
  border-radius: ${radius};
  background: ${color.sheet};
  min-height: 36px;
  padding: 2px 8px;
  max-width: 45vw;
  font-size: 15px;
`;
export const Progress = styled.div`
  display: flex;
  gap: 4px;
  > span {
    flex: 1;
    height: 5px;
    border-radius: 3px;
    background: ${color.line};
  }
  > span[data-state='done'] {
    background: ${color.moss};
  }
  > span[data-state='now'] {
    background: ${color.plum};
  }
`;
export const Quiet = styled.p`
  color: ${color.faded};
  font-size: 15px;
`;
export const Body = styled.main`
  flex: 1;
  padding: 22px 18px 28px;
  display: flex;
  flex-direction: column;
  gap: 22px;
`;
export const Foot = styled.footer`
  position: sticky;
  bottom: 0;
  background: ${color.paper};
  border-top: 1px solid ${color.line};
  padding: 12px 18px calc(12px + env(safe-area-inset-bottom));
  display: grid;
  gap: 10px;
`;
export const Ways = styled.div`
  display: flex;
  gap: 10px;
  > * {
    flex: 1;
  }
`;
export const Button = styled.button`
  min-height: 48px;
  padding: 8px 16px;
  border-radius: ${radius};
  border: 1px solid ${color.slate};
  background: ${color.sheet};
  cursor: pointer;
  font-weight: 500;
  transition: background ${motion};
  &:hover {
    background: ${color.plumWash};
  }
  &[data-main] {
    background: ${color.plum};
    border-color: ${color.plum};
    color: ${color.sheet};
    font-weight: 650;
  }
  &[data-main]:hover {
    background: ${color.plumDark};
  }
  &[data-small] {
    min-height: 36px;
    padding: 4px 12px;
    font-size: 15px;
    flex: none;
  }
  &:disabled {
    opacity: 0.6;
    cursor: default;
  }
`;
export const ButtonLink = styled.a`
  display: flex;
  align-items: center;
  justify-content: center;
  min-height: 48px;
  padding: 8px 16px;
  border-radius: ${radius};
  border: 1px solid ${color.slate};
  background: ${color.sheet};
  text-align: center;
  text-decoration: none;
  overflow-wrap: anywhere;
`;
export const Asked = styled.div`
  display: grid;
  gap: 6px;
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
`;
export const AskedGroup = styled(Asked).attrs({ as: 'fieldset' })``;
export const Words = styled.label`
  font-weight: 650;
  overflow-wrap: anywhere;
  > small {
    font-weight: 400;
    color: ${color.faded};
    font-size: 15px;
    margin-inline-start: 8px;
  }
`;
export const Legend = styled(Words).attrs({ as: 'legend' })`
  font-family: ${font.text};
  padding: 0;
  margin-bottom: 6px;
`;
export const Help = styled.p`
  color: ${color.faded};
  font-size: 15px;
  line-height: 21px;
  white-space: pre-line;
`;
export const FaultLine = styled.p`
  color: ${color.brick};
  font-size: 15px;
  line-height: 21px;
`;
export const Input = styled.input`
  width: 100%;
  min-height: 48px;
  padding: 8px 12px;
  border: 1px solid ${color.slate};
  border-radius: ${radius};
  background: ${color.sheet};
  &[aria-invalid='true'] {
    border: 2px solid ${color.brick};
  }
`;
export const Area = styled(Input).attrs({ as: 'textarea' })`
  min-height: 120px;
  resize: vertical;
`;
export const Choice = styled.label`
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 48px;
  padding: 8px 14px;
  border: 1px solid ${color.slate};
  border-radius: ${radius};
  background: ${color.sheet};
  cursor: pointer;
  overflow-wrap: anywhere;
  > input {
    width: 20px;
    height: 20px;
    accent-color: ${color.plum};
    flex: none;
    margin: 0;
  }
  &:has(input:checked) {
    background: ${color.plumWash};
    border-color: ${color.plum};
  }
`;
export const Choices = styled.div`
  display: grid;
  gap: 8px;
  &[data-two] {
    grid-template-columns: 1fr 1fr;
  }
`;
export const Pad = styled.canvas`
  width: 100%;
  height: 180px;
  border: 1px dashed ${color.slate};
  border-radius: ${radius};
  background: ${color.sheet};
  touch-action: none;
  display: block;
`;
export const Summary = styled.section`
  border: 2px solid ${color.brick};
  border-radius: ${radius};
  background: ${color.brickWash};
  padding: 12px 16px;
  > ul {
    margin: 6px 0 0;
    padding-inline-start: 20px;
  }
`;
export const Note = styled.p`
  background: ${color.ochreWash};
  border-radius: ${radius};
  padding: 10px 14px;
`;
export const Answers = styled.dl`
  margin: 0;
  display: grid;
  > div {
    padding: 10px 0;
    border-bottom: 1px solid ${color.hair};
  }
  dt {
    color: ${color.faded};
    font-size: 15px;
  }
  dd {
    margin: 0;
    overflow-wrap: anywhere;
    white-space: pre-line;
  }
  img {
    max-width: 200px;
    max-height: 80px;
    background: ${color.sheet};
  }
`;
export const SectionLine = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 12px;
`;
export const Sheet = styled.div`
  background: ${color.ground};
  border-radius: ${radius};
  padding: 10px;
  display: grid;
  gap: 10px;
`;
/** A page with the boxes of the answers on it. */
export const Leaf = styled.div`
  position: relative;
  background: ${color.sheet};
  canvas {
    width: 100%;
    height: auto;
    display: block;
  }
  cursor: pointer;
`;
/** A field for programs that fill in everything; people and screen readers do not meet it. */
export const Trap = styled.div`
  position: absolute;
  inset-inline-start: -9999px;
  width: 1px;
  height: 1px;
  overflow: hidden;
`;
