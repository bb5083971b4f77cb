const swc = {
  '^.+\\.[cm]?tsx?$': [
    '@swc/jest',
    { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'commonjs' } },
  ],
};
const node = {
  testEnvironment: 'node',
  testMatch: ['**/*.test.ts'],
  transform: swc,
  setupFilesAfterEnv: ['<rootDir>/scripts/patience.ts'],
};

module.exports = {
  projects: [
    {
      ...node,
      displayName: 'core',
      roots: ['<rootDir>/packages/core/src'],
      // Jest runs each file in a context of its own, where every look at a global costs a search; these are handed to each module. Not to those of the
      // server: a package there has a class of such a name.
      sandboxInjectedGlobals: require('./scripts/quick-globals.json'),
    },
    { ...node, displayName: 'api', roots: ['<rootDir>/apps/server/src'] },
    { ...node, displayName: 'commands', roots: ['<rootDir>/scripts'] },
    { ...node, displayName: 'e2e', roots: ['<rootDir>/e2e'] },
    '<rootDir>/apps/app',
  ],
};
