import { compilePattern } from './pattern.js';
import { replaceTags } from './tags.js';

/** A message for one recipient. */
export interface RenderedMessage {
  subject: string;
  text: string;
  /** As the data made it; the host lets only safe elements through. */
  html: string;
}

/** Text as it stands in HTML. */
export const escapeHtml = (text: string): string => text.replace(/[&<>"']/g, (char) => `&#${char.charCodeAt(0)};`);

/** Plain text as simple HTML: paragraphs and line breaks, everything escaped. */
export const textToHtml = (text: string): string =>
  text
    .trim()
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${escapeHtml(paragraph).replace(/\n/g, '<br>')}</p>`)
    .join('\n');

/** A text in one line, without control characters (RFC 5322, 2.2: no header may be slipped in by a line break). */
export const oneLine = (text: string): string => text.replace(/[\u0000-\u001f\u007f-\u009f\u2028\u2029\s]+/g, ' ').trim();

const entities: Record<string, string> = {
  '&quot;': '"',
  '&#34;': '"',
  '&#39;': "'",
  '&apos;': "'",
  '&lt;': '<',
  '&gt;': '>',
  '&amp;': '&',
  '&nbsp;': ' ',
};

/** What stands between braces is read as it was typed, not as an editor escaped it. */
export const plainTags = (html: string): string =>
  replaceTags(html, (tag) => tag.replace(/&(?:quot|#34|#39|apos|lt|gt|amp|nbsp);|\u00a0/g, (one) => entities[one] ?? ' '));

/** Subject and body of a message as patterns. `html` null: the text stands for both. */
export interface MessageTexts {
  subject: string;
  text: string;
  html: string | null;
}

/** Compiles a message. @throws MailbagError pattern-* */
export function messagePattern(texts: MessageTexts, names: readonly string[]): (data: Record<string, unknown>) => RenderedMessage {
  const inSubject = compilePattern(texts.subject, names);
  const inText = compilePattern(texts.text, names);
  const inHtml = texts.html === null ? null : compilePattern(plainTags(texts.html), names, 'html');
  return (data) => {
    const text = inText.render(data).replace(/\r\n?/g, '\n').trim();
    return { subject: oneLine(inSubject.render(data)), text, html: inHtml ? inHtml.render(data) : textToHtml(text) };
  };
}
