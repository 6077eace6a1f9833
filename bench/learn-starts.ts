// Makes core/cut/start-weights.ts: node --import tsx bench/learn-starts.ts [a package that is left out]
import { START_SIGNS } from '../core/cut/start-signs'
import { startLessons, startRecordings, startRecordingsMade } from './learn/starts'
import type { StartLesson } from './learn/starts'
import { trainPlaces } from './learn/train-places'
import { writeWeights } from './learn/write-weights'
import { packages, realStrikes } from './real/material'

const SEED = 6000

const leftOut = process.argv[2]
const lessons: StartLesson[] = []
const learn = (name: string, recordings: Parameters<typeof startLessons>[0][]) => {
  const before = lessons.length
  for (const recording of recordings) lessons.push(...startLessons(recording))
  console.log(`${name}: ${recordings.length} recordings, ${lessons.length - before} strikes`)
}
for (const [name, { isUnseen }] of Object.entries(packages))
  if (!isUnseen && name !== leftOut) learn(name, [...startRecordings(realStrikes(name), SEED)])
learn('made up', [...startRecordingsMade(SEED)])
writeWeights('start-weights', 'learn-starts', trainPlaces(lessons, START_SIGNS, SEED), 3)
