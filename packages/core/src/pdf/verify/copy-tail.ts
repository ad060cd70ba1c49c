/** Where the objects of a copy's own lie in its file. */
export interface CopyTail {
  /** First object number that varies. */
  first: number;
  /** Where each object begins, behind its label. */
  starts: number[];
  /** Where the last one ends. */
  end: number;
}

const ascii = (file: Uint8Array, from: number, to: number): string => {
  let text = '';
  for (let at = from; at < to; at++) text += String.fromCharCode(file[at]!);
  return text;
};

/**
 * Finds a copy's own objects behind what it shares with others.
 * @param file a whole copy without a password @param first object number that varies
 * @returns null: its cross-reference is not one of ours
 */
export function tailOf(file: Uint8Array, first: number): CopyTail | null {
  const start = /startxref\n(\d+)\n%%EOF\n$/.exec(ascii(file, Math.max(0, file.length - 64), file.length));
  const at = Number(start?.[1] ?? -1);
  if (at < 0 || at >= file.length) return null;
  const head = /^xref\n0 (\d+)\n/.exec(ascii(file, at, Math.min(file.length, at + 40)));
  if (!head) return null;
  const starts: number[] = [];
  for (let number = first; number < Number(head[1]); number++) {
    const entry = at + head[0].length + number * 20;
    let place = 0;
    for (let digit = 0; digit < 10; digit++) place = place * 10 + file[entry + digit]! - 0x30;
    // `n` at its place: the entry is one of an object that is there (ISO 32000-2, 7.5.4).
    if (file[entry + 17] !== 0x6e || !(place < at)) return null;
    const label = `${number} 0 obj\n`;
    for (let index = 0; index < label.length; index++) if (file[place + index] !== label.charCodeAt(index)) return null;
    starts.push(place + label.length);
  }
  return { first, starts, end: at };
}

/** The dictionary of an object as text, and where its stream lies; null: it has none. */
export function tailObject(
  file: Uint8Array,
  { first, starts, end }: CopyTail,
  number: number,
): { dict: string; stream: [from: number, to: number] | null } {
  const from = starts[number - first];
  if (from === undefined) return { dict: '', stream: null };
  const limit = starts[number - first + 1] ?? end;
  let to = from;
  // A dictionary of ours ends before `stream` or `endobj`, each at the beginning of a line.
  while (
    to < limit &&
    !(file[to] === 10 && ((file[to + 1] === 0x73 && file[to + 2] === 0x74) || (file[to + 1] === 0x65 && file[to + 2] === 0x6e)))
  )
    to++;
  const dict = ascii(file, from, to);
  const length = /\/Length (\d+)>>$/.exec(dict);
  const begin = to + '\nstream\n'.length;
  return { dict, stream: length && file[to + 1] === 0x73 ? [begin, Math.min(limit, begin + Number(length[1]))] : null };
}
