module.exports = (api) => {
  api.cache(true)
  // Tests put things in the place of doors; pages go straight to what is behind them.
  return {
    presets: ['babel-preset-expo'],
    plugins: [process.env.NODE_ENV === 'test' ? require('../tools/jest-globals.cjs') : require('./doors')],
  }
}
