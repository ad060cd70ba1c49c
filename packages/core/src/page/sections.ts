import type { Bands } from './bands.js';
import { labelWords } from './label-words.js';
import type { Box, PageReading, Phrase } from './page-reading.js';

/** Type that is so much larger than most of the page names a section. */
const LARGE = 1.12;

/** The headings of a page: what stands by itself in larger, bolder or capital type. */
export class Sections {
  private headings: readonly Phrase[] | null = null;

  /** @param labels phrases that boxes are called by, which head nothing */
  constructor(
    private readonly reading: PageReading,
    private readonly placesAt: Bands<{ box: Box }>,
    private readonly labels: () => ReadonlySet<Phrase>,
  ) {}

  private isSection(phrase: Phrase): boolean {
    if (phrase.text.length >= 90 || !/\p{L}{3}/u.test(phrase.text) || /[.:]$/.test(phrase.text)) return false;
    const isLoud = this.isLarge(phrase) || phrase.isBold || (phrase.text.length > 4 && phrase.text === phrase.text.toUpperCase());
    return (
      isLoud &&
      !this.placesAt
        .between(phrase.base, phrase.base + phrase.size)
        .some(({ box }) => box[1] < phrase.base + phrase.size && box[3] > phrase.base)
    );
  }
  private isLarge({ size }: Phrase): boolean {
    return size >= this.reading.bodySize * LARGE;
  }

  /** The heading that a box stands under; null: none is told from the rest by its type. */
  above(box: Box): string | null {
    // From the foot of the page up.
    this.headings ??= this.reading.phrases
      .filter((phrase) => this.isSection(phrase) && (this.isLarge(phrase) || !this.labels().has(phrase)))
      .sort((a, b) => a.base - b.base);
    const [left, , right, top] = box;
    const above = this.headings.filter(
      (phrase) => phrase.base > top - 2 && (this.reading.isRightToLeft ? phrase.right > left : phrase.left < right),
    );
    // Capitals by themselves are the weakest sign.
    const found = above.find((phrase) => phrase.isBold || this.isLarge(phrase)) ?? above[0];
    if (!found) return null;
    const lines = [found];
    for (const phrase of above)
      if (
        phrase !== found &&
        Math.abs(phrase.size - found.size) < 0.5 &&
        Math.abs(phrase.base - lines[0]!.base - found.size * 1.2) < found.size * 0.4
      )
        lines.unshift(phrase);
    return labelWords(lines.map(({ text }) => text).join(' '));
  }
}
