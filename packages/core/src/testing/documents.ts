import { catalogue } from '../errors/catalogue.js';
import type { ErrorEntry, ErrorFields } from '../errors/entry.js';
import type { Law } from '../copies/laws.js';
import { batchLaw, deliveryLaw, printRunLaw } from '../copies/laws.js';
import { copyEvents, copyLaw } from '../copies/states.js';

const generated = '<!-- Generated from the code by `npm run docs`; a test holds the two together. -->\n\n';

/** docs/errors.md: every code with its sentence; fields stand in angle quotes. */
export function errorDocument(): string {
  const named = new Proxy({} as ErrorFields, { get: (_, name) => `‹${String(name)}›` });
  const lines = Object.entries(catalogue as Record<string, ErrorEntry<ErrorFields>>).map(
    ([code, entry]) => `| \`${code}\` | ${entry.status} | ${entry.sentence(named)} |`,
  );
  return `# Errors\n\n${generated}Every error that Mailbag says, with its stable code and the HTTP status of an answer with it. The code of a retired one is never used again.\n\n| code | status | sentence |\n|---|---|---|\n${lines.join('\n')}\n`;
}

/** A law as a diagram and as a table. */
function lawSection(title: string, first: string, final: readonly string[], law: Law<string>): string {
  const edges = Object.entries(law).flatMap(([event, { from, to }]) =>
    from.flatMap((one) => to.filter((other) => other !== one).map((other) => `  ${one} --> ${other}: ${event}`)),
  );
  const rows = Object.entries(law).map(([event, { from, to }]) => `| ${event} | ${from.join(', ')} | ${to.join(', ')} |`);
  return (
    `${title}\n\n\`\`\`mermaid\nstateDiagram-v2\n  [*] --> ${first}\n${edges.join('\n')}\n${final.map((state) => `  ${state} --> [*]\n`).join('')}\`\`\`\n\n` +
    `| event | from | to |\n|---|---|---|\n${rows.join('\n')}\n`
  );
}

/** docs/states.md: the laws of copies, batches, deliveries and print runs, as diagrams and as tables. */
export function stateDocument(): string {
  const ofCopies = Object.fromEntries(copyEvents.map((event) => [event, { from: copyLaw[event].from, to: [copyLaw[event].to] }]));
  return [
    `# States\n\n${generated}Nothing changes its state but by these laws.\n`,
    lawSection('## A copy', 'planned', ['complete', 'withdrawn'], ofCopies),
    lawSection('## A batch', 'planning', ['done', 'cancelled'], batchLaw),
    lawSection('## A delivery', 'queued', ['withdrawn', 'bounced'], deliveryLaw),
    lawSection('## A print run', 'making', ['printed', 'cancelled'], printRunLaw),
  ].join('\n');
}
