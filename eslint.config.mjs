import nextVitals from 'eslint-config-next/core-web-vitals';
import boundaries from 'eslint-plugin-boundaries';
import tseslint from 'typescript-eslint';

/** The rooms of the house, and what each may import (docs/architecture.md). */
const ROOMS = {
  lib: [],
  core: ['lib'],
  schema: ['lib', 'core'],
  formats: ['lib', 'core', 'schema'],
  i18n: ['lib'],
  db: ['lib', 'core', 'schema'],
  server: ['lib', 'core', 'db'],
  services: ['lib', 'core', 'schema', 'formats', 'db', 'server'],
  jobs: ['lib', 'core', 'schema', 'formats', 'db', 'server', 'services'],
  ui: ['lib', 'core', 'i18n'],
  workers: ['lib', 'core', 'formats'],
  'features-common': ['lib', 'core', 'schema', 'formats', 'i18n', 'db', 'server', 'services', 'ui', 'workers'],
  'visit-shell': ['lib', 'core', 'schema', 'i18n', 'db', 'server', 'services', 'ui', 'workers', 'features-common'],
  'visit-step': ['lib', 'core', 'schema', 'i18n', 'db', 'server', 'services', 'ui', 'workers', 'features-common', 'visit-shell'],
  features: ['lib', 'core', 'schema', 'formats', 'i18n', 'db', 'server', 'services', 'ui', 'workers', 'features-common'],
  app: ['lib', 'core', 'schema', 'formats', 'i18n', 'server', 'services', 'ui', 'features-common', 'visit-shell', 'visit-step', 'features'],
  standins: ['lib', 'core'],
  demo: ['lib', 'core', 'schema', 'db', 'server', 'services', 'jobs', 'standins'],
  scripts: ['lib', 'core', 'schema', 'db', 'server', 'services', 'demo', 'tests'],
  tests: [
    'lib',
    'core',
    'schema',
    'formats',
    'i18n',
    'db',
    'server',
    'services',
    'jobs',
    'ui',
    'workers',
    'features-common',
    'visit-shell',
    'visit-step',
    'features',
    'app',
    'standins',
    'demo',
    'scripts',
  ],
};
const elements = Object.keys(ROOMS).map((type) => {
  if (type === 'features-common') return { type, pattern: 'src/features/common' };
  if (type === 'visit-shell') return { type, pattern: 'src/features/visit/shell' };
  if (type === 'visit-step') return { type, pattern: ['src/features/visit/steps/*', 'src/features/visit/print'], capture: ['step'] };
  if (type === 'features') return { type, pattern: 'src/features/*', capture: ['feature'] };
  if (['demo', 'scripts', 'tests'].includes(type)) return { type, pattern: type };
  return { type, pattern: `src/${type}` };
});
const own = (type, part) => ({
  from: { element: { type, captured: { [part]: '*' } } },
  allow: { to: { element: { type, captured: { [part]: `{{ from.captured.${part} }}` } } } },
});
const policies = Object.entries(ROOMS).flatMap(([type, allowed]) => [
  // A room may always import from itself; one feature, or one step of a visit, never from another.
  ...(type === 'features' || type === 'visit-step'
    ? [own(type, type === 'features' ? 'feature' : 'step')]
    : [{ from: { element: { type } }, allow: { to: { element: { type } } } }]),
  ...(allowed.length > 0 ? [{ from: { element: { type } }, allow: { to: { element: { types: { anyOf: allowed } } } } }] : []),
]);

const PURE = ['src/lib/**/*.ts', 'src/core/**/*.ts', 'src/schema/**/*.ts'];

export default tseslint.config(
  { ignores: ['.next/**', '.next-test/**', '.next-dev/**', 'node_modules/**', 'next-env.d.ts', 'test-results/**', 'playwright-report/**', '.data/**'] },
  ...nextVitals,
  ...tseslint.configs.recommendedTypeChecked.map((c) => ({ ...c, files: ['**/*.ts', '**/*.tsx'] })),
  {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': 'error',
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unnecessary-condition': 'off',
    },
  },
  {
    files: ['src/**/*.{ts,tsx}'],
    plugins: { boundaries },
    settings: { 'boundaries/elements': elements, 'boundaries/ignore': ['src/proxy.ts'], 'import/resolver': { typescript: { alwaysTryTypes: true } } },
    rules: {
      'boundaries/no-unknown-files': 'error',
      'boundaries/dependencies': ['error', { default: 'disallow', policies }],
    },
  },
  {
    // A unit test may try its room on the demo's lenses.
    files: ['src/**/*.test.ts'],
    rules: {
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [...policies, { from: { element: { types: { anyOf: Object.keys(ROOMS) } } }, allow: { to: { element: { type: 'demo' } } } }],
        },
      ],
    },
  },
  {
    // A use case that waited for a second connection while holding its first could stop the whole server: only what runs
    // before the transaction has pools in reach.
    files: ['src/services/**/*.ts', 'src/db/**/*.ts'],
    ignores: [
      'src/services/define.ts',
      'src/services/session/access.ts',
      'src/services/session/throttle.ts',
      'src/services/session/queries.ts',
      'src/db/client.ts',
    ],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [{ group: ['**/server/database'], message: 'A use case has one connection: its transaction.' }],
          paths: [{ name: 'postgres', allowTypeImports: true, message: 'Pools are opened in db/client alone.' }],
        },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "Property[key.name='run'] MemberExpression[object.name='deps']", message: 'Nothing inside run may take another connection: use prepare.' },
        { selector: "CallExpression[callee.property.name='begin'][callee.object.name='tx']", message: 'One transaction a use case.' },
      ],
    },
  },
  {
    // A component draws, a model reckons, a hook commands: what grows past this does more than one of them.
    files: ['src/{app,features,i18n,ui}/**/*.tsx'],
    rules: { 'max-lines-per-function': ['error', { max: 150 }] },
  },
  {
    files: ['src/{features,i18n,ui}/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 60 }] },
  },
  {
    files: ['src/{core,db,formats,jobs,lib,schema,services}/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'max-lines-per-function': ['error', { max: 75 }] },
  },
  {
    files: ['src/**/*.tsx'],
    rules: { 'react/jsx-no-literals': ['error', { noStrings: false, allowedStrings: ['·', '/', '←', '→', '×', ' '] }] },
  },
  {
    files: PURE,
    // The calendar reckons with the platform's own; it never asks what time it is.
    ignores: ['**/*.test.ts', 'src/core/calendar/dates.ts'],
    rules: {
      'no-restricted-globals': ['error', { name: 'Date', message: 'Time is passed in; calendars use temporal-polyfill.' }],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'Core is deterministic.' }],
      'no-restricted-imports': ['error', { patterns: ['react', 'react-dom', 'next', 'next/*', 'postgres', 'node:*'] }],
    },
  },
);
