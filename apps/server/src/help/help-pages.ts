import { Marked } from 'marked';

/** A page of the manual as it is written. `name`: of its file, such as `04-map.md`. */
export interface ManualPage {
  name: string;
  text: string;
}
/** A page as it is served. `path`: its address behind `/help/`. */
export interface HelpPage {
  path: string;
  title: string;
  html: string;
}

/** The part of an address from the name of a file: without its number. */
export const pathOf = (name: string): string => name.replace(/^\d+-/, '').replace(/\.md$/, '');
const titleOf = (text: string): string => /^# (.+)$/m.exec(text)?.[1] ?? '';
const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

const STYLE = `
body { margin: 0; background: #faf7f0; color: #24303f; font: 16px/1.6 'Atkinson Hyperlegible Next', system-ui, sans-serif; }
a { color: #6b2a4f; } :focus-visible { outline: 2px solid #6b2a4f; outline-offset: 2px; }
.frame { display: grid; grid-template-columns: 250px minmax(0, 760px); gap: 40px; max-width: 1120px; margin: 0 auto; padding: 28px 24px 80px; }
nav ol { list-style: none; margin: 12px 0 0; padding: 0; } nav a { display: block; padding: 5px 10px; border-radius: 6px; text-decoration: none; color: inherit; }
nav a:hover { background: #efe6d3; } nav a[aria-current] { background: #fff; font-weight: 600; box-shadow: inset 3px 0 0 #6b2a4f; }
h1, h2 { line-height: 1.25; } h1 { font-size: 30px; margin: 0 0 16px; } h2 { font-size: 20px; margin: 32px 0 8px; }
img { max-width: 100%; height: auto; border: 1px solid #ded4bf; border-radius: 6px; } li { margin: 4px 0; }
.brand { font-weight: 600; font-size: 19px; text-decoration: none; color: inherit; } .ways { display: flex; justify-content: space-between; margin-top: 40px; }
@media (max-width: 860px) { .frame { grid-template-columns: minmax(0, 1fr); gap: 16px; } }
@media print { nav, .ways { display: none; } body { background: none; } }`;

/** What stands around a page of the manual, by the language that it is in (ISO 639-1). */
const around = {
  en: { folder: '', help: 'Help', contents: 'Contents', before: 'Before', next: 'Next', other: 'Deutsch' },
  de: { folder: 'de', help: 'Hilfe', contents: 'Inhalt', before: 'Zurück', next: 'Weiter', other: 'English' },
} as const;
export type ManualLanguage = keyof typeof around;
export const manualLanguages = Object.keys(around) as ManualLanguage[];
/** Where the pages of a language lie, below the folder of the manual and below `/help`; empty: in it. */
export const languageFolder = (language: ManualLanguage): string => around[language].folder;

/** The manual as pages that need nothing but themselves and their pictures. @param manual in the order of its contents @param language that it is written in */
export function helpPages(manual: readonly ManualPage[], language: ManualLanguage = 'en'): HelpPage[] {
  const marked = new Marked();
  const words = around[language];
  const other = language === 'en' ? 'de' : 'en';
  const addressOf = (path: string, of: ManualLanguage = language): string => ['/help', around[of].folder, path].filter(Boolean).join('/');
  const contents = manual.map(({ name, text }) => ({ path: pathOf(name), title: titleOf(text), text }));
  return contents.map(({ path, title, text }, at) => {
    const lines = contents.map(
      (one) => `<li><a href="${addressOf(one.path)}"${one.path === path ? ' aria-current="page"' : ''}>${escaped(one.title)}</a></li>`,
    );
    const way = (to: { path: string; title: string } | undefined, name: string): string =>
      to ? `<a href="${addressOf(to.path)}">${name}: ${escaped(to.title)}</a>` : '<span></span>';
    const body = String(marked.parse(text.replaceAll('](pictures/', '](/help/pictures/'), { async: false }));
    const html = `<!doctype html>
<html lang="${language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><link rel="icon" href="/mark.svg"><title>${escaped(title)} · ${words.help} · Mailbag</title><style>${STYLE}</style></head>
<body><div class="frame"><nav aria-label="${words.contents}"><a class="brand" href="/">Mailbag</a><ol>${lines.join('')}</ol><p><a href="${addressOf(path, other)}" lang="${other}" hreflang="${other}">${words.other}</a></p></nav>
<main>${body}<p class="ways">${way(contents[at - 1], words.before)}${way(contents[at + 1], words.next)}</p></main></div></body></html>`;
    return { path: addressOf(path).slice('/help/'.length), title, html };
  });
}
