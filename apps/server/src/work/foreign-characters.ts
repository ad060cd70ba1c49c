/** Adds the characters of a text that are not plain ASCII, and, when there are any, all of them: a word with one foreign letter is drawn in one face. */
export function foreignCharacters(text: string, into: Set<string>): void {
  if (/^[\u0020-\u007e\s]*$/.test(text)) return;
  for (const char of text) into.add(char);
}
