const babel = {
  '\\.[cm]?[jt]sx?$': [
    'babel-jest',
    {
      configFile: false,
      presets: ['babel-preset-expo'],
      plugins: [require.resolve('./tools/jest-globals.cjs')],
      caller: { name: 'metro', bundler: 'metro', platform: 'web' },
    },
  ],
}
const node = (name, folder) => ({
  displayName: name,
  testEnvironment: 'node',
  rootDir: __dirname,
  testMatch: [`<rootDir>/${folder}/**/*.test.ts`],
  transform: babel,
  transformIgnorePatterns: [
    '/node_modules/(?!(@heliaster|@noble|@wasm-audio-decoders|mpg123-decoder|ogg-opus-decoder|opus-decoder|codec-parser|simple-yenc|@eshaz|mediabunny)(/|$))',
  ],
})

// A busy machine takes its time: no test is a stopwatch.
module.exports = {
  testTimeout: 30000,
  projects: [node('core', 'core'), node('demo', 'demo'), node('cli', 'cli'), '<rootDir>/app/jest.config.js'],
}
