/** A Content-Disposition with any file name (RFC 6266, RFC 8187). */
export function attachment(name: string, kind: 'attachment' | 'inline' = 'attachment'): string {
  const ascii =
    name
      .normalize('NFKD')
      .replace(/[^\u0020-\u007e]/g, '')
      .replace(/["\\]/g, "'") || 'file';
  const coded = encodeURIComponent(name).replace(/['()*]/g, (char) => `%${char.charCodeAt(0).toString(16).toUpperCase()}`);
  return `${kind}; filename="${ascii}"; filename*=UTF-8''${coded}`;
}
