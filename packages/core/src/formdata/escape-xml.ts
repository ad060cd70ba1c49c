/** Text as XML holds it, between tags and in attributes. */
export const escapeXml = (text: string): string =>
  text
    // Characters that XML 1.0 cannot hold (XML 1.0, 2.2).
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/[&<>"\r]/g, (char) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', '\r': '&#13;' })[char]!);
