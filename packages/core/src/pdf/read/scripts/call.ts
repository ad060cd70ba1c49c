export const unescaped = (text: string): string =>
  text.replace(/\\(?:u([0-9a-fA-F]{4})|x([0-9a-fA-F]{2})|(.))/g, (_, unicode?: string, hex?: string, char?: string) =>
    (unicode ?? hex) ? String.fromCharCode(Number.parseInt((unicode ?? hex)!, 16)) : ({ n: '\n', t: '\t', r: '\r' }[char!] ?? char!),
  );

/** A script without its block comments; one that is not closed stays. */
function withoutComments(script: string): string {
  let out = '';
  let at = 0;
  for (;;) {
    const begin = script.indexOf('/*', at);
    const end = begin < 0 ? -1 : script.indexOf('*/', begin + 2);
    if (end < 0) return out + script.slice(at);
    out += script.slice(at, begin);
    at = end + 2;
  }
}

/** A script without comments, and without a condition around the whole of it: formats of empty values are left aside anyway. */
function unwrapped(script: string): string {
  const lines = withoutComments(script).split(/[\r\n]/);
  const bare = lines
    .filter((line) => !line.trimStart().startsWith('//'))
    .join('\n')
    .trim();
  const end = /^if\s*\(/.test(bare) ? bare.indexOf(')') : -1;
  if (end < 0) return bare;
  const inside = bare.slice(end + 1).trim();
  return inside.startsWith('{') && inside.endsWith('}') ? inside.slice(1, -1).trim() : inside;
}

/** Arguments of the one call that a script consists of; null when it is anything else. */
export function callOf(script: string): { name: string; args: string[] } | null {
  const bare = unwrapped(script).replace(/;$/, '').trimEnd();
  const begin = /^(AF\w+)\s*\(/.exec(bare);
  if (!begin || !bare.endsWith(')')) return null;
  const inside = bare.slice(begin[0].length, -1);
  const args: string[] = [];
  const argument = /\s*(?:"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)'|(new\s+Array\s*\([^)]*\)|\[[^\]]*\])|([^,"'()[\]\s]+))\s*(,|$)/y;
  for (let at = 0; at < inside.length; at = argument.lastIndex) {
    argument.lastIndex = at;
    const found = argument.exec(inside);
    if (!found) return null;
    args.push(found[1] !== undefined || found[2] !== undefined ? unescaped(found[1] ?? found[2]!) : (found[3] ?? found[4]!));
  }
  return { name: begin[1]!, args };
}
