/** A time as a browser's own field for it writes it, where the person is; empty: none. @param iso ISO 8601 with an offset */
export const localTime = (iso: string | null): string => {
  if (iso === null) return '';
  const at = new Date(iso);
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};
/** ISO 8601; null: none. */
export const fromLocalTime = (local: string): string | null => (local === '' ? null : new Date(local).toISOString());
