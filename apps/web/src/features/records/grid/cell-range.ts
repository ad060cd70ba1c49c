/** A cell of the grid: where its record stands as it is seen, and its column, both from 0. */
export interface Place {
  index: number;
  column: number;
}
/** The cells from one to another, whichever lies first. `anchor` is where the range began, `end` where it was drawn to. */
export interface Range {
  anchor: Place;
  end: Place;
}
/** The same with its first and last row and column. */
export interface Block {
  top: number;
  bottom: number;
  left: number;
  right: number;
}

export const blockOf = ({ anchor, end }: Range): Block => ({
  top: Math.min(anchor.index, end.index),
  bottom: Math.max(anchor.index, end.index),
  left: Math.min(anchor.column, end.column),
  right: Math.max(anchor.column, end.column),
});
export const holds = ({ top, bottom, left, right }: Block, { index, column }: Place): boolean =>
  index >= top && index <= bottom && column >= left && column <= right;
export const cellsIn = ({ top, bottom, left, right }: Block): number => (bottom - top + 1) * (right - left + 1);

/** A place within a grid. */
export const within = ({ index, column }: Place, rows: number, columns: number): Place => ({
  index: Math.max(0, Math.min(rows - 1, index)),
  column: Math.max(0, Math.min(columns - 1, column)),
});

/**
 * Where a key leads from a cell, as people know it from spreadsheet programs (WAI-ARIA Authoring Practices, “Grid pattern”).
 * @param page rows that are seen at once
 * @returns null: the key leads nowhere
 */
export function cellFor(
  { key, ctrlKey }: { key: string; ctrlKey: boolean },
  { index, column }: Place,
  rows: number,
  columns: number,
  page: number,
): Place | null {
  const [lastRow, lastColumn] = [rows - 1, columns - 1];
  const to: Record<string, Place> = {
    ArrowDown: { index: ctrlKey ? lastRow : index + 1, column },
    ArrowUp: { index: ctrlKey ? 0 : index - 1, column },
    ArrowRight: { index, column: ctrlKey ? lastColumn : column + 1 },
    ArrowLeft: { index, column: ctrlKey ? 0 : column - 1 },
    PageDown: { index: index + page, column },
    PageUp: { index: index - page, column },
    Home: { index: ctrlKey ? 0 : index, column: 0 },
    End: { index: ctrlKey ? lastRow : index, column: lastColumn },
  };
  const found = Object.hasOwn(to, key) ? to[key] : undefined;
  return found && rows > 0 && columns > 0 ? within(found, rows, columns) : null;
}

/** What is put into which cell. */
export interface PlacedText extends Place {
  text: string;
}

/**
 * Where pasted cells come to lie: from the first cell of the range on; over the whole range, again and again, where it is a multiple of what is pasted.
 * @returns `beyond`: cells that the grid has no room for
 */
export function pastedInto(
  range: Block,
  cells: readonly (readonly string[])[],
  rows: number,
  columns: number,
): { placed: PlacedText[]; beyond: number } {
  const [height, width] = [cells.length, Math.max(0, ...cells.map((row) => row.length))];
  if (height === 0 || width === 0) return { placed: [], beyond: 0 };
  const fits = (size: number, of: number): number => (size % of === 0 ? size : of);
  const [down, across] = [fits(range.bottom - range.top + 1, height), fits(range.right - range.left + 1, width)];
  const placed: PlacedText[] = [];
  let beyond = 0;
  for (let row = 0; row < down; row++)
    for (let at = 0; at < across; at++) {
      const text = cells[row % height]![at % width];
      const place = { index: range.top + row, column: range.left + at };
      // A row that is shorter than others leaves what is there.
      if (text === undefined) continue;
      if (place.index >= rows || place.column >= columns) beyond++;
      else placed.push({ ...place, text });
    }
  return { placed, beyond };
}
