/** Things of a page by the height at which they stand, so that few have to be looked at. */
export class Bands<Thing> {
  private readonly bands = new Map<number, Thing[]>();
  private static readonly HEIGHT = 40;

  constructor(things: readonly Thing[], reach: (thing: Thing) => readonly [bottom: number, top: number]) {
    for (const thing of things) {
      const [bottom, top] = reach(thing).map((at) => Math.floor(at / Bands.HEIGHT)) as [number, number];
      // A box that is higher than any page is not looked for in all of it.
      for (let band = bottom; band <= Math.min(top, bottom + 400); band++) {
        const there = this.bands.get(band);
        if (there) there.push(thing);
        else this.bands.set(band, [thing]);
      }
    }
  }

  /** Those between two heights and some around them, each once. */
  between(bottom: number, top: number): Thing[] {
    const [first, last] = [Math.floor(bottom / Bands.HEIGHT), Math.floor(top / Bands.HEIGHT)];
    if (first === last) return this.bands.get(first) ?? [];
    const found = new Set<Thing>();
    for (let band = first; band <= Math.min(last, first + 400); band++) for (const thing of this.bands.get(band) ?? []) found.add(thing);
    return [...found];
  }
}
