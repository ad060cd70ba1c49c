import { compilePattern } from './pattern.js';

/** A message for one recipient. */
export interface RenderedMessage {
  subject: string;
  text: string;
  html: string;
}

const escapeHtml = (text: string): string => text.replace(/[&<>"']/g, (char) => `&#${char.charCodeAt(0)};`);

/** Plain text as simple HTML: paragraphs and line breaks, everything escaped. */
export const textToHtml = (text: string): string =>
  text
    .trim()
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${escapeHtml(paragraph).replace(/\n/g, '<br>')}</p>`)
    .join('\n');

/** Compiles subject and body. The subject stays one line whatever the data holds (RFC 5322, 2.2). @throws MailbagError pattern-* */
export function messagePattern(
  subject: string,
  body: string,
  names: readonly string[],
): (data: Record<string, unknown>) => RenderedMessage {
  const inSubject = compilePattern(subject, names);
  const inBody = compilePattern(body, names);
  return (data) => {
    const text = inBody.render(data).replace(/\r\n?/g, '\n').trim();
    return {
      subject: inSubject
        .render(data)
        .replace(/[\u0000-\u001f\u007f\u2028\u2029]+/g, ' ')
        .trim(),
      text,
      html: textToHtml(text),
    };
  };
}
