/**
 * The messages that Mailbag says, as they stand in its sources: templates after `t` and `phrase`, what is counted, and lists of words that are looked up
 * when they are known (`translated`). `node scripts/messages.mjs` prints those that the German catalogue lacks, by the part of the source that says them.
 */
import { readFileSync, readdirSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import ts from 'typescript';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
/** Where messages are said. */
const places = ['apps/web/src', 'packages/core/src', 'packages/contract/src', 'apps/server/src'];

const filesOf = (folder) =>
  readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((one) => one.isFile() && /\.tsx?$/.test(one.name) && !/\.test\.tsx?$|\.d\.ts$/.test(one.name))
    .map((one) => join(one.parentPath ?? one.path, one.name));

const pluralName = (at, [one, other = `${one}s`]) => `{${at}, plural, one {# ${one}} other {# ${other}}}`;

function messageOf(template) {
  if (ts.isNoSubstitutionTemplateLiteral(template)) return template.text;
  return template.templateSpans.reduce((name, { expression, literal }, at) => {
    const isPlural = ts.isCallExpression(expression) && expression.expression.getText() === 'plural';
    const forms = isPlural ? expression.arguments.slice(1).map((one) => one.text) : null;
    return `${name}${forms?.every((one) => one !== undefined) ? pluralName(at, forms) : `{${at}}`}${literal.text}`;
  }, template.head.text);
}

function messagesOfFile(file) {
  const source = ts.createSourceFile(
    file,
    readFileSync(file, 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const found = [];
  const texts = (node) => node.elements.filter(ts.isStringLiteral).map((one) => one.text);
  const visit = (node) => {
    if (ts.isTaggedTemplateExpression(node) && ['t', 'phrase'].includes(node.tag.getText())) found.push(messageOf(node.template));
    else if (ts.isCallExpression(node) && ['counted', 'plural'].includes(node.expression.getText())) {
      const forms = node.arguments.slice(1);
      const inMessage = ts.isTemplateSpan(node.parent) && ts.isTaggedTemplateExpression(node.parent.parent.parent);
      if (!inMessage && forms.length > 0 && forms.every(ts.isStringLiteral))
        found.push(
          pluralName(
            0,
            forms.map((one) => one.text),
          ),
        );
    } else if (
      ts.isJsxAttribute(node) &&
      node.name.getText() === 'noun' &&
      node.initializer?.expression &&
      ts.isArrayLiteralExpression(node.initializer.expression)
    ) {
      found.push(pluralName(0, texts(node.initializer.expression)));
    } else if (ts.isPropertyAssignment(node) && node.name.getText() === 'message' && ts.isStringLiteralLike(node.initializer))
      found.push(node.initializer.text);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** What is said of requests in the history. */
const actionsOf = (file) => [...readFileSync(file, 'utf8').matchAll(/^ {2}'[A-Z]+ [^']*': '([^']*)',$/gm)].map(([, words]) => words);

/** What jobs are called. */
const jobTitlesOf = (file) => {
  const text = readFileSync(file, 'utf8');
  return /jobs\.register\b/.test(text) ? [...text.matchAll(/\btitle: '([^']+)'/g)].map(([, title]) => title) : [];
};

/** Words that programs know and people see. */
function wordsOf(file) {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
  const found = [];
  const visit = (node) => {
    if (ts.isPropertyAssignment(node)) found.push(node.name.text);
    else if (ts.isStringLiteral(node) && ts.isArrayLiteralExpression(node.parent)) found.push(node.text);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** @returns {Map<string, string[]>} messages, with the files that say them */
export function messages() {
  const all = new Map();
  for (const place of places)
    for (const file of filesOf(join(root, place)).sort()) {
      const name = relative(root, file);
      const texts = name.endsWith('people/recorded-actions.ts')
        ? actionsOf(file)
        : name.endsWith('words/code-words.ts')
          ? wordsOf(file)
          : name.startsWith('apps/server/')
            ? [...jobTitlesOf(file), ...messagesOfFile(file)]
            : messagesOfFile(file);
      for (const message of texts)
        if (/\p{L}/u.test(message.replaceAll(/\{\d+\}/g, '')) && !name.endsWith('words/words.ts'))
          all.set(message, [...(all.get(message) ?? []), name]);
    }
  return all;
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) {
  const folder = join(root, 'apps/web/src/words/de');
  const known = new Set(readdirSync(folder).flatMap((file) => Object.keys(JSON.parse(readFileSync(join(folder, file), 'utf8')))));
  for (const [message, [file]] of messages()) if (!known.has(message)) console.log(`${file}\t${JSON.stringify(message)}`);
}
