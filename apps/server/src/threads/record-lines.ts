import { plainText, textFinder } from '@mailbag/core';
import { recordStore } from '../stores/record.store.js';
import { threadSql } from './worker-database.js';

/** Records that are looked through at a time. */
const BLOCK = 2000;

/** Characters that are kept for the next question of whoever looks, each of one or two bytes: those of 100,000 records with 25 columns. */
const MOST_CHARACTERS = 110_000_000;

/** Blocks of a source as people look for what stands in them, by its state. */
let plain: { stamp: string; blocks: string[] } | null = null;

/**
 * Lines of records, each its JSON, from blocks that may hold a text; all of them where there is none to look for. Most blocks are passed over at once.
 * @returns the place of each record, and its line
 */
export async function* linesHolding(reading: { readingId: number; stamp: string }, wanted: string): AsyncGenerator<[number, string]> {
  const text = JSON.stringify(wanted).slice(1, -1);
  const looked = plainText(text);
  const inLine = textFinder(text);
  const known = plain?.stamp === reading.stamp ? plain.blocks : null;
  const blocks: string[] = [];
  let characters = 0;
  for (let from = 0; known === null || from < known.length * BLOCK; from += BLOCK) {
    const seen = known?.[from / BLOCK];
    if (seen !== undefined && !seen.includes(looked)) continue;
    const block = await recordStore.linesOf(threadSql(), reading.readingId, from, from + BLOCK);
    if (block === '') break;
    const folded = seen ?? plainText(block);
    characters += folded.length;
    if (characters > MOST_CHARACTERS) blocks.length = 0;
    else if (known === null) blocks.push(folded);
    if (!folded.includes(looked)) continue;
    for (const [at, line] of block.split('\n').entries()) if (inLine(line)) yield [from + at, line];
  }
  if (known === null && characters <= MOST_CHARACTERS) plain = { stamp: reading.stamp, blocks };
}
