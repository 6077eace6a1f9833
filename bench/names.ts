import { measureSound, portraitFrom } from '@heliaster/core/alike'
import type { Audio } from '@heliaster/core/audio'
import { planByNames, readNames, strikeLikeness } from '@heliaster/core/place'
import type { Likeness, NamedFile } from '@heliaster/core/place'
import { isUnseen, laysRight, nameKinds, nameSet } from '@heliaster/core/place/testing'
import type { NameSet, SetOptions } from '@heliaster/core/place/testing'

import { RATE, strikeSound, things } from '@heliaster/demo'

import type { Figure } from './figure'
import { isMixedUnseen, kindsSet, mixedManners, mixedSet } from './mixed-names'

const SETS_OF_A_KIND = 20
/** Sounds take their time to make. */
const HEARD_SETS_OF_A_KIND = 4
/** Seeds of their own: none that tests or anyone who makes the reader looks at. */
const FIRST_SEED = Number(process.env.BENCH_SEED ?? 5000)

/** Sets that were named by a generator which shares no list with the reader: how many lie right with nothing said. */
export function figuresOfNames(): Record<string, Figure> {
  const ways: [name: string, options: SetOptions][] = [
    ['natural lengths', {}],
    ['random letters for all words', { scrambled: true }],
    ['all lengths equal, not listened to', { equalLengths: true }],
  ]
  const heard = [false, true].map(
    (unseen) =>
      [
        `names, all lengths equal, kinds ${unseen ? 'never looked at' : 'seen'}`,
        shareRight(kindsOf(unseen), { equalLengths: true }, true),
      ] as const,
  )
  return Object.fromEntries([
    ...ways.flatMap(([name, options]) =>
      [false, true].map((unseen) => {
        return [`names, ${name}, kinds ${unseen ? 'never looked at' : 'seen'}`, shareRight(kindsOf(unseen), options)] as const
      }),
    ),
    ...heard,
    ...[false, true].map((unseen) => {
      const manners = mixedManners.filter((manner) => isMixedUnseen(manner) === unseen)
      return [`names that say only what there is to say, manners ${unseen ? 'never looked at' : 'seen'}`, shareOfMade(manners.map((manner) => (seed) => mixedSet(manner, seed)))] as const // prettier-ignore
    }),
    ['names, drums told apart by two words', shareOfMade([kindsSet])] as const,
  ])
}

const SETS_OF_A_MANNER = 60

function shareOfMade(makers: readonly ((seed: number) => NameSet)[]): Figure {
  const shares = makers.map((make) => {
    const sets = Array.from({ length: SETS_OF_A_MANNER }, (_, i) => make(FIRST_SEED + i))
    const right = sets.filter((set) => {
      const files = set.files.map(({ file }) => file)
      return laysRight(set, planByNames(files, readNames(files)))
    })
    return right.length / sets.length
  })
  return {
    value: shares.reduce((sum, share) => sum + share, 0) / shares.length,
    unit: `of ${makers.length * SETS_OF_A_MANNER} sets right`,
    spread: [Math.min(...shares), Math.max(...shares)],
  }
}

const kindsOf = (unseen: boolean) => nameKinds.filter((kind) => isUnseen(kind) === unseen)

function shareRight(kinds: readonly string[], options: SetOptions, isHeard = false): Figure {
  const shares = kinds.map((kind) => {
    const sets = Array.from({ length: isHeard ? HEARD_SETS_OF_A_KIND : SETS_OF_A_KIND }, (_, i) => nameSet(kind, FIRST_SEED + i, options))
    const right = sets.filter((set) => {
      const files = set.files.map(({ file }) => file)
      if (!isHeard) return laysRight(set, planByNames(files, readNames(files)))
      const soundOf = soundsOf(set)
      const measured = files.map((file, i) => ({ ...file, ...heardAtImport({ sampleRateHz: RATE, channels: [soundOf(i)] }) }))
      const likeness: Likeness = (a, b) => strikeLikeness(soundOf(a), soundOf(b), RATE)
      return laysRight(set, planByNames(measured, readNames(measured, {}, likeness)))
    })
    return right.length / sets.length
  })
  return {
    value: shares.reduce((sum, share) => sum + share, 0) / shares.length,
    unit: `of ${kinds.length * (isHeard ? HEARD_SETS_OF_A_KIND : SETS_OF_A_KIND)} sets right`,
    spread: [Math.min(...shares), Math.max(...shares)],
  }
}

/** What names are read with besides loudness and length. */
export function heardAtImport(audio: Audio): Pick<NamedFile, 'centreHz' | 'pitchHz' | 'portrait'> {
  const { centreHz, pitchHz, portrait } = measureSound(audio)
  return { ...(centreHz ? { centreHz } : {}), ...(pitchHz ? { pitchHz } : {}), ...(portrait ? { portrait: portraitFrom(portrait) } : {}) }
}

const MICROPHONES = [
  { name: 'a', brightness: 1, delaySeconds: 0, room: 0.06, gain: 1 },
  { name: 'b', brightness: 0.85, delaySeconds: 0.004, room: 0.3, gain: 0.5 },
  { name: 'c', brightness: 0.7, delaySeconds: 0.009, room: 0.6, gain: 0.4 },
  { name: 'd', brightness: 0.9, delaySeconds: 0.002, room: 0.15, gain: 0.7 },
]

/** The sounds of a set, each made when it is asked for. */
function soundsOf({ files }: NameSet): (file: number) => Float32Array {
  const made = Object.values(things)
  const sounds = new Map<number, Float32Array>()
  return (file: number) => {
    const { drum, level, take, microphone } = files[file]
    const seed = 1000 * drum + 100 * level + take + 7919 * files.length
    const thing = made[(drum * 3 + files.length) % made.length]
    const sound = sounds.get(file) ?? strikeSound(thing, 0.3 + 0.2 * level, seed, MICROPHONES[microphone])
    sounds.set(file, sound)
    return sound
  }
}
