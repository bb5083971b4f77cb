const swc = [
  '@swc/jest',
  { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
];
/** Packages that come as modules, which Jest does not read as they are. */
const MODULES = '(redux-remember|uuid)/';
/**
 * Jest runs each file in a context of its own, where every look at a global costs a search; these are handed to each module. Not to those of the
 * server: a package there has a class of such a name.
 */
const QUICK_GLOBALS = require('./scripts/quick-globals.json');
const node = {
  testEnvironment: 'node',
  testMatch: ['**/*.test.ts'],
  transform: { '^.+\\.[cm]?tsx?$': swc },
  setupFilesAfterEnv: ['<rootDir>/scripts/patience.ts'],
};

module.exports = {
  projects: [
    {
      ...node,
      displayName: 'core',
      roots: ['<rootDir>/packages/core/src'],
      sandboxInjectedGlobals: QUICK_GLOBALS,
    },
    {
      ...node,
      // What the app does without drawing anything: it needs no React Native, which takes longer to load than most of these checks do.
      displayName: 'logic',
      roots: ['<rootDir>/apps/app/src', '<rootDir>/apps/app/service-worker'],
      moduleNameMapper: { '^@/(.*)$': '<rootDir>/apps/app/src/$1' },
      transform: { ...node.transform, [`/node_modules/${MODULES}.*\\.js$`]: swc },
      transformIgnorePatterns: [`/node_modules/(?!${MODULES})`],
      sandboxInjectedGlobals: QUICK_GLOBALS,
    },
    { ...node, displayName: 'api', roots: ['<rootDir>/apps/server/src'] },
    { ...node, displayName: 'commands', roots: ['<rootDir>/scripts'] },
    {
      ...node,
      displayName: 'e2e',
      roots: ['<rootDir>/e2e'],
      globalSetup: '<rootDir>/e2e/set-up.ts',
      globalTeardown: '<rootDir>/e2e/tear-down.ts',
    },
    '<rootDir>/apps/app',
  ],
};
