import { Marked } from 'marked';

/** A page of the manual as it is written. `name`: of its file, such as `04-map.md`. */
export interface ManualPage {
  name: string;
  text: string;
}
/** A page as it is served. `path`: its part of the address. */
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

/** The manual as pages that need nothing but themselves and their pictures. @param manual in the order of its contents */
export function helpPages(manual: readonly ManualPage[]): HelpPage[] {
  const marked = new Marked();
  const contents = manual.map(({ name, text }) => ({ path: pathOf(name), title: titleOf(text), text }));
  return contents.map(({ path, title, text }, at) => {
    const lines = contents.map(
      (one) => `<li><a href="/help/${one.path}"${one.path === path ? ' aria-current="page"' : ''}>${escaped(one.title)}</a></li>`,
    );
    const way = (to: { path: string; title: string } | undefined, words: string): string =>
      to ? `<a href="/help/${to.path}">${words}: ${escaped(to.title)}</a>` : '<span></span>';
    const body = String(marked.parse(text.replaceAll('](pictures/', '](/help/pictures/'), { async: false }));
    const html = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><link rel="icon" href="/mark.svg"><title>${escaped(title)} · Help · Mailbag</title><style>${STYLE}</style></head>
<body><div class="frame"><nav aria-label="Contents"><a class="brand" href="/">Mailbag</a><ol>${lines.join('')}</ol></nav>
<main>${body}<p class="ways">${way(contents[at - 1], 'Before')}${way(contents[at + 1], 'Next')}</p></main></div></body></html>`;
    return { path, title, html };
  });
}
