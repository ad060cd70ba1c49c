const ENDS = { '{{': '}}', '{%': '%}' } as const;

/** Changes what stands between braces, braces included, and leaves everything else as it is. One pass, however many braces there are. */
export function replaceTags(text: string, change: (tag: string) => string): string {
  let out = '';
  let at = 0;
  const isOpen = { '{{': true, '{%': true };
  for (let from = text.indexOf('{'); from >= 0; from = text.indexOf('{', from)) {
    const begin = text.slice(from, from + 2);
    const end = (begin === '{{' || begin === '{%') && isOpen[begin] ? text.indexOf(ENDS[begin], from + 2) : -1;
    if (end < 0) {
      // What is not closed from here on is not closed further on either.
      if (begin === '{{' || begin === '{%') isOpen[begin] = false;
      from++;
      continue;
    }
    out += text.slice(at, from) + change(text.slice(from, end + 2));
    at = from = end + 2;
  }
  return out + text.slice(at);
}
