// node tools/mutants.mjs [count] [seed] [path ...]: do the tests tell? Changes one thing of a file at a time, at random, runs
// the tests that reach the file, and counts how many of the changes they find. Each file is put back as it was.
import { spawnSync } from 'node:child_process'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import ts from 'typescript'

import { root } from './paths.mjs'
import { isTest } from './tests-share.mjs'

const OTHER = {
  '<': '<=', '<=': '<', '>': '>=', '>=': '>', '===': '!==', '!==': '===', '&&': '||', '||': '&&',
  '+': '-', '-': '+', '*': '/', '/': '*', '??': '&&', '+=': '-=', '-=': '+=',
} // prettier-ignore
const PATIENCE_MS = 240_000

/** The places of a file where one thing can be another: where it stands and what it becomes. */
export function mutantsOf(text) {
  const file = ts.createSourceFile('file.tsx', text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX)
  const found = []
  const replace = (node, by) => found.push({ from: node.getStart(file), to: node.getEnd(), by })
  const look = (node) => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node) || ts.isInterfaceDeclaration(node) || ts.isTypeAliasDeclaration(node)) return
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

/** Files of rooms that Jest tests, changed lately where none are named. */
function candidates(paths) {
  const said = spawnSync('git', ['log', '-40', '--name-only', '--pretty=format:'], { cwd: root, encoding: 'utf8' }).stdout
  const all = paths.length > 0 ? paths : [...new Set(said.split('\n'))]
  return all.filter((path) => /^(app|core|cli)\/.*\.tsx?$/.test(path) && !isTest(path) && !/\.d\.ts$|assembly\/|built\.ts$/.test(path))
}

/** Whether the tests that reach a file fail; undefined where none reaches it. Tests that are not over in time found nothing. */
function isFound(path) {
  const words = ['--findRelatedTests', path, '--bail', '--silent', '--passWithNoTests']
  const jest = join(root, 'node_modules/jest/bin/jest.js')
  const run = spawnSync(process.execPath, [jest, ...words], {
    cwd: root,
    encoding: 'utf8',
    timeout: PATIENCE_MS,
  })
  if (/No tests found/.test(run.stdout + run.stderr)) return undefined
  return run.status !== 0 && run.signal === null
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
  let [found, tried] = [0, 0]
  for (; tried < Number(count); tried++) {
    const { path, text, mutant } = places[chance(places.length)]
    const outcome = tryOne(path, mutant, text)
    if (outcome) found++
    const line = text.slice(0, mutant.from).split('\n').length
    const what = text.slice(mutant.from, mutant.to).replace(/\s+/g, ' ').slice(0, 60)
    const words = outcome ? 'found' : outcome === undefined ? 'no test reaches it' : 'not found'
    console.log(`${tried + 1}. ${words}: ${path}:${line}: ${what} -> ${mutant.by.slice(0, 60)}`)
  }
  console.log(`${found} of ${tried} changes were found.`)
}
