// node tools/mutants.mjs [count] [seed] [path ...]: do the tests tell? Changes one thing of a file at a time, at random, runs
// the tests that reach the file, and counts how many of the changes they find. Each file is put back as it was.
import { spawnSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import ts from 'typescript'

import { root } from './paths.mjs'
import { isTest } from './tests-share.mjs'

const OTHER = {
  '<': '<=', '<=': '<', '>': '>=', '>=': '>', '===': '!==', '!==': '===', '&&': '||', '||': '&&',
  '+': '-', '-': '+', '*': '/', '/': '*', '??': '&&', '+=': '-=', '-=': '+=',
} // prettier-ignore
const PATIENCE_MS = 240_000

const LOOKS = /^(style|\w*[sS]tyle|size|width|height|gap|margin|padding|numberOfLines|opacity)$/
const LOOK_CONSTANTS = /_PX$|^(WIDTH|HEIGHT|SIZE)$|_(WIDTH|HEIGHT|SIZE)$/

/** Whether a node only says how something looks, which tests by words and roles leave to the eye: styles and sizes in pixels. */
function isLook(node) {
  if (ts.isJsxAttribute(node)) return LOOKS.test(node.name.getText())
  return ts.isVariableDeclaration(node) && ts.isIdentifier(node.name) && LOOK_CONSTANTS.test(node.name.text)
}

/** The places of a file where one thing can be another: where it stands and what it becomes; how things look is left alone. */
export function mutantsOf(text) {
  const file = ts.createSourceFile('file.tsx', text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX)
  const found = []
  const replace = (node, by) => found.push({ from: node.getStart(file), to: node.getEnd(), by })
  const look = (node) => {
    if (
      ts.isImportDeclaration(node) ||
      ts.isTypeNode(node) ||
      ts.isInterfaceDeclaration(node) ||
      ts.isTypeAliasDeclaration(node) ||
      isLook(node)
    )
      return
    if (ts.isBinaryExpression(node) && OTHER[node.operatorToken.getText(file)])
      replace(node.operatorToken, OTHER[node.operatorToken.getText(file)])
    if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken) replace(node, node.operand.getText(file))
    if (ts.isNumericLiteral(node)) replace(node, String(Number(node.text) + 1))
    if (node.kind === ts.SyntaxKind.TrueKeyword) replace(node, 'false')
    if (node.kind === ts.SyntaxKind.FalseKeyword) replace(node, 'true')
    if (ts.isConditionalExpression(node)) replace(node.condition, `!(${node.condition.getText(file)})`)
    if (ts.isIfStatement(node)) replace(node.expression, `!(${node.expression.getText(file)})`)
    if (ts.isExpressionStatement(node) && ts.isCallExpression(node.expression)) replace(node, ';')
    ts.forEachChild(node, look)
  }
  look(file)
  return found
}

function chanceFrom(seed) {
  let state = seed >>> 0
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return Math.floor((state / 2 ** 32) * below)
  }
}

/** Files of rooms that Jest tests, changed lately where none are named; not those of which any change builds another kernel, as one test sees. */
function candidates(paths) {
  const said = spawnSync('git', ['log', '-40', '--name-only', '--pretty=format:'], { cwd: root, encoding: 'utf8' }).stdout
  const all = paths.length > 0 ? paths : [...new Set(said.split('\n'))]
  return all.filter(
    (path) => /^(app|core|cli)\/.*\.tsx?$/.test(path) && !isTest(path) && !/\.d\.ts$|assembly\/|both\/|built\.ts$/.test(path),
  )
}

const jest = (...words) =>
  spawnSync(process.execPath, [join(root, 'node_modules/jest/bin/jest.js'), ...words], {
    cwd: root,
    encoding: 'utf8',
    timeout: PATIENCE_MS,
  })

/** Test files that reach a file, those of its own folder first, then by how much of the way to them is the same. */
export function nearestFirst(path, tests) {
  const own = dirname(path).split('/')
  const shared = (test) => {
    const folders = dirname(test).split('/')
    const parts = own.findIndex((folder, i) => folder !== folders[i])
    return parts < 0 ? own.length + 1 / folders.length : parts
  }
  return [...tests].sort((a, b) => shared(b) - shared(a))
}

const NEAR = 6

/** What the tests that reach a file say of a change in it: `found`, or why not. */
function isFound(path) {
  const said = jest('--listTests', '--findRelatedTests', path).stdout
  const tests = nearestFirst(path, said.split('\n').flatMap((line) => (line.startsWith(root) ? [relative(root, line)] : []))) // prettier-ignore
  if (tests.length === 0) return 'no test reaches it'
  for (const some of [tests.slice(0, NEAR), tests.slice(NEAR)]) {
    if (some.length === 0) continue
    const { status, signal } = jest('--runTestsByPath', ...some, '--bail', '--silent')
    if (signal !== null) return 'not over in time'
    if (status !== 0) return 'found'
  }
  return 'not found'
}

function tryOne(path, { from, to, by }, text) {
  const full = join(root, path)
  try {
    writeFileSync(full, text.slice(0, from) + by + text.slice(to))
    return isFound(path)
  } finally {
    writeFileSync(full, text)
  }
}

if (process.argv[1]?.endsWith('mutants.mjs')) {
  const [count = '100', seed = '1', ...paths] = process.argv.slice(2)
  const chance = chanceFrom(Number(seed))
  const files = candidates(paths).flatMap((path) => {
    try {
      return [{ path, text: readFileSync(join(root, path), 'utf8') }]
    } catch {
      return []
    }
  })
  const places = files.flatMap(({ path, text }) => mutantsOf(text).map((mutant) => ({ path, text, mutant })))
  const outcomes = { found: 0, 'not found': 0, 'no test reaches it': 0, 'not over in time': 0 }
  const told = () => outcomes.found + outcomes['not found'] + outcomes['no test reaches it']
  while (told() < Number(count)) {
    const { path, text, mutant } = places[chance(places.length)]
    const outcome = tryOne(path, mutant, text)
    outcomes[outcome]++
    const line = text.slice(0, mutant.from).split('\n').length
    const what = text.slice(mutant.from, mutant.to).replace(/\s+/g, ' ').slice(0, 60)
    console.log(`${told()}. ${outcome}: ${path}:${line}: ${what} -> ${mutant.by.slice(0, 60)}`)
  }
  console.log(`${outcomes.found} of ${told()} changes were found; of ${outcomes['not over in time']} more nothing is known.`)
}
