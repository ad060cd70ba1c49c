export const unescaped = (text: string): string =>
  text.replace(/\\(?:u([0-9a-fA-F]{4})|x([0-9a-fA-F]{2})|(.))/g, (_, unicode?: string, hex?: string, char?: string) =>
    (unicode ?? hex) ? String.fromCharCode(Number.parseInt((unicode ?? hex)!, 16)) : ({ n: '\n', t: '\t', r: '\r' }[char!] ?? char!),
  );

/** Arguments of the one call that a script consists of; null when it is anything else. */
export function callOf(script: string): { name: string; args: string[] } | null {
  const call = /^\s*(AF\w+)\s*\(([\s\S]*)\)\s*;?\s*$/.exec(script.replace(/\/\*[\s\S]*?\*\//g, ''));
  if (!call) return null;
  const args: string[] = [];
  const argument = /\s*(?:"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)'|(new\s+Array\s*\([^)]*\)|\[[^\]]*\])|([^,"'()[\]\s]+))\s*(,|$)/y;
  for (let at = 0; at < call[2]!.length; at = argument.lastIndex) {
    argument.lastIndex = at;
    const found = argument.exec(call[2]!);
    if (!found) return null;
    args.push(found[1] !== undefined || found[2] !== undefined ? unescaped(found[1] ?? found[2]!) : (found[3] ?? found[4]!));
  }
  return { name: call[1]!, args };
}
