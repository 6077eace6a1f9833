const { isCompiled } = require('./compiled')

module.exports = (api) => {
  api.cache(true)
  const isTest = process.env.NODE_ENV === 'test'
  // Tests put things in the place of doors; pages go straight to what is behind them.
  const ours = isTest ? require('../tools/jest-globals.cjs') : require('./doors')
  return {
    presets: [['babel-preset-expo', { 'react-compiler': { sources: isCompiled } }]],
    plugins: [ours],
  }
}
