/** Packages in Flow, or that lean on what Babel's presets for React Native do. */
const BY_BABEL = ['(@|jest-)?react-native', '@?expo', '@react-navigation'];
/** Packages that come as modules, which Jest does not read as they are. */
const MODULES = ['immer', 'react-redux', 'redux-remember', 'uuid', 'lucide', 'gifted-charts-core'];
/** Begin like those of Babel, and come as Jest reads them. */
const AS_THEY_COME = ['react-native-svg/lib/commonjs/(?!fabric)', 'react-native-css-interop/dist/(?!doctor)'];

/** For what needs nothing of Babel’s, which takes longer. */
const swc = [
  '@swc/jest',
  {
    jsc: {
      target: 'es2022',
      parser: { syntax: 'typescript', tsx: true },
      transform: { react: { runtime: 'automatic' } },
    },
    module: { type: 'commonjs' },
  },
];

module.exports = {
  displayName: 'app',
  preset: 'jest-expo',
  setupFiles: ['<rootDir>/src/testing/setup.ts'],
  setupFilesAfterEnv: ['<rootDir>/src/testing/patience.ts'],
  sandboxInjectedGlobals: require('../../scripts/quick-globals.json'),
  // What draws. The rest of the app's checks is the project `logic` of the repository's configuration.
  testMatch: ['<rootDir>/src/**/*.test.tsx'],
  moduleNameMapper: {
    '^@/(.*)$': '<rootDir>/src/$1',
  },
  transform: {
    '\\.mjs$': swc,
    '/(apps/app|packages/core)/(?!.*node_modules).*\\.tsx?$': swc,
    [`/node_modules/(${MODULES.join('|')}).*\\.js$`]: swc,
    // Here are no pieces to fetch: what is imported when it is wanted is required then.
    '\\.[jt]sx?$': [
      'babel-jest',
      {
        presets: ['babel-preset-expo'],
        plugins: ['@babel/plugin-transform-dynamic-import'],
        configFile: false,
        // Node knows classes and the like, as Hermes does: they need not be written otherwise.
        caller: { name: 'metro', bundler: 'metro', platform: 'ios', engine: 'hermes' },
      },
    ],
  },
  transformIgnorePatterns: [`/node_modules/(?!(${[...BY_BABEL, ...MODULES].join('|')}))`, ...AS_THEY_COME],
};
