import { withGaps } from './columns-in-sight';

const widths = [100, 50, 80, 70, 60];

test.each<[string, number[], [number, number][]]>([
  ['all columns have no gaps', [0, 1, 2, 3, 4], [[0, 0], [1, 0], [2, 0], [3, 0], [4, 0]]],
  ['columns that are passed over leave their widths', [0, 3, 4], [[0, 0], [3, 130], [4, 0]]],
  ['those in front of the first one do too', [2, 4], [[2, 150], [4, 70]]],
  ['no column leaves nothing', [], []],
])('%s', (_, shown, placed) => expect(withGaps(shown, widths).map(({ column, gap }) => [column, gap])).toEqual(placed)); // prettier-ignore

test('every cell stands where it would among all of them', () => {
  for (const shown of [[0, 2], [1, 2, 4], [3], [0, 1, 2, 3, 4]]) {
    let left = 0;
    for (const { column, gap } of withGaps(shown, widths)) {
      left += gap;
      expect(left).toBe(widths.slice(0, column).reduce((sum, width) => sum + width, 0));
      left += widths[column]!;
    }
  }
}); // prettier-ignore
