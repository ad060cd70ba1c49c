import { createGlobalStyle } from 'styled-components';
import { color, font, narrow } from './theme';

export const GlobalStyle = createGlobalStyle`
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body { background: ${color.paper}; color: ${color.ink}; font: 14px/20px ${font.text}; overflow: hidden; }
  h1, h2, h3 { font-family: ${font.head}; font-weight: 600; margin: 0; }
  h1 { font-size: 22px; line-height: 26px; }
  h2 { font-size: 16px; line-height: 20px; }
  h3 { font-size: 14px; line-height: 18px; }
  p { margin: 0; }
  a { color: ${color.plum}; text-underline-offset: 2px; }
  button, input, textarea, select { font: inherit; color: inherit; }
  svg { display: block; flex: none; stroke-width: 1.75; }
  code, .mono { font-family: ${font.mono}; font-size: 12px; }
  /* A heading has the focus where a screen begins; nothing is done with it. */
  h1:focus-visible { outline: none; }
  /* The window alone scrolls there: were it the body, the page would jump as soon as a list or a dialog holds the window still. */
  ${narrow} {
    html, body, #root { height: auto; min-height: 100dvh; }
    body { overflow: visible; }
  }
  :focus-visible { outline: 2px solid ${color.plum}; outline-offset: 1px; }
  /* Where the colours are the reader's own, what is chosen has a frame in their colour of choice. */
  @media (forced-colors: active) {
    [aria-current='page'], [aria-selected='true'], [aria-pressed='true'], [role='row'][aria-level='2'][aria-expanded='true'] {
      outline: 2px solid Highlight;
      outline-offset: -2px;
    }
  }
  /* On paper stands what was worked at, not what it was worked with. */
  @media print {
    html, body, #root, #root > *, main, main > * { height: auto !important; overflow: visible !important; display: block !important; }
    nav, [data-print='no'], [role='dialog'], main > * > header :is(button, input, form) { display: none !important; }
    [role='row'], tr, li { break-inside: avoid; }
    * { background: none !important; box-shadow: none !important; }
    @page { margin: 14mm; }
  }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none !important; animation: none !important; } }
`;
