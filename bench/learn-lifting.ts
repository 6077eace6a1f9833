// Makes core/engine/voice/both/lifting-points.ts: node --import tsx bench/learn-lifting.ts
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'

import { seeded } from '../core/kit/builders'
import { addSlope, drawPeak, drawShelf, excessOf, UNITS, WEIGHTS } from './learn/lifting'
import type { Lifting } from './learn/lifting'

const SEED = 9
const LESSONS = 3000
const UNSEEN = 4000
const BATCH = 160
const FILE = join(import.meta.dirname, '../core/engine/voice/both/lifting-points.ts')

/** What is beyond what it may be is felt softly around it, and less and less far beyond: not every shelf can be met. */
function lossOf(excess: number): number {
  const beyond = excess > 2 ? 1.1 + Math.log(excess - 1) : Math.log(1 + Math.exp(6 * (excess - 0.9))) / 6
  return beyond + 0.02 * Math.min(excess, 8)
}

function loss(filters: readonly Lifting[], weights: readonly number[]): number {
  return filters.reduce((sum, filter) => sum + lossOf(excessOf(filter, weights)), 0) / filters.length
}

/** Steps down the slope of the loss over random lessons, each by what it was before (D. Kingma, J. Ba, "Adam", 2015). */
function learn(name: string, draw: (random: () => number) => Lifting, steps: number): readonly number[] {
  const random = seeded(SEED)
  const lessons = Array.from({ length: LESSONS }, () => draw(random))
  const unseen = Array.from({ length: UNSEEN }, () => draw(random))
  let weights = Array.from({ length: WEIGHTS }, (_, i) => (i < 4 * UNITS ? 2 * random() - 1 : 0))
  let [best, least] = [weights, loss(lessons, weights)]
  const [mean, square] = [new Float64Array(WEIGHTS), new Float64Array(WEIGHTS)]
  for (let step = 1; step <= steps; step++) {
    const batch = Array.from({ length: BATCH }, () => lessons[Math.floor(random() * LESSONS)])
    const slope = slopeOf(batch, weights)
    const rate = 0.01 * (1 - step / steps) + 0.0001
    weights = weights.map((weight, i) => {
      mean[i] = 0.9 * mean[i] + 0.1 * slope[i]
      square[i] = 0.99 * square[i] + 0.01 * slope[i] ** 2
      return weight - (rate * (mean[i] / (1 - 0.9 ** step))) / (Math.sqrt(square[i] / (1 - 0.99 ** step)) + 1e-4)
    })
    if (step % 20 === 0 && loss(lessons, weights) < least) [best, least] = [weights, loss(lessons, weights)]
    if (step % 500 === 0 || step === steps)
      console.log(`${name} ${step}: loss ${least.toFixed(4)}, beyond on unseen ${share(unseen, best)}`)
  }
  return best
}

function slopeOf(batch: readonly Lifting[], weights: readonly number[]): Float64Array {
  const slope = new Float64Array(WEIGHTS)
  for (const filter of batch) addSlope(filter, weights, lossOf, slope)
  const length = Math.max(batch.length, Math.hypot(...slope))
  return slope.map((one) => one / length)
}

const share = (filters: readonly Lifting[], weights: readonly number[]): string =>
  `${((100 * filters.filter((filter) => excessOf(filter, weights) > 1).length) / filters.length).toFixed(2)} %`

const CELLS = ['a1', 'a2', 'a3', 'mix0', 'mix1', 'mix2']
const number = (value: number) => String(Number(value.toPrecision(6)))
const sum = (bias: number, parts: readonly string[]) => [number(bias), ...parts].join(' + ')

/** The same net in words that both compilers read. */
function written(name: string, weights: readonly number[]): string {
  const inner = Array.from({ length: UNITS }, (_, j) => {
    const at = 4 * j
    return `  const h${j} = bent(${sum(
      weights[at],
      [0, 1, 2].map((i) => `${number(weights[at + 1 + i])} * x${i}`),
    )})`
  })
  const outer = CELLS.map((cell, i) => {
    const at = 4 * UNITS + i * (UNITS + 1)
    return `  put(to + FilterSection.${cell}, ${sum(
      weights[at],
      inner.map((_, j) => `${number(weights[at + 1 + j])} * h${j}`),
    )})`
  })
  return `export function ${name}(to: i32, x0: f64, x1: f64, x2: f64): void {\n${[...inner, ...outer].join('\n')}\n}`
}

const nets = [written('peakWays', learn('peaks', drawPeak, 2000)), written('shelfWays', learn('shelves', drawShelf, 3000))]
writeFileSync(
  FILE,
  `// Made by bench/learn-lifting.ts; not written by hand.
import { FilterSection } from '../../program/layout'
import { put } from './cells'

function bent(sum: f64): f64 {
  return sum / (1 + Math.abs(sum))
}

/** How far the points of peaks lie from where they would without it: six numbers in the cells of a section. */
${nets[0]}

/** The same of shelves. */
${nets[1]}
`,
)
console.log(`written: ${FILE}`)
