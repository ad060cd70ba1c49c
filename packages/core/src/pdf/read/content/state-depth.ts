import { contentTokens } from './tokens.js';

/** No content has more states on its stack; what looks like it is damage. */
const MOST = 64;

/**
 * How a page's content uses the graphics state stack over all of its streams (ISO 32000-2, 8.4.2).
 * `opens`: states that must be saved before it, because it restores more than it saved; `closes`: states that it leaves saved.
 */
export function stateDepth(streams: readonly (Uint8Array | null)[]): { opens: number; closes: number } {
  let depth = 0;
  let lowest = 0;
  for (const bytes of streams) {
    if (!bytes) continue;
    for (const token of contentTokens(bytes)) {
      if (token.kind !== 'operator') continue;
      if (token.text === 'q') depth++;
      else if (token.text === 'Q') lowest = Math.min(lowest, --depth);
    }
  }
  return { opens: Math.min(MOST, Math.abs(lowest)), closes: Math.min(MOST, depth - lowest) };
}
