import tseslint from 'typescript-eslint';
import { importX } from 'eslint-plugin-import-x';
import hooks from 'eslint-plugin-react-hooks';
import regexp from 'eslint-plugin-regexp';

/** Who may import whom. Each zone: files of `target` may not import anything from `from`. */
const zone = (target, from, message, except) => ({ target, from, message, ...(except ? { except } : {}) });
const core = './packages/core/src';

/** Folders of the server from the lowest on: each knows those of the lines before it alone, their types too. */
const serverLayers = [
  ['platform', 'readers'],
  ['files'],
  ['persistence'],
  ['stores'],
  ['history'],
  ['accounts'],
  ['live', 'senders', 'settings'],
  ['frozen', 'jobs', 'people'],
  ['migrations', 'work'],
  ['archive', 'databases', 'templates'],
  ['copies', 'sources', 'threads'],
  ['paper', 'safety'],
  ['delivery', 'registers', 'retention'],
  ['incoming', 'mailings'],
  ['bounces'],
  ['batches', 'corrections', 'reminders'],
  ['desk'],
];
const server = './apps/server/src';
const layerZones = serverLayers.flatMap((layer, level) => {
  const notBelow = serverLayers.slice(level).flat();
  return layer.flatMap((folder) => {
    const others = notBelow.filter((other) => other !== folder).map((other) => `${server}/${other}`);
    const message = `${folder} lies below that folder or beside it (eslint.config.js, serverLayers).`;
    return others.length > 0 ? [zone(`${server}/${folder}`, others, message)] : [];
  });
});

const pdfLibrary = { name: '@cantoo/pdf-lib', message: 'Only packages/core/src/pdf knows the PDF library.' };

/** SQL stands in stores and migrations; nobody else begins transactions or asks the database in its own words. */
const onlyInStores = [
  ...['prepare', 'pragma', 'createQueryBuilder', 'transaction', 'query'].map((name) => ({
    selector: `CallExpression[callee.property.name='${name}']`,
    message: 'Ask the database through a store (apps/server/src/stores).',
  })),
  ...['Literal[value=', 'TemplateElement[value.raw='].map((kind) => ({
    selector: `${kind}/^\\s*(SELECT\\s|INSERT (OR \\w+ )?INTO\\s|UPDATE \\w+ SET\\s|DELETE FROM\\s|PRAGMA\\s|BEGIN\\b|COMMIT\\b)/]`,
    message: 'SQL stands in a store (apps/server/src/stores).',
  })),
];

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'coverage/**', '.mailbag/**'] },
  ...tseslint.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    plugins: { 'import-x': importX, 'react-hooks': hooks, regexp },
    settings: {
      'import-x/resolver': {
        typescript: {
          noWarnOnMultipleProjects: true,
          project: ['packages/*/tsconfig.json', 'apps/*/tsconfig.json', 'tsconfig.tests.json'],
        },
      },
    },
    rules: {
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { disallowTypeAnnotations: false }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      // A pattern that takes the square or more of its text's length lets one message stop the server.
      'regexp/no-super-linear-backtracking': ['error', { report: 'potential' }],
      'regexp/no-super-linear-move': 'error',
      'import-x/no-cycle': 'error',
      'import-x/no-restricted-paths': [
        'error',
        {
          zones: [
            zone(`${core}/pdf`, `${core}/map`, 'The PDF engine knows no rules.'),
            zone(`${core}/pdf`, `${core}/checks`, 'The PDF engine knows no checks.'),
            zone(`${core}/pdf`, `${core}/tables`, 'The PDF engine knows no records.'),
            ...['map', 'checks', 'patterns'].map((folder) =>
              zone(`${core}/${folder}`, `${core}/pdf`, 'Only the descriptions of fields are known here.', ['./field.ts', './value.ts']),
            ),
            zone('./packages/core', './apps', 'Core is below the applications.'),
            zone('./packages/folder', './apps', 'The data folder is below the applications.'),
            zone('./packages/host', './apps', 'Node’s side of the ports is below the applications.'),
            zone('./apps/cli', './apps/server', 'The command line is thin over core.'),
            zone('./packages/contract', './apps', 'The contract is below the applications.'),
            zone('./apps/web', './apps/server', 'The web application speaks HTTP with the server.'),
            zone('./apps/web/src/ui', './apps/web/src/screens', 'ui knows no screen.'),
            zone('./apps/web/src/ui', './apps/web/src/features', 'ui knows no feature.'),
            zone('./standins', './packages', 'Stand-ins would share our bugs.'),
            zone('./standins', './apps', 'Stand-ins would share our bugs.'),
            zone('./attack', './apps', 'Attacks come from outside.'),
            zone('./e2e', './apps', 'Browser tests speak HTTP and browser only.'),
            zone('./e2e', './packages', 'Browser tests speak HTTP and browser only.'),
            ...layerZones,
            ...serverLayers.flat().flatMap((noun) =>
              serverLayers
                .flat()
                .filter((other) => other !== noun)
                .map((other) =>
                  zone(`${server}/${noun}`, `${server}/${other}/${other}.entity.ts`, 'Use the service of another noun, not its entity.'),
                ),
            ),
          ],
        },
      ],
      'no-restricted-imports': ['error', { paths: [pdfLibrary] }],
    },
  },
  {
    // Words are made of words: an object in a sentence would reach people as “[object Object]”.
    files: ['apps/server/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    languageOptions: { parserOptions: { project: 'apps/server/tsconfig.json', tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true, allowAny: true, allowNever: true, allowRegExp: true },
      ],
    },
  },
  {
    files: ['apps/server/src/**'],
    ignores: [
      'apps/server/src/{files,platform,readers,persistence}/**',
      // The key of the folder, and backups, which may lie elsewhere.
      'apps/server/src/safety/{folder-key,backups.service}.ts',
      'apps/server/src/web-application.ts',
      '**/*.test.ts',
    ],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          paths: [
            pdfLibrary,
            ...['node:fs', 'node:fs/promises'].map((name) => ({
              name,
              message: 'Kept files are asked for by key (apps/server/src/files).',
            })),
          ],
        },
      ],
    },
  },
  // Nest reads constructor types at run time, so imports that look like types are values.
  { files: ['apps/server/src/**'], rules: { '@typescript-eslint/consistent-type-imports': 'off' } },
  {
    files: ['apps/server/src/**'],
    ignores: [
      'apps/server/src/{stores,migrations,persistence}/**',
      // Databases of other people.
      'apps/server/src/readers/**',
      'apps/server/src/registers/database-register.ts',
      // How connections are opened.
      'apps/server/src/data-source.ts',
      'apps/server/src/threads/worker-database.ts',
      '**/*.test.ts',
    ],
    rules: { 'no-restricted-syntax': ['error', ...onlyInStores] },
  },
  // The request classes of the contract come with class-validator, so screens have them loaded with the first form that is sent.
  {
    files: ['apps/web/src/**'],
    ignores: ['apps/web/src/features/forms/contract-resolver.ts'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        { paths: [{ name: '@mailbag/contract', allowTypeImports: true, message: 'The web takes types of the contract only.' }] },
      ],
    },
  },
  // What people read is said through the catalogues of words.
  {
    files: ['apps/web/src/**/*.tsx'],
    ignores: ['**/*.test.tsx'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'JSXElement:not([openingElement.name.name="code"]) > JSXText[value=/\\p{L}{2}/u]',
          message: 'Say it as a message: {t`…`}.',
        },
        {
          selector:
            'JSXAttribute[name.name=/^(label|aria-label|title|placeholder|help|what|tip|yes|no|text|lead|searchHint|alt)$/] > Literal[value=/\\p{Ll}{2}/u]',
          message: 'Say it as a message: {t`…`}.',
        },
        {
          selector: 'TaggedTemplateExpression CallExpression[callee.name="plural"][arguments.1.type!="Literal"]',
          message: 'A message is known by the forms of its nouns, so they are written out; say others as {counted(…)} within it.',
        },
      ],
    },
  },
  // What is loaded before a program, by a flag or by the bundle.
  { files: ['**/*.cjs'], rules: { '@typescript-eslint/no-require-imports': 'off' } },
  // The bench runs the library beside ours, and tests fill forms that it wrote.
  {
    files: ['packages/core/src/pdf/**', 'packages/core/src/testing/told-forms/**', 'bench/**', 'testing/**'],
    rules: { 'no-restricted-imports': 'off' },
  },
);
