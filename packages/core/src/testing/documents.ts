import { catalogue } from '../errors/catalogue.js';
import type { ErrorEntry, ErrorFields } from '../errors/entry.js';
import type { Law } from '../copies/laws.js';
import { batchLaw, deliveryLaw, printRunLaw } from '../copies/laws.js';
import { copyEvents, copyLaw } from '../copies/states.js';

import { ruleFacts, ruleKinds } from '../map/registry.js';

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

/** docs/fill-rules.md: every kind of fill rule with its parts in JSON and its examples. */
export function ruleDocument(): string {
  const sections = ruleKinds.map(ruleFacts).map(({ kind, title, help, parts, examples, makesValue }) => {
    const rows = Object.entries(parts).map(([name, says]) => `| \`${name}\` | ${says.replaceAll('|', '\\|')} |`);
    const shown = examples.map(
      ({ rule, from, gives }) =>
        `\`\`\`json\n${JSON.stringify(rule, null, 2)}\n\`\`\`\n\n` +
        `of ${Object.keys(from).length === 0 ? 'any record' : `the record \`${JSON.stringify(from)}\``} it makes ${gives === '' ? 'an empty field' : `\`${gives}\``}.\n`,
    );
    return (
      `## \`${kind}\`: ${title}\n\n${help}${makesValue ? '' : ' It hangs on its field, so it cannot be a part of a rule that works on a value.'}\n\n` +
      (rows.length > 0 ? `| part | what it is |\n|---|---|\n${rows.join('\n')}\n\n` : '') +
      shown.join('\n')
    );
  });
  return (
    `# Fill rules\n\n${generated}A field map is a JSON object: the full name of a field, and the rule that fills it. A text in place of a rule names a column. ` +
    'Rules are put together from rules: wherever a part is a rule, any of these can stand that does not hang on its field. ' +
    'A rule that cannot be worked out for a record is a stop, never an empty box in silence; a field that no rule fills keeps what the template itself shows.\n\n' +
    '```sh\nnpx mailbag check FORM.pdf --records SHEET --map MAP.json --json\nnpx mailbag fill FORM.pdf --records SHEET --map MAP.json --out FOLDER --name "{{plot}}.pdf"\n```\n\n' +
    `${sections.join('\n')}`
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
