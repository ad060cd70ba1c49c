import { convert } from 'html-to-text';
import sanitizeHtml from 'sanitize-html';

/** Lets only harmless elements through: text, links to the web and to addresses, lists. No script, no picture from elsewhere, no form. */
export const safeHtml = (html: string): string =>
  sanitizeHtml(html, {
    allowedTags: ['p', 'br', 'b', 'strong', 'i', 'em', 'u', 's', 'a', 'ul', 'ol', 'li', 'h1', 'h2', 'h3', 'blockquote', 'hr', 'code'],
    allowedAttributes: { a: ['href'] },
    allowedSchemes: ['http', 'https', 'mailto', 'tel'],
    allowProtocolRelative: false,
    disallowedTagsMode: 'discard',
  });

/** The text part that stands for a rich body. Patterns in it stay as they are. */
export const htmlToPlain = (html: string): string =>
  convert(html, {
    wordwrap: false,
    selectors: [
      { selector: 'a', options: { hideLinkHrefIfSameAsText: true, linkBrackets: ['<', '>'] } },
      { selector: 'h1', options: { uppercase: false } },
      { selector: 'h2', options: { uppercase: false } },
      { selector: 'h3', options: { uppercase: false } },
      { selector: 'ul', options: { itemPrefix: '- ' } },
    ],
  });
