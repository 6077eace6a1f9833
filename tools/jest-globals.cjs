/**
 * Tests run in a context of their own, where each look at a global goes through an interceptor: `Math.abs` in a loop makes
 * the loop ten times as slow and more. This plugin for Babel has each file look once, at its beginning. Only what no test
 * replaces is kept so; clocks and what belongs to a page are not. (`Object` cannot be: what Babel puts before this needs it;
 * nor anything where a stand-in for a module may be made before the file's own beginning.)
 */
const KEPT = new Set([
  'Math', 'Number', 'Array', 'String', 'Map', 'Set', 'WeakMap', 'Infinity', 'NaN', 'ArrayBuffer', 'DataView', 'Atomics',
  'Float32Array', 'Float64Array', 'Int8Array', 'Int16Array', 'Int32Array', 'Uint8Array', 'Uint16Array', 'Uint32Array',
]) // prettier-ignore

const keepGlobals = ({ types: t }) => ({
  visitor: {
    Program: {
      exit(path, { file }) {
        if (file.code.includes('jest.mock(')) return
        path.scope.crawl()
        const used = Object.keys(path.scope.globals).filter((name) => KEPT.has(name))
        const kept = used.map((name) => t.variableDeclarator(t.identifier(name), t.memberExpression(t.identifier('globalThis'), t.identifier(name))))
        if (kept.length > 0) path.unshiftContainer('body', t.variableDeclaration('const', kept))
      },
    },
  },
}) // prettier-ignore

module.exports = keepGlobals
module.exports.KEPT = KEPT
