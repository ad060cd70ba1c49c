import { Bands } from './bands.js';
import { overlap } from './geometry.js';
import { labelWords } from './label-words.js';
import type { Box, PageReading, Phrase } from './page-reading.js';
import { Sections } from './sections.js';
import { boxesOverWords } from './stacks.js';
import { wholeWords } from './whole-words.js';
import { wordsAtCorner } from './group-words.js';

/** A place of a field on the page, in the space of its reading. */
export interface Place {
  box: Box;
  /** Tick boxes and radio buttons stand before their words, all others after or below them. */
  isTick: boolean;
}

/** How a label stands to its box. */
export type Relation = 'left' | 'above' | 'below' | 'inside' | 'right';

/** What is printed for a box. */
export interface PrintedLabel {
  text: string;
  relation: Relation | 'table';
  /** Smaller is surer; about the points between the words and the box. */
  cost: number;
  /** Whether they end as a question or before something that is to follow. */
  isAsking?: boolean;
}

interface Candidate extends PrintedLabel {
  relation: Relation;
  phrase: Phrase;
  /** Where its words begin. */
  left: number;
}

/** How far a label may stand from its box, points; common practice, no source. */
const FARTHEST = { beside: 330, above: 30, below: 14, tick: 60 };
/** How to set ticks, where it stands by itself (common practice, no source). */
const INSTRUCTION =
  /^(?:please )?(?:check|tick|mark|select|choose) |^(?:bitte )?(?:nur |zutreffendes )?(?:\p{L}+ )?ankreuzen|^(?:cochez?|marque) /iu;
/** Words below a box that cost more than this may belong to what stands below them. */
const WEAK = 12;
/** Words that cost more than this are not meant for a box that may go on from the one above it. */
const OWN = 32;
/** Words that stand before a box with nothing between them may stand far; what is further than this counts little, points. */
const FAR = 60;
/** What a relation has to make up for where most boxes of a page have another one. */
const UNUSUAL = 7;
/** Type that is so much larger than most of the page is a heading, and so are these points where there is little to compare. */
const [HEADING, HEADING_POINTS, FEW_PHRASES] = [1.3, 13, 6];

/** Everything about the boxes of one page that labels are found by. */
export class PageLabels {
  /** The relation that most boxes of the page have to their words. */
  private usual: Relation | null = null;
  /** Boxes whose words stand below them, and ticks whose words stand before them, as their neighbours tell. */
  private readonly turned = new Set<Place>();
  /** Phrases that stand right before a box, or right after a tick: they belong to no other. */
  private readonly owners = new Map<Phrase, Place>();
  /** Places that stand in nobody's way just now. */
  private passed: ReadonlySet<Place> = new Set();
  private readonly sections: Sections;
  /** What was found around places once everything about the page was known. */
  private readonly known = new Map<Place, Candidate[]>();
  private isReady = false;
  private readonly placesAt: Bands<Place>;
  private readonly phrasesAt: Bands<Phrase>;

  constructor(
    private readonly reading: PageReading,
    private readonly places: readonly Place[],
  ) {
    this.placesAt = new Bands(places, ({ box }) => [box[1], box[3]]);
    this.phrasesAt = new Bands(reading.phrases, ({ base }) => [base, base]);
    this.sections = new Sections(reading, this.placesAt, () => this.labelPhrases());
    for (const place of places) this.own(place);
    for (const place of boxesOverWords(places, this.phrasesAt, (phrase) => this.owners.has(phrase) || this.isHeading(phrase)))
      this.turned.add(place);
    this.turnRows();
    const counts = new Map<Relation, number>();
    for (const place of places) {
      const best = place.isTick ? null : this.candidates(place)[0];
      if (best && best.relation !== 'inside') counts.set(best.relation, (counts.get(best.relation) ?? 0) + 1);
    }
    const [first, second] = [...counts].sort((a, b) => b[1] - a[1]);
    if (first && first[1] >= 3 && first[1] > 2 * (second?.[1] ?? 0)) this.usual = first[0];
    this.isReady = true;
  }

  private isHeading({ size }: Phrase): boolean {
    const { bodySize, phrases } = this.reading;
    return phrases.length < FEW_PHRASES ? size >= HEADING_POINTS : size >= bodySize * HEADING;
  }

  private own(place: Place): void {
    const [left, bottom, right, top] = place.box;
    const { isRightToLeft } = this.reading;
    for (const phrase of this.phrasesAt.between(bottom - 20, top)) {
      if (phrase.base + phrase.size * 0.5 < bottom || phrase.base > top || !/\p{L}/u.test(phrase.text)) continue;
      // A tick stands before its words, a box after them.
      const gap = place.isTick === isRightToLeft ? left - phrase.right : phrase.left - right;
      if (gap > -3 && gap < (place.isTick ? 8 : 12) && !this.owners.has(phrase)) this.owners.set(phrase, place);
    }
  }

  /** Ticks of one line have their words before them where the first one has some and the last one has none behind it. */
  private turnRows(): void {
    const ticks = this.places.filter(({ isTick }) => isTick);
    const seen = new Set<Place>();
    const backwards = this.reading.isRightToLeft;
    for (const start of ticks) {
      if (seen.has(start)) continue;
      const row = ticks
        .filter(({ box }) => Math.abs(box[1] - start.box[1]) < 3)
        .sort((a, b) => (backwards ? b.box[2] - a.box[2] : a.box[0] - b.box[0]));
      for (const place of row) seen.add(place);
      const has = (place: Place, relation: Relation): boolean => this.candidates(place).some((one) => one.relation === relation);
      if (has(row[0]!, 'left') && !has(row.at(-1)!, 'right')) for (const place of row) this.turned.add(place);
    }
  }

  /** Phrases that boxes are called by. */
  private labelPhrases(): ReadonlySet<Phrase> {
    return new Set(
      this.places.flatMap((place) => {
        const [best] = this.candidates(place);
        return best && best.cost < OWN ? [best.phrase] : [];
      }),
    );
  }

  /** The heading that a box stands under; null: none is told from the rest by its type. */
  sectionOf({ box }: Place): string | null {
    return this.sections.above(box);
  }

  /** Phrases that touch a box. */
  phrasesIn([left, bottom, right, top]: Box): Phrase[] {
    return this.phrasesAt
      .between(bottom - 20, top)
      .filter((one) => overlap(one.left, one.right, left, right) > 0 && one.base < top && one.base + one.size * 0.75 > bottom);
  }

  /** Whether a box has words of its own, near enough to be meant for it. */
  hasOwnWords(place: Place): boolean {
    const [best] = this.candidates(place);
    return best !== undefined && best.cost < OWN;
  }

  /** What is printed for a box; null: nothing that is near enough. */
  of(place: Place): PrintedLabel | null {
    const [best] = this.candidates(place);
    if (place.isTick) return best ?? this.underHead(place);
    const table = this.inTable(place);
    if (table && (!best || table.cost < best.cost || best.relation === 'above')) return table;
    // Words further below are those of what comes next, where the box goes on from the one above it.
    if (best?.relation === 'below' && best.cost > WEAK) return this.continued(place) ?? best;
    return best ?? this.continued(place);
  }

  /** A tick without words of its own in a column of ticks is called by what stands above the uppermost. */
  private underHead({ box }: Place): PrintedLabel | null {
    const column = this.places
      .filter(({ isTick, box: one }) => isTick && Math.abs(one[0] - box[0]) < 3)
      .sort((a, b) => b.box[3] - a.box[3]);
    if (column.length < 2) return null;
    return this.candidates(column[0]!).find(({ relation }) => relation === 'above') ?? null;
  }

  /** Ticks of one line, parted where the words of another question stand between them: behind the words of the tick before it. */
  parted(row: readonly Place[]): Place[][] {
    const parts: Place[][] = [];
    const inOrder = [...row].sort((a, b) => a.box[0] - b.box[0]);
    for (const [at, tick] of inOrder.entries()) {
      const before = inOrder[at - 1];
      const between = before
        ? this.phrasesIn([before.box[2], Math.max(before.box[1], tick.box[1]), tick.box[0], Math.min(before.box[3], tick.box[3])]).filter(
            ({ text, left }) => /\p{L}/u.test(text) && left > before.box[2] - 2,
          )
        : [];
      if (before && between.length < 2) parts.at(-1)!.push(tick);
      else parts.push([tick]);
    }
    return parts;
  }

  /** A box without words of its own right below another one that ends where it ends goes on with what that one began. */
  private continued({ box }: Place, limit = 3): PrintedLabel | null {
    if (limit === 0) return null;
    const upper = this.placesAt.between(box[3] - 2, box[3] + (box[3] - box[1]) * 1.2).find(
      ({ box: one, isTick }) =>
        !isTick &&
        one !== box &&
        // The first line may begin behind its words.
        one[0] - box[0] > -3 &&
        one[0] - box[0] < (one[2] - one[0]) * 0.6 &&
        Math.abs(one[2] - box[2]) < 3 &&
        one[1] - box[3] > -2 &&
        one[1] - box[3] < (box[3] - box[1]) * 1.2,
    );
    const found = upper && (this.candidates(upper)[0] ?? this.continued(upper, limit - 1));
    return found?.relation === 'left' || found?.relation === 'above' ? { ...found, cost: found.cost + 15 } : null;
  }

  /** What is printed for buttons of which one is chosen: the words before the first of them, or above all. */
  ofGroup(places: readonly Place[]): PrintedLabel | null {
    const [first] = places;
    if (!first) return null;
    // The words before the first of them may name them all: “Rhythm: yearly”.
    const [named, ...rest] = (this.of(first)?.text ?? '').split(/:\s*(?=\S)/);
    if (named && rest.length > 0) return { text: named, relation: 'left', cost: 0 };
    const own = new Set(places.map((place) => this.of(place)?.text));
    const around: Place = {
      isTick: false,
      box: [
        Math.min(...places.map(({ box }) => box[0])),
        Math.min(...places.map(({ box }) => box[1])),
        Math.max(...places.map(({ box }) => box[2])),
        Math.max(...places.map(({ box }) => box[3])),
      ],
    };
    this.passed = new Set(places);
    const found = this.candidates(around);
    this.passed = new Set();
    const names = found.filter(({ text, relation }) => (relation === 'left' || relation === 'above') && !own.has(text));
    // “Check only one” says how, not what.
    return names.find(({ text }) => !INSTRUCTION.test(text)) ?? names[0] ?? wordsAtCorner(this.phrasesAt, around.box, own);
  }

  private isTaken(place: Place, box: Box): boolean {
    return this.placesAt
      .between(box[1], box[3])
      .some(
        ({ box: other }) =>
          other !== place.box && overlap(other[0], other[2], box[0], box[2]) > 1 && overlap(other[1], other[3], box[1], box[3]) > 1,
      );
  }

  private candidates(place: Place): Candidate[] {
    if (!this.isReady || this.passed.size > 0) return this.lookAround(place);
    let known = this.known.get(place);
    if (!known) this.known.set(place, (known = this.lookAround(place)));
    return known;
  }
  private lookAround(place: Place): Candidate[] {
    const { isTick } = place;
    const found: Candidate[] = [];
    for (const phrase of this.phrasesAt.between(place.box[1] - 40, place.box[3] + FARTHEST.above)) {
      for (const [relation, cost] of isTick ? this.ofTick(phrase, place) : this.ofBox(phrase, place)) {
        const words = wholeWords(phrase, relation, place, {
          phrasesAt: this.phrasesAt,
          placesAt: this.placesAt,
          isRightToLeft: this.reading.isRightToLeft,
        });
        const text = labelWords(words);
        if (text)
          found.push({
            text,
            relation,
            phrase,
            left: phrase.left,
            cost: cost + this.strange(place, relation, phrase),
            isAsking: /[:?：]\s*$/.test(words),
          });
      }
    }
    return found.sort((a, b) => a.cost - b.cost);
  }

  /** What it costs that words stand otherwise than the neighbours of a box, or most boxes of the page, have theirs. */
  private strange(place: Place, relation: Relation, phrase: Phrase): number {
    const isTurned = this.turned.has(place);
    if (place.isTick) return (isTurned && relation === 'right') || (!isTurned && relation === 'left' && this.owners.has(phrase)) ? 40 : 0;
    if (isTurned) return relation === 'above' ? 25 : relation === 'below' ? -6 : 0;
    return this.usual && relation !== this.usual && relation !== 'inside' ? UNUSUAL : 0;
  }

  private *ofTick(phrase: Phrase, place: Place): Generator<[Relation, number]> {
    const [left, bottom, right, top] = place.box;
    const middle = phrase.base + phrase.size * 0.35;
    const isOnLine = middle > bottom - phrase.size * 0.3 && middle < top + phrase.size * 0.3;
    const backwards = this.reading.isRightToLeft;
    const after = backwards ? left - phrase.right : phrase.left - right;
    const before = backwards ? phrase.left - right : left - phrase.right;
    const between = (from: number, to: number): boolean => this.isTaken(place, [Math.min(from, to), bottom, Math.max(from, to), top]);
    if (isOnLine && after > -3 && after < FARTHEST.tick && !between(backwards ? phrase.right : right, backwards ? left : phrase.left))
      yield ['right', Math.max(0, after) * 0.5];
    if (isOnLine && before > -3 && before < FARTHEST.tick && !between(backwards ? right : phrase.right, backwards ? phrase.left : left))
      yield ['left', Math.max(0, before) + 10];
    const over = phrase.base - top;
    if (over > -2 && over < 12 && overlap(phrase.left, phrase.right, left, right) > 0) yield ['above', over + 16];
    const under = bottom - phrase.base - phrase.size * 0.75;
    if (under > -3 && under < 10 && overlap(phrase.left, phrase.right, left - 2, right + 2) > 0) yield ['below', under + 16];
  }

  private *ofBox(phrase: Phrase, place: Place): Generator<[Relation, number]> {
    const owner = this.owners.get(phrase);
    const isOthers = owner !== undefined && owner !== place;
    const [left, bottom, right, top] = place.box;
    const { base, size } = phrase;
    const backwards = this.reading.isRightToLeft;
    const head = base + size * 0.75;
    if (base > bottom + 1 && head < top + 1 && phrase.left > left - 1 && phrase.right < right + 1) yield ['inside', 3];
    const isOnLine = base + size * 0.5 > bottom && base < top;
    const gap = backwards ? phrase.left - right : left - phrase.right;
    const isFree = !this.isTaken(
      place,
      backwards
        ? [right, Math.max(bottom, base - 1), phrase.left, Math.min(top, head)]
        : [phrase.right, Math.max(bottom, base - 1), left, Math.min(top, head)],
    );
    if (isOnLine && gap > -4 && gap < FARTHEST.beside && isFree) {
      // In a high box the words stand beside its first line.
      const isLow = top - bottom > 3 * size ? Math.min(10, Math.max(0, top - head - size) * 0.3) : 0;
      yield ['left', Math.min(Math.max(0, gap), FAR) * 0.35 + Math.max(0, gap - FAR) * 0.08 + isLow];
    }
    const over = base - top;
    const covers = overlap(phrase.left, phrase.right, left, right);
    if (!isOthers && over > -size * 0.5 && over < FARTHEST.above && covers > 0 && !this.isHeading(phrase)) {
      const isApart = this.isTaken(place, [Math.max(left, phrase.left), top, Math.min(right, phrase.right), base]);
      const shift = backwards ? Math.abs(phrase.right - right) : Math.abs(phrase.left - left);
      if (!isApart) yield ['above', Math.max(0, over) * 0.6 + Math.min(shift, 60) * 0.12 + this.crossed(place, top, base)];
    }
    const under = bottom - head;
    if (!isOthers && under > -2 && under < FARTHEST.below && covers > 0 && !this.isHeading(phrase)) {
      const isApart = this.isTaken(place, [Math.max(left, phrase.left), base - 1, Math.min(right, phrase.right), bottom]);
      const isUnderLine = this.reading.level.some(
        ({ at, from, to }) => Math.abs(at - bottom) < 4 && overlap(from, to, left, right) > (right - left) * 0.6,
      );
      // What stands below one box and above another belongs to the lower one, unless their neighbours tell otherwise.
      const isOfLower = this.placesAt
        .between(base - 14, base + 4)
        .some(
          ({ box: other, isTick }) =>
            !isTick &&
            !this.turned.has(place) &&
            other !== place.box &&
            base - other[3] > -2 &&
            base - other[3] < 12 &&
            overlap(other[0], other[2], phrase.left, phrase.right) > 0,
        );
      if (!isApart && !isOfLower)
        yield ['below', Math.max(0, under) * 0.6 + (isUnderLine ? 4 : 12) + Math.min(Math.abs(phrase.left - left), 60) * 0.08];
    }
  }

  /** What it costs that lines lie between a box and the words above it: one is the edge of the box, more are those of other cells. */
  private crossed(place: Place, from: number, to: number): number {
    const [left, , right] = place.box;
    const lines = this.reading.level.filter(
      ({ at, from: start, to: end }) => at > from - 2 && at < to && overlap(start, end, left, right) > (right - left) * 0.5,
    );
    return Math.max(0, lines.length - 1) * 8;
  }

  /** A box with those of its width that stand right on it, the uppermost last. */
  private stackAbove(place: Place, others: readonly Place[]): Place[] {
    const column = [place];
    for (let at = place; column.length < 500;) {
      const [left, , right, top] = at.box;
      const height = top - at.box[1];
      const upper = others.find(
        ({ box }) =>
          Math.abs(box[0] - left) < 4 &&
          Math.abs(box[2] - right) < 4 &&
          box[1] - top > -3 &&
          box[1] - top < Math.max(4, height) &&
          box[3] > top,
      );
      if (!upper) break;
      column.push((at = upper));
    }
    return column;
  }

  /** The label of a cell: what stands before its row and above its column. */
  private inTable(place: Place): PrintedLabel | null {
    const { box } = place;
    const near = (a: number, b: number): boolean => Math.abs(a - b) < 4;
    const others = this.places.filter(({ isTick }) => !isTick);
    const column = this.stackAbove(place, others);
    const row = others.filter(({ box: one }) => near(one[1], box[1]) && near(one[3], box[3])).sort((a, b) => a.box[0] - b.box[0]);
    const isInColumn =
      column.length > 1 ||
      others.some(
        ({ box: one }) => near(one[0], box[0]) && near(one[2], box[2]) && one[3] < box[1] + 2 && box[1] - one[3] < box[3] - box[1],
      );
    if (!isInColumn || row.length < 2) return null;
    const top = column.at(-1)!;
    // Words between a box and the one above it are its own.
    if (top.box !== box && this.candidates(place).some(({ relation }) => relation === 'above')) return null;
    const first = (this.reading.isRightToLeft ? row.at(-1) : row[0])!;
    const header = this.candidates(top).find(({ relation, cost, left }) => relation === 'above' && cost < 30 && left > box[0] - 8);
    const name = this.candidates(first).find(({ relation }) => relation === 'left');
    if (!header) return null;
    const cost = header.cost + (name?.cost ?? 0) * 0.5;
    return { text: name && name.text !== header.text ? `${name.text}, ${header.text}` : header.text, relation: 'table', cost };
  }
}
