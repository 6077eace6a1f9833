const { join, sep } = require('node:path')

const { isCompiled } = require('./compiled')

/** Nothing here is animated on a thread of its own: looking for such functions is a fifth of the preset's work. */
const expo = ['babel-preset-expo', { 'react-compiler': { sources: isCompiled }, reanimated: false, worklets: false }]
/** A test runs of a module what it uses, when it uses it. */
const always = () => true
const expoInTests = [expo[0], { ...expo[1], lazyImports: always }]

/** What tests of the application run as it is written, but for its types and modules: the preset's plugins are long at work. */
const PLAIN = ['core', ...['react-native-web', 'codec-parser', '@noble', 'zustand'].map((name) => join('node_modules', name))]
const root = join(__dirname, '..')
const isPlain = (file) => PLAIN.some((folder) => file.startsWith(join(root, folder) + sep))

module.exports = (api) => {
  api.cache(true)
  const isTest = process.env.NODE_ENV === 'test'
  // Pages go straight to what is behind doors.
  if (!isTest) return { presets: [expo], plugins: [require('./doors')] }
  // Tests put things in the place of doors.
  return {
    plugins: [require('../tools/jest-globals.cjs')],
    overrides: [
      { test: isPlain, plugins: [['@babel/plugin-transform-modules-commonjs', { lazy: always }]] },
      { test: (file) => isPlain(file) && file.endsWith('.ts'), plugins: ['@babel/plugin-transform-typescript'] },
      { test: (file) => !isPlain(file), presets: [expoInTests] },
    ],
  }
}
