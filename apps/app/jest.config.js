/** Packages that come as modules of the kind that Jest has to translate. */
const TRANSLATED = [
  '(@|jest-)?react-native',
  '@?expo',
  '@react-navigation',
  'immer',
  'react-redux',
  'redux-remember',
  'uuid',
  'lucide',
  'gifted-charts-core',
];

module.exports = {
  displayName: 'app',
  preset: 'jest-expo',
  setupFiles: ['<rootDir>/src/testing/setup.ts'],
  setupFilesAfterEnv: ['<rootDir>/src/testing/patience.ts'],
  sandboxInjectedGlobals: require('../../scripts/quick-globals.json'),
  testMatch: ['<rootDir>/src/**/*.test.ts?(x)', '<rootDir>/service-worker/*.test.ts'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
  },
  transform: {
    // Icons come one by one only as modules.
    '\\.mjs$': ['@swc/jest', { module: { type: 'commonjs' } }],
    // Here are no pieces to fetch: what is imported when it is wanted is required then.
    '\\.[jt]sx?$': [
      'babel-jest',
      {
        presets: ['babel-preset-expo'],
        plugins: ['@babel/plugin-transform-dynamic-import'],
        configFile: false,
        caller: { name: 'metro', bundler: 'metro', platform: 'ios' },
      },
    ],
  },
  transformIgnorePatterns: [`/node_modules/(?!(${TRANSLATED.join('|')}))`],
};
