// Makes core/cut/strike-weights.ts: node --import tsx bench/learn-strikes.ts [a package that is left out]
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'

import { SIGNS } from '../core/cut/strike-signs'
import { lessonOf, lessonsOf, recordingsMade, recordingsOf } from './learn/lessons'
import { trainNet } from './learn/train-net'
import type { Lesson } from './learn/train-net'
import { packages, realStrikes } from './real/material'

const SEED = 5000
const FILE = join(import.meta.dirname, '../core/cut/strike-weights.ts')

const leftOut = process.argv[2]
const lessons: Lesson[] = []
const learn = (name: string, from: Lesson[]) => {
  lessons.push(...from)
  console.log(`${name}: ${from.length} recordings, ${from.reduce((sum, { isStrike }) => sum + isStrike.length, 0)} rises`)
}
for (const [name, { isUnseen }] of Object.entries(packages))
  if (!isUnseen && name !== leftOut) learn(name, [...recordingsOf(realStrikes(name), SEED)].map(lessonOf))
learn('made up', [...recordingsMade(SEED)].map(lessonOf))

const { units, inner, outer } = trainNet(lessonsOf(lessons), SIGNS, SEED)
const numbers = (values: Float64Array) => [...values].map((value) => Number(value.toPrecision(5))).join(', ')
writeFileSync(
  FILE,
  `// Made by bench/learn-strikes.ts; not written by hand.
import type { Net } from './strike-odds'

export const learned: Net = {
  units: ${units},
  inner: [${numbers(inner)}],
  outer: [${numbers(outer)}],
} // prettier-ignore
`,
)
console.log(`written: ${FILE}`)
