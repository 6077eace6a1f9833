import { planByNames, readNames } from '@heliaster/core/place'
import type { NamedFile } from '@heliaster/core/place'
import { laysRight } from '@heliaster/core/place/testing'
import type { NameSet } from '@heliaster/core/place/testing'

import { measure } from '../core/audio'
import { createRandom } from '../demo/random'
import type { Figure } from './figure'
import { heardAtImport } from './names'
import { banks, drumPrograms, playedStrikes } from './real/drums'
import { packages, REAL_RATE, realStrikes } from './real/material'

type Heard = Omit<NamedFile, 'name'>
type Any = <T>(list: readonly T[]) => T

/** Drums of the key map that people number within a collection. */
const COLLECTED: Readonly<Record<string, readonly number[]>> = { Kick: [35, 36], Snare: [38, 40], Hat: [42, 44], Open: [46], Clap: [39], Crash: [49, 52, 55, 57], Tom: [41, 43, 45, 47, 48, 50], Shaker: [54, 70] } // prettier-ignore
const TOMS = [[41, 45, 50], [41, 47, 50], [43, 47, 48], [41, 43, 45, 48]] // prettier-ignore
const WORDS = ['oar', 'keel', 'plank', 'rope', 'mast', 'gaff', 'hull', 'spar', 'cleat', 'tiller', 'anchor', 'rudder']
const SEPARATORS = [' ', '_', '-', '']
const SETS = 40
const SETS_OF_A_PACKAGE = 8
const MOST_TAKES = 6
/** Collections are brought to one level as often as not. */
const LEVELLED_DB = -14

/** Whether what is numbered is taken for takes or for things of their own, by real drums and real impacts: how many sets lie right with nothing asked. */
export function figuresOfCounted(): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  for (const unseen of [false, true]) {
    const seen = unseen ? 'never looked at' : 'looked at'
    const names = Object.keys(banks).filter((name) => Boolean(banks[name]!.isUnseen) === unseen)
    const drums = collectedOf(names)
    if (Object.keys(drums).length > 0)
      figures[`counted, collections of banks ${seen}`] = shareOf(setsOf(SETS, (random) => aCollection(drums, random)))
    const toms = names.flatMap((bank, i) =>
      drumPrograms.flatMap((program) => setsOf(2, (random) => someToms(bank, program, random), 100 * i + program)),
    )
    if (toms.length > 0) figures[`counted, toms of banks ${seen}`] = shareOf(toms)
    const takes = Object.keys(packages)
      .filter((name) => Boolean(packages[name]!.isUnseen) === unseen)
      .flatMap((name) => takesOf(name))
    if (takes.length > 0) figures[`counted, takes of packages ${seen}`] = shareOf(takes)
  }
  return figures
}

function setsOf(count: number, make: (random: () => number) => NameSet, first = 0): NameSet[] {
  return Array.from({ length: count }, (_, i) => make(createRandom((first + i) * 7717 + 31))).filter(({ files }) => files.length > 0)
}

function shareOf(sets: readonly NameSet[]): Figure {
  const read = sets.map((set) => {
    const files = set.files.map(({ file }) => file)
    const names = readNames(files)
    return { isRight: laysRight(set, planByNames(files, names)), isAsked: names.question !== undefined }
  })
  const count = (isAsked: boolean) => read.filter((one) => one.isRight && one.isAsked === isAsked).length
  return { value: count(false) / sets.length, unit: `of ${sets.length} sets right at once, ${count(true)} more with their question` }
}

/** Different drums by what they are called; the same sample in two sets of a bank is one. */
function collectedOf(names: readonly string[]): Record<string, Heard[]> {
  const found: Record<string, Heard[]> = {}
  for (const bank of names)
    for (const program of drumPrograms)
      for (const [word, notes] of Object.entries(COLLECTED))
        for (const heard of heardOf(playedStrikes(bank, program, notes.map((note) => ({ note, velocity: 105, bend: 0 }))))) {
          const own = (found[word] ??= [])
          if (!own.some(({ portrait }) => String(portrait) === String(heard.portrait))) own.push(heard)
        } // prettier-ignore
  return found
}

function heardOf(sounds: readonly Float32Array[]): Heard[] {
  return sounds
    .filter(({ length }) => length > 0)
    .map((samples) => {
      const audio = { sampleRateHz: REAL_RATE, channels: [samples] }
      return { loudnessDb: measure(audio).loudnessDb, frames: samples.length, ...heardAtImport(audio) }
    })
}

/** Three to five kinds with two to six drums each. */
function aCollection(drums: Readonly<Record<string, readonly Heard[]>>, random: () => number): NameSet {
  const any: Any = (list) => list[Math.floor(random() * list.length)]!
  const [separator, isPadded, isLevelled] = [any(SEPARATORS), random() < 0.5, random() < 0.5]
  const words = shuffled(Object.keys(drums), random).slice(0, 3 + Math.floor(random() * 3))
  let drum = 0
  const files = words.flatMap((word) =>
    shuffled(drums[word]!, random)
      .slice(0, 2 + Math.floor(random() * 5))
      .map((heard, i) => {
        const loudnessDb = isLevelled ? LEVELLED_DB + 0.5 * random() : heard.loudnessDb
        const name = `${word}${separator}${isPadded ? String(i + 1).padStart(2, '0') : i + 1}.wav`
        return {
          file: { name, ...heard, ...(loudnessDb === undefined ? {} : { loudnessDb }) },
          drum: drum++,
          level: 0,
          take: 0,
          microphone: 0,
        }
      }),
  )
  return { kind: 'collection', files }
}

/** Toms by numbers among other drums, up or down. */
function someToms(bank: string, program: number, random: () => number): NameSet {
  const any: Any = (list) => list[Math.floor(random() * list.length)]!
  const [separator, notes] = [any(SEPARATORS), any(TOMS)]
  const toms = random() < 0.5 ? notes : [...notes].reverse()
  const names = [...toms.map((_, i) => `Tom${separator}${i + 1}.wav`), 'Kick.wav', 'Snare.wav', 'Hat.wav']
  const strikes = [...toms, 36, 38, 42].map((note) => ({ note, velocity: 90 + Math.floor(25 * random()), bend: 0 }))
  const heard = heardOf(playedStrikes(bank, program, strikes))
  if (heard.length < names.length) return { kind: 'toms', files: [] }
  return { kind: 'toms', files: names.map((name, drum) => ({ file: { name, ...heard[drum]! }, drum, level: 0, take: 0, microphone: 0 })) }
}

/** Things that a package has several takes of, called by words and numbers. */
function takesOf(name: string): NameSet[] {
  const things = new Map<string, Float32Array[]>()
  for (const { thing, samples } of realStrikes(name)) things.set(thing, [...(things.get(thing) ?? []), samples])
  const several = [...things.values()].filter(({ length }) => length > 1).map(heardOf)
  if (several.length < 2) return []
  return setsOf(SETS_OF_A_PACKAGE, (random) => {
    const any: Any = (list) => list[Math.floor(random() * list.length)]!
    const separator = any(SEPARATORS)
    const chosen = shuffled(several, random).slice(0, 2 + Math.floor(random() * 4))
    const files = chosen.flatMap((takes, drum) =>
      shuffled(takes, random)
        .slice(0, MOST_TAKES)
        .map((heard, take) => ({
          file: { name: `${WORDS[drum]}${separator}${take + 1}.wav`, ...heard },
          drum,
          level: 0,
          take,
          microphone: 0,
        })),
    )
    return { kind: 'takes', files }
  })
}

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  return list
    .map((one) => [random(), one] as const)
    .sort(([a], [b]) => a - b)
    .map(([, one]) => one)
}
