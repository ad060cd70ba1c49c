/** Numbers that look like chance and are the same for the same seed (the generator mulberry32, public domain; from memory). */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 0x1_0000_0000;
  };
}

/** Different places by chance, in order, the same for the same seed. @param total how many there are to choose from */
export function randomPlaces(total: number, count: number, seed: number): number[] {
  const next = seeded(seed);
  const wanted = Math.min(total, count);
  const places = new Set<number>();
  // Floyd's way: each set of places is as likely as any other, and none is drawn twice (Bentley and Floyd, CACM 30, 1987; from memory).
  for (let last = total - wanted; last < total; last++) {
    const place = Math.floor(next() * (last + 1));
    places.add(places.has(place) ? last : place);
  }
  return [...places].sort((a, b) => a - b);
}
