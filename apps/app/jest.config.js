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
];

module.exports = {
  displayName: 'app',
  preset: 'jest-expo',
  testMatch: ['<rootDir>/src/**/*.test.ts?(x)'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
  transformIgnorePatterns: [`/node_modules/(?!(${TRANSLATED.join('|')}))`],
};
