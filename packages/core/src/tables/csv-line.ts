/** One line of a CSV file (RFC 4180). Text that a spreadsheet would run as a formula is made harmless by a leading apostrophe. */
export function csvLine(cells: readonly (string | number | null)[]): string {
  const cell = (value: string | number | null): string => {
    const text = value === null ? '' : String(value);
    const safe = typeof value === 'string' && /^[=+\-@\t\r]/.test(text) ? `'${text}` : text;
    return /[",\r\n]/.test(safe) ? `"${safe.replace(/"/g, '""')}"` : safe;
  };
  return `${cells.map(cell).join(',')}\r\n`;
}
