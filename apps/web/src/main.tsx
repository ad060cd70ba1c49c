import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/wght.css';
import '@fontsource/zilla-slab/500.css';
import '@fontsource/zilla-slab/600.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { ownLanguage } from './words/own-language';
import { speakIn } from './words/speak-in';

const language = ownLanguage();
document.documentElement.lang = language;
await speakIn(language, navigator.languages);
// Modules say much while they are loaded, so the language is chosen before.
const { App } = await import('./app');

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
