const { defineConfig } = require('eslint/config');
const expo = require('eslint-config-expo/flat');

const { readdirSync } = require('node:fs');
const path = require('node:path');

const ROOT = path.dirname(require.resolve('./package.json'));
const FEATURES = readdirSync(path.join(ROOT, 'apps/app/src/features')).map((name) => `features/${name}`);

const forbid = (files, group, message) => ({
  files,
  // A check may run the program from outside.
  ignores: ['**/*.test.ts'],
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
});

/** Rooms from the ground up: none imports one that stands after it. A list within the list: rooms on one floor, which do not import each other. */
const CORE = [
  'units',
  'statistics',
  'crank',
  'tdc',
  'cam',
  'measure',
  'verdict',
  'timing-set',
  ['clearance', 'valve-train', 'prepare', 'sign', 'instruments', 'photos'],
  'record',
  'findings',
  'report',
  'paper',
  'simulation',
  'practice',
  'judgement',
  'testing',
];
const APP = [
  'store',
  'ui',
  'pictures',
  'sync',
  'logbook',
  'photos',
  'forms',
  'findings',
  'instruments',
  'practice',
  'shell',
  'steps',
  FEATURES,
  'pieces',
];
const zonesOf = (root, floors) =>
  floors.flatMap((floor, at) =>
    [floor].flat().map((room) => ({
      target: `${root}/${room}/**/!(*.test).{ts,tsx}`,
      from: [...floors.slice(at + 1).flat(), ...[floor].flat().filter((other) => other !== room)].map(
        (other) => `${root}/${other}`,
      ),
      message: 'Rooms import only what stands below them: see the list in eslint.config.js.',
    })),
  );

/** The rules of React send each file through its compiler, which takes more than all other rules: they are asked where components and hooks are written. */
const whereReactIs = (part) =>
  part.plugins?.react ? { ...part, files: ['apps/app/**/*.{ts,tsx}'], ignores: ['**/*.test.{ts,tsx}'] } : part;

module.exports = defineConfig([
  { ignores: ['**/dist/**', '**/.expo/**', '**/drizzle/**', '**/coverage/**', '.yosoku/**'] },
  ...expo.map(whereReactIs),
  {
    settings: {
      'import/resolver': {
        typescript: { project: ['apps/*/tsconfig.json', 'packages/*/tsconfig.json', 'e2e/tsconfig.json'] },
      },
    },
  },
  {
    // What a module hands out TypeScript knows better, and node says of a script at its first start; these read every package to find out.
    rules: {
      'import/namespace': 'off',
      'import/default': 'off',
      'import/no-named-as-default': 'off',
      'import/no-named-as-default-member': 'off',
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      // TypeScript itself knows types and values of one name apart; the rule does not.
      '@typescript-eslint/no-redeclare': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      // Circles, also of types and of folders, are counted by scripts/house.mjs: `import/no-cycle` sees fewer, and takes two minutes.
      'import/no-restricted-paths': [
        'error',
        { basePath: ROOT, zones: [...zonesOf('packages/core/src', CORE), ...zonesOf('apps/app/src', APP)] },
      ],
    },
  },
  // Dependencies run one way: app → core, server → core, app → the server's types only.
  forbid(
    ['packages/core/src/**'],
    ['react*', 'expo*', 'hono*', 'drizzle*', 'node:*', '@yosoku/app*', '@yosoku/server*'],
    'The core knows nothing of interface, server or machine.',
  ),
  forbid(['apps/server/**'], ['@yosoku/app*', 'react*', 'expo*'], 'The server knows nothing of the interface.'),
  {
    files: ['apps/app/**/*.{ts,tsx}'],
    rules: {
      '@typescript-eslint/no-restricted-imports': [
        'error',
        {
          patterns: [{ group: ['@yosoku/server*'], allowTypeImports: true, message: 'Only the types of the server.' }],
        },
      ],
    },
  },
]);
