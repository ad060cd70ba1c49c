import { catalogue } from '../errors/catalogue.js';
import type { ErrorCode, ErrorFields } from '../errors/catalogue.js';
import { copyEvents, copyLaw, copyStates } from '../copies/states.js';

const generated = '<!-- Generated from the code by `npm run docs`; a test holds the two together. -->\n\n';

/** docs/errors.md: every code with its sentence; fields stand in angle quotes. */
export function errorDocument(): string {
  const named = new Proxy({} as ErrorFields, { get: (_, name) => `‹${String(name)}›` });
  const lines = (Object.keys(catalogue) as ErrorCode[]).map(
    (code) => `| \`${code}\` | ${(catalogue[code] as (fields: ErrorFields) => string)(named)} |`,
  );
  return `# Errors\n\n${generated}Every error that Mailbag says, with its stable code. The code of a retired one is never used again.\n\n| code | sentence |\n|---|---|\n${lines.join('\n')}\n`;
}

/** docs/states.md: the law of a copy's states, as a diagram and as a table. */
export function stateDocument(): string {
  const edges = copyEvents.flatMap((event) => copyLaw[event].from.map((from) => `  ${from} --> ${copyLaw[event].to}: ${event}`));
  const rows = copyEvents.map((event) => `| ${event} | ${copyLaw[event].from.join(', ')} | ${copyLaw[event].to} |`);
  return (
    `# The states of a copy\n\n${generated}\`\`\`mermaid\nstateDiagram-v2\n  [*] --> planned\n${edges.join('\n')}\n  complete --> [*]\n  withdrawn --> [*]\n\`\`\`\n\n` +
    `States: ${copyStates.join(', ')}.\n\n| event | from | to |\n|---|---|---|\n${rows.join('\n')}\n`
  );
}
