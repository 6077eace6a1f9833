import { RATE, strikeSound, things } from '@heliaster/demo'

import { measureSound, portraitFrom } from '../alike'
import { seeded } from '../kit/builders'
import { planByNames } from './name-plan'
import { readNames } from './names/read'
import { notesByPitch } from './notes-by-pitch'
import { strikeLikeness } from './strike-likeness'
import { pairsOfStrikes, pairsOfSuspects, putRight, wrongFiles, wrongWords } from './wrong-files'

const MICROPHONES = [
  { name: 'nah', brightness: 1, delaySeconds: 0, room: 0.06, gain: 1 },
  { name: 'fern', brightness: 0.8, delaySeconds: 0.005, room: 0.35, gain: 0.5 },
  { name: 'decke', brightness: 0.9, delaySeconds: 0.003, room: 0.2, gain: 0.7 },
]
const TAKES = 5

/** Files of two drums, with the sounds in an order that may be wrong. */
function aSet(
  microphones: number,
  change: (sounds: Float32Array[], at: (drum: number, take: number, microphone: number) => number) => void,
) {
  const drums = [
    ['fass', things.hullThump],
    ['kette', things.hatchTick],
  ] as const
  const names: string[] = []
  const sounds: Float32Array[] = []
  for (const [d, [drum, thing]] of drums.entries())
    for (let take = 0; take < TAKES; take++)
      for (const microphone of MICROPHONES.slice(0, microphones)) {
        names.push(`${drum}_${microphone.name}_t${take + 1}.wav`)
        sounds.push(strikeSound(thing, 0.5 + 0.06 * take, 40 * d + take, microphone))
      }
  change(sounds, (drum, take, microphone) => (drum * TAKES + take) * microphones + microphone)
  const files = names.map((name, i) => {
    const strike = Math.floor(i / microphones)
    return { name, frames: 30_000 + 311 * ((strike * 7) % 13), loudnessDb: -20 - 5 * (i % microphones) - (strike % TAKES) / 4 }
  })
  const plan = planByNames(files, readNames(files))
  const known = new Map<string, number>()
  const likeness = (a: number, b: number) => known.get(`${a} ${b}`)
  const hear = (pairs: readonly [number, number][]) =>
    pairs.forEach(([a, b]) => known.set(`${a} ${b}`, strikeLikeness(sounds[a], sounds[b], RATE)!))
  hear(pairsOfStrikes(plan))
  hear(pairsOfSuspects(plan, likeness))
  const portraits = sounds.map((sound) => portraitFrom(measureSound({ sampleRateHz: RATE, channels: [sound] }).portrait ?? ''))
  return { names, plan, wrong: wrongFiles(plan, likeness, portraits) }
}

const exchange = (sounds: Float32Array[], a: number, b: number) => ([sounds[a], sounds[b]] = [sounds[b], sounds[a]])

test('where all is right, nothing is called wrong', () => {
  expect(aSet(2, () => undefined).wrong).toEqual([])
  expect(aSet(3, () => undefined).wrong).toEqual([])
})

test('two files that were exchanged are found, and change places', () => {
  const { plan, wrong, names } = aSet(2, (sounds, at) => exchange(sounds, at(0, 1, 1), at(0, 3, 1)))
  expect(wrong).toHaveLength(1)
  expect(wrong[0].kind).toBe('exchanged')
  const both = [names[wrong[0].file], names[wrong[0].other]].sort() // of two microphones either may be the one
  expect(both.map((name) => name.replace(/nah|fern/, '*'))).toEqual(['fass_*_t2.wav', 'fass_*_t4.wav'])
  expect(wrongWords(wrong[0], names)).toMatch(/^It seems exchanged with “fass_(nah|fern)_t[24].wav”/)
  const right = putRight(plan, wrong, names)
  const strikeOf = (file: number) =>
    names[file].includes('fern') ? ({ 2: 4, 4: 2 }[names[file].at(-5)!] ?? Number(names[file].at(-5))) : Number(names[file].at(-5))
  for (const { files } of right.pads[0].bands[0].turns) expect(new Set([...files.values()].map(strikeOf)).size).toBe(1)
})

test('with three microphones it is told which of the files of a strike is wrong, the first one too', () => {
  for (const microphone of [0, 1, 2]) {
    const { wrong, names } = aSet(3, (sounds, at) => exchange(sounds, at(1, 0, microphone), at(1, 2, microphone)))
    expect(wrong.map(({ kind }) => kind)).toEqual(['exchanged'])
    const both = [names[wrong[0].file], names[wrong[0].other]].sort()
    expect(both).toEqual([1, 3].map((take) => `kette_${MICROPHONES[microphone].name}_t${take}.wav`))
  }
})

test('a take of another strike, and one of another drum, are found and left out with their reason', () => {
  const strike = aSet(2, (sounds, at) => (sounds[at(0, 2, 1)] = sounds[at(0, 4, 1)].slice()))
  expect(strike.wrong.map(({ file, kind }) => [strike.names[file], kind])).toEqual([['fass_fern_t3.wav', 'otherStrike']])
  const right = putRight(strike.plan, strike.wrong, strike.names)
  expect(right.unplaced.map(({ file }) => strike.names[file])).toEqual(['fass_fern_t3.wav'])
  expect(right.unplaced[0].reason).toMatch(/sounds like the strike of “fass_nah_t5.wav”/)
  const thing = aSet(2, (sounds, at) => (sounds[at(0, 2, 0)] = strikeSound(things.hatchTick, 0.6, 99, MICROPHONES[0])))
  expect(thing.wrong.map(({ file, kind }) => [thing.names[file], kind])).toEqual([['fass_nah_t3.wav', 'otherThing']])
})

test('what one thing counts is laid out by measured pitch, where pitches are notes and not takes that differ', () => {
  const random = seeded(4)
  const tuned = (cents: (n: number) => number) =>
    Array.from({ length: 24 }, (_, i) => {
      const n = Math.floor(i / 2)
      const facts = { frames: 20_000 + 137 * n, loudnessDb: i % 2 === 0 ? -20 : -27 }
      return {
        name: `glocke_${n + 1}_${i % 2 === 0 ? 'nah' : 'fern'}.wav`,
        ...facts,
        pitchHz: 261.63 * 2 ** ((cents(n) + 10 * random()) / 1200),
      }
    })
  const planOf = (files: { name: string; pitchHz?: number }[]) => planByNames(files, readNames(files))
  const scale = planOf(tuned((n) => 200 * n))
  expect(scale.pads.map(({ note }) => note).sort((a, b) => a! - b!)).toEqual(Array.from({ length: 12 }, (_, n) => 60 + 2 * n))
  expect(scale.pads.every(({ microphones }) => microphones.length === 2)).toBe(true)
  expect(planOf(tuned((n) => 15 * n)).pads).toHaveLength(1) // takes that differ
  expect(planOf(tuned((n) => (n < 6 ? 0 : 700))).pads).toHaveLength(1) // two notes, many times
  expect(planOf(tuned((n) => 200 * n).map(({ pitchHz: _pitch, ...file }) => file)).pads).toHaveLength(1) // nothing was measured
  expect(notesByPitch([], [])).toEqual([])
})
