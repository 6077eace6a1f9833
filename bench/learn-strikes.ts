// Makes core/cut/strike-weights.ts: node --import tsx bench/learn-strikes.ts [a package that is left out]

import { SIGNS } from '../core/cut/strike-signs'
import { lessonOf, lessonsOf, recordingsMade, recordingsOf } from './learn/lessons'
import { writeWeights } from './learn/write-weights'
import { trainNet } from './learn/train-net'
import type { Lesson } from './learn/train-net'
import { packages, realStrikes } from './real/material'

const SEED = 5000

const leftOut = process.argv[2]
const lessons: Lesson[] = []
const learn = (name: string, from: Lesson[]) => {
  lessons.push(...from)
  console.log(`${name}: ${from.length} recordings, ${from.reduce((sum, { isStrike }) => sum + isStrike.length, 0)} rises`)
}
for (const [name, { isUnseen }] of Object.entries(packages))
  if (!isUnseen && name !== leftOut) learn(name, [...recordingsOf(realStrikes(name), SEED)].map(lessonOf))
learn('made up', [...recordingsMade(SEED)].map(lessonOf))

writeWeights('strike-weights', 'learn-strikes', trainNet(lessonsOf(lessons), SIGNS, SEED))
