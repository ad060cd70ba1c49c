/** Columns stand in a rich body as `{{ plot }}`; the editor shows them as chips, which are elements of its own. */
const escape = (text: string): string => text.replace(/[&<>"]/g, (char) => `&#${char.charCodeAt(0)};`);

/** What is kept, as the editor takes it. A tag that is more than a name, such as a filter, stays text. */
export const toEditor = (html: string): string =>
  html.replace(/\{\{\s*([\p{L}\p{N}_]+)\s*\}\}/gu, (_, slug: string) => `<span data-type="mention" data-id="${escape(slug)}"></span>`);

/** What the editor gives, as it is kept. */
export function fromEditor(html: string): string {
  const parsed = new DOMParser().parseFromString(html, 'text/html');
  for (const chip of parsed.querySelectorAll('span[data-type="mention"]')) chip.replaceWith(`{{ ${chip.getAttribute('data-id') ?? ''} }}`);
  return parsed.body.innerHTML;
}
