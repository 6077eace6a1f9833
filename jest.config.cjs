const node = (name, folder) => ({
  displayName: name,
  testEnvironment: 'node',
  rootDir: __dirname,
  testMatch: [`<rootDir>/${folder}/**/*.test.ts`],
  setupFilesAfterEnv: ['<rootDir>/tools/jest-alike.cjs'],
  // None of these stands a module in for another: jest.mock would have to be raised above the imports, as Babel does it.
  transform: { '\\.[cm]?[jt]sx?$': '<rootDir>/tools/jest-node.cjs' },
  transformIgnorePatterns: [
    '/node_modules/(?!(@heliaster|@noble|@wasm-audio-decoders|mpg123-decoder|ogg-opus-decoder|opus-decoder|codec-parser|simple-yenc|@eshaz|mediabunny)(/|$))',
  ],
})

// A busy machine takes its time: no test is a stopwatch.
module.exports = {
  testTimeout: 30000,
  projects: [node('core', 'core'), node('demo', 'demo'), node('cli', 'cli'), '<rootDir>/app/jest.config.js'],
}
