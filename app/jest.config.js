const web = require('jest-expo/web/jest-preset')

/** As pages are made: with React's compiler. */
const caller = { name: 'metro', bundler: 'metro', platform: 'web', supportsReactCompiler: true }

module.exports = {
  preset: 'jest-expo/web',
  transform: { ...web.transform, '\\.[jt]sx?$': ['babel-jest', { caller }] },
  displayName: 'app',
  setupFilesAfterEnv: [...(web.setupFilesAfterEnv ?? []), '<rootDir>/testing/set-up.ts'],
  testMatch: ['<rootDir>/**/*.test.tsx', '<rootDir>/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', '/dist/'],
  moduleNameMapper: { '^@react-native-vector-icons/.*$': '<rootDir>/no-icon-set.js', ...web.moduleNameMapper },
  transformIgnorePatterns: [
    '/node_modules/(?!(react-native|@react-native|@react-native-community|expo|@expo|@expo-google-fonts|react-navigation|standard-navigation|@react-navigation|@rneui|zustand|@heliaster|@noble|@wasm-audio-decoders|mpg123-decoder|ogg-opus-decoder|opus-decoder|codec-parser|simple-yenc|@eshaz|mediabunny)(/|-|$))',
  ],
}
