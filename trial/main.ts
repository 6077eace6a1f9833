import { spawnSync } from 'node:child_process'

import type { Figure } from '../bench/figure'
import { killsWhileEditing, quota } from './browser'
import { databaseAway, killsOfServer, lists, load } from './server'

type Figures = Record<string, Figure>

const RUNS = 200

/** Two devices, three tabs and a server at random, with seeds that no test has run. */
function devices(): Figures {
  const from = 10_000 + Math.floor(Math.random() * 1_000_000)
  const env = { ...process.env, KEEPING_SEEDS: String(RUNS), KEEPING_FROM: String(from) }
  const words = [
    'node_modules/jest/bin/jest.js',
    '--selectProjects',
    'app',
    '--runTestsByPath',
    'app/sync/keeping.test.ts',
    '-t',
    'whatever',
  ]
  const { status } = spawnSync(process.execPath, words, { stdio: ['ignore', 'ignore', 'inherit'], env })
  return { 'devices.failed': { value: status === 0 ? 0 : 1, unit: `in ${RUNS} runs from seed ${from} (0: none)` } }
}

/** Recordings whose browser is killed: the figures of the bench, which has the clocks for it. */
function recording(): Figures {
  const { stdout } = spawnSync(process.execPath, ['tools/bench.mjs', 'kills'], { stdio: ['ignore', 'pipe', 'inherit'], encoding: 'utf8' })
  return JSON.parse(stdout) as Figures
}

/** All that is tried, by section; words on the command line choose some. */
const sections: Record<string, () => Figures | Promise<Figures>> = {
  server: killsOfServer,
  away: databaseAway,
  browser: killsWhileEditing,
  recording,
  quota,
  devices,
  load,
  lists,
}

const asked = process.argv.slice(2)
const unknown = asked.filter((name) => !(name in sections))
if (unknown.length > 0) {
  console.error(`There is no section ${unknown.join(', ')}. There are: ${Object.keys(sections).join(', ')}.`)
  process.exit(2)
}
for (const [name, tryIt] of Object.entries(sections)) {
  if (asked.length > 0 && !asked.includes(name)) continue
  console.error(`trying ${name} ...`)
  for (const [figure, { value, unit }] of Object.entries(await tryIt()))
    console.log(`${figure.padEnd(24)} ${(Number.isInteger(value) ? String(value) : value.toFixed(2)).padStart(10)} ${unit}`)
}
process.exit(0)
