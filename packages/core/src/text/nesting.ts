const [QUOTE, BACKSLASH] = [0x22, 0x5c];
const [SQUARE, BRACE, SQUARE_END, BRACE_END] = [0x5b, 0x7b, 0x5d, 0x7d];

/**
 * How deep arrays and objects of a JSON text stand in one another, found without parsing it, in one pass.
 * @param enough the count ends one above this
 */
export function nestingOf(json: string, enough: number): number {
  let level = 0;
  let deepest = 0;
  let isText = false;
  for (let at = 0; at < json.length; at++) {
    const code = json.charCodeAt(at);
    if (isText) {
      if (code === BACKSLASH) at++;
      else if (code === QUOTE) isText = false;
    } else if (code === QUOTE) isText = true;
    else if (code === SQUARE || code === BRACE) {
      if (++level > deepest && (deepest = level) > enough) return deepest;
    } else if (code === SQUARE_END || code === BRACE_END) level--;
  }
  return deepest;
}
