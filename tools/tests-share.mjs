// npm run tests-share: how much of the code is tests, in lines that are not blank, of all and of each room.
import { readdirSync, readFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { pathToFileURL } from 'node:url'

import { root } from './paths.mjs'

const ROOMS = ['app', 'core', 'server', 'cli', 'demo', 'bench', 'e2e', 'tools']
const CODE = /\.(tsx?|mjs|c)$/
/** Browser tests, tests beside what they test, and what only tests use. */
const TESTS = /^e2e\/|\.test\.(tsx?|mjs)$|\/testing\/|^core\/kit\/builders\.ts$/
/** What is made by a tool or fetched. */
const LEFT_OUT = /(^|\/)(node_modules|dist|\.expo)(\/|$)|^app\/public\/engine|^core\/engine\/kernel\/built\.ts$/

/** Lines of tests and of all code by room. */
export function countLines() {
  return ROOMS.map((room) => {
    let [tests, all] = [0, 0]
    for (const path of files(room)) {
      const lines = readFileSync(join(root, path), 'utf8').split('\n').filter((line) => line.trim() !== '').length // prettier-ignore
      all += lines
      if (isTest(path)) tests += lines
    }
    return { room, tests, all }
  })
}

/** Whether a file of the tree, by its path in it, is a test or only for tests. */
export function isTest(path) {
  return TESTS.test(path)
}

/** Tests are at least so much of all lines. */
export const LEAST_SHARE = 0.26

/** Whether there are too few of them, said in a sentence; nothing where there are enough. */
export function tooFewTests(rooms = countLines()) {
  const [tests, all] = ['tests', 'all'].map((of) => rooms.reduce((total, one) => total + one[of], 0))
  if (tests >= LEAST_SHARE * all) return undefined
  const missing = Math.ceil((LEAST_SHARE * all - tests) / (1 - LEAST_SHARE))
  return `Tests are fewer than ${100 * LEAST_SHARE} % of all lines: ${missing} lines of them are missing.`
}

/** The share in a line. */
export function sayShare() {
  const rooms = countLines()
  const sum = (of) => rooms.reduce((total, one) => total + one[of], 0)
  const share = (tests, all) => `${((100 * tests) / all).toFixed(1)} %`
  const each = rooms.filter(({ tests }) => tests > 0).map(({ room, tests, all }) => `${room} ${share(tests, all)}`)
  return `Tests are ${share(sum('tests'), sum('all'))} of ${sum('all')} lines: ${each.join(', ')}.`
}

function* files(folder) {
  for (const entry of readdirSync(join(root, folder), { withFileTypes: true })) {
    const path = relative(root, join(root, folder, entry.name))
    if (LEFT_OUT.test(path)) continue
    if (entry.isDirectory()) yield* files(path)
    else if (CODE.test(path)) yield path
  }
}

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) console.log(sayShare())
