import { Bands } from '../page/bands.js';
import { cellsOf } from '../page/cells.js';
import { areaOf, heightOf, near, shared, widthOf } from '../page/geometry.js';
import type { Shape } from '../page/page-marks.js';
import type { Box, PageReading, Phrase } from '../page/page-reading.js';

/** Where the letters of a phrase stand. */
export const phraseBox = ({ left, right, base, size }: Phrase): Box => [left, base - size * 0.2, right, base + size * 0.72];
/** The most that a box may have of a darker ground and still be one to write on. */
const LIGHT = 0.8;

/** How far a chart reaches around its bars, points. */
const CHART = 45;

/** A page with its things by the height at which they stand. */
export class Ground {
  readonly cells: Box[];
  private readonly phrasesAt: Bands<Phrase>;
  private readonly shapesAt: Bands<Shape>;

  constructor(readonly reading: PageReading) {
    const seen = new Set<string>();
    this.cells = cellsOf(reading.level, reading.upright).filter((cell) => {
      const key = cell.map(Math.round).join();
      return !seen.has(key) && Boolean(seen.add(key));
    });
    this.phrasesAt = new Bands(reading.phrases, (phrase) => [phraseBox(phrase)[1], phraseBox(phrase)[3]]);
    this.shapesAt = new Bands(reading.shapes, ({ box }) => [box[1], box[3]]);
  }

  /** Where charts are: three or more bars of one width that stand on one line and are of different heights, with what is around them. */
  charts(): Box[] {
    const bars = this.reading.shapes.filter(
      ({ fill, isRound, box }) => fill !== null && !isRound && heightOf(box) > 6 && widthOf(box) < 80,
    );
    const found: Box[] = [];
    for (const { box } of bars) {
      const beside = bars.filter(({ box: other }) => near(other[1], box[1]) && near(widthOf(other), widthOf(box)));
      const heights = new Set(beside.map(({ box: other }) => Math.round(heightOf(other) / 2)));
      const places = new Set(beside.map(({ box: other }) => Math.round(other[0])));
      if (heights.size < 3 || places.size < 3) continue;
      const boxes = beside.map(({ box: other }) => other);
      const [left, right] = [Math.min(...boxes.map((one) => one[0])), Math.max(...boxes.map((one) => one[2]))];
      found.push([left - CHART, box[1] - 4, right + CHART, Math.max(...boxes.map((one) => one[3])) + CHART]);
    }
    return found;
  }

  /** Phrases of which a good part stands in a box. */
  phrasesIn(box: Box): Phrase[] {
    return this.phrasesAt.between(box[1], box[3]).filter((phrase) => {
      const own = phraseBox(phrase);
      return shared(own, box) > Math.min(areaOf(own), areaOf(box)) * 0.3;
    });
  }
  /** Phrases that a box touches at all. */
  phrasesTouching(box: Box): Phrase[] {
    return this.phrasesAt.between(box[1], box[3]).filter((phrase) => shared(phraseBox(phrase), box) > 0);
  }

  /** Whether what lies below a box is too dark to write on. */
  isShaded(box: Box): boolean {
    let light = 1;
    for (const { box: other, fill, isRound } of this.shapesAt.between(box[1], box[3]))
      if (fill !== null && !isRound && shared(box, other) > areaOf(box) * 0.9) light = fill;
    return light < LIGHT;
  }
  /** Whether something darker was drawn below a shape before it. */
  isOnDarker(shape: Shape): boolean {
    for (const other of this.shapesAt.between(shape.box[1], shape.box[3])) {
      if (other === shape) return false;
      if (other.fill !== null && other.fill < 0.97 && shared(other.box, shape.box) > areaOf(shape.box) * 0.9) return true;
    }
    return false;
  }
}
