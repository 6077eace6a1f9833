const { createHash } = require('node:crypto')
const { readdirSync, statSync } = require('node:fs')
const { join } = require('node:path')
const { buildSync, version } = require('esbuild')

const { KEPT } = require('./jest-globals.cjs')

/**
 * How tests that run without a page are made ready: each with all that it imports, as one script. Among modules of their own
 * each call of what another module gives goes through two lookups, which made the engine's tests two to three times as long.
 * Globals are kept as jest-globals.cjs says.
 */
const ROOT = join(__dirname, '..')
const READ = ['core', 'cli', 'demo', 'tools/jest-node.cjs', 'package-lock.json']

/** Begins a script with the names of these that it uses and does not say itself. */
function keptIn(script) {
  const says = (name) => new RegExp(`\\b(?:const|let|var|function|class) ${name}\\b`).test(script)
  const names = [...KEPT].filter((name) => new RegExp(`(?<![.\\w$])${name}\\b`).test(script) && !says(name))
  return names.length === 0 ? '' : `const { ${names.join(', ')} } = globalThis;`
}

/** Every file that a test may be made of, with its size and when it was written: a script is made anew when one of them changed. */
function stateOf(path) {
  const stat = statSync(path)
  if (!stat.isDirectory()) return [`${path} ${stat.size} ${stat.mtimeMs}`]
  return readdirSync(path).flatMap((name) => (name === 'node_modules' ? [] : stateOf(join(path, name))))
}

module.exports = {
  process(_source, path) {
    const { outputFiles } = buildSync({
      entryPoints: [path],
      outfile: `${path}.js`, // written nowhere; what the map says is beside it
      absWorkingDir: ROOT,
      bundle: true,
      write: false,
      format: 'cjs',
      target: 'node20',
      platform: 'node',
      sourcemap: 'inline',
      sourcesContent: false,
      supported: { 'dynamic-import': false },
      external: ['*/build-engine.mjs'], // builds a file of its own, and is no part of a test
    })
    const code = outputFiles[0].text
    return { code: keptIn(code) + code }
  },
  getCacheKey(_source, path) {
    const state = READ.flatMap((name) => stateOf(join(ROOT, name)))
    return createHash('sha256')
      .update([version, path, ...KEPT, ...state].join('\n'))
      .digest('hex')
  },
}
