const { defineConfig } = require('eslint/config');
const expo = require('eslint-config-expo/flat');

const forbid = (files, group, message) => ({
  files,
  // A check may run the program from outside.
  ignores: ['**/*.test.ts'],
  rules: { 'no-restricted-imports': ['error', { patterns: [{ group, message }] }] },
});

module.exports = defineConfig([
  { ignores: ['**/dist/**', '**/.expo/**', '**/drizzle/**', '**/coverage/**', '.yosoku/**'] },
  ...expo,
  {
    settings: {
      'import/resolver': {
        typescript: { project: ['apps/*/tsconfig.json', 'packages/*/tsconfig.json', 'e2e/tsconfig.json'] },
      },
    },
  },
  {
    files: ['**/*.{ts,tsx}'],
    rules: {
      // TypeScript itself knows types and values of one name apart; the rule does not.
      '@typescript-eslint/no-redeclare': 'off',
      '@typescript-eslint/no-explicit-any': 'error',
      // `fc.assert`, `z.string`: the way both libraries are meant to be read.
      'import/no-named-as-default-member': 'off',
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
