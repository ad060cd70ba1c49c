/** Copies that stand one after the other for the same record. */
export function byRecord<Copy extends { recordOrdinal: number }>(copies: readonly Copy[]): Copy[][] {
  const groups: Copy[][] = [];
  for (const copy of copies) {
    const last = groups.at(-1);
    if (last?.[0]?.recordOrdinal === copy.recordOrdinal) last.push(copy);
    else groups.push([copy]);
  }
  return groups;
}
