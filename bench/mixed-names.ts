import { TONGUES } from '@heliaster/core/place/testing'
import type { MadeFile, NameSet } from '@heliaster/core/place/testing'

import { createRandom } from '../demo/random'

interface Drum {
  readonly name: string
  readonly levels: number
  readonly takes: number
}

type Manner = (name: string, level: string, take: string, microphone: string, drum: Drum) => string

const capital = (word: string) => word[0]!.toUpperCase() + word.slice(1)
const joined = (separator: string, parts: readonly string[]) => parts.filter(Boolean).join(separator)
const padded = (take: string) => take && take.padStart(2, '0')

/** How a file is called where drums have what they have and their names say no more; every third is left unseen while the reader is made. */
const MANNERS: Readonly<Record<string, (separator: string) => Manner>> = {
  'drum, strength, take': (separator) => (name, level, take, microphone) => joined(separator, [name, level, take, microphone]),
  'numbers with two digits': (separator) => (name, level, take, microphone) => joined(separator, [name, microphone, level, padded(take)]),
  'in one word': () => (name, level, take, microphone) => [name, microphone, level, take].filter(Boolean).map((part) => part.split(' ').map(capital).join('')).join(''), // prettier-ignore
  'take glued to its word': (separator) => (name, level, take, microphone) =>
    joined(separator, [name, level, take && `go${take}`, microphone]),
  'a folder for each drum': (separator) => (name, level, take, microphone) =>
    `${name}/${joined(separator, [name, level, take, microphone])}`,
  'take before strength': (separator) => (name, level, take, microphone) => joined(separator, [name, take, level, microphone]),
}

/** Words that make other drums of one, none of them a strength. */
const MAKES = ['open', 'closed', 'high', 'low', 'crash', 'ride', 'big', 'small']

/** A set of drums that are told apart by two words, some of them the same, each struck once or several times. */
export function kindsSet(seed: number): NameSet {
  const random = createRandom(seed * 6151 + 5)
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const tongue = TONGUES[any(Object.keys(TONGUES))]!
  const [separator, isFirst] = [any(['_', '-', ' ', '.']), random() < 0.3]
  const nouns = [...tongue.drums].sort(() => random() - 0.5).slice(0, 3 + Math.floor(random() * 2))
  const names = nouns.flatMap((noun) => {
    const words = [...MAKES].sort(() => random() - 0.5).slice(0, any([0, 0, 2, 2, 3]))
    return words.length === 0 ? [noun] : words.map((word) => joined(separator, isFirst ? [word, noun] : [noun, word]))
  })
  const files: MadeFile[] = names.flatMap((name, drum) => {
    const [base, length, centre] = [-26 + 14 * random(), 5000 + 60000 * random(), 100 * 60 ** random()]
    const takes = any([1, 1, 2, 3])
    return Array.from({ length: takes }, (_, take) => {
      const file = { name: `${joined(separator, [name, takes > 1 ? String(take + 1) : ''])}.wav`, loudnessDb: base + 2.4 * (random() - 0.5), frames: Math.round(length * (0.85 + 0.3 * random())), centreHz: centre * (0.95 + 0.1 * random()) } // prettier-ignore
      return { file, drum, level: 0, take, microphone: 0 }
    })
  })
  return { kind: 'drums by two words', files: files.sort(() => random() - 0.5) }
}

export const mixedManners = Object.keys(MANNERS)
export const isMixedUnseen = (manner: string) => mixedManners.indexOf(manner) % 3 === 2

/**
 * A set as people keep it: drums of which some were struck softly and hard, some several times and some once, and names that say
 * only what there is to say.
 */
export function mixedSet(manner: string, seed: number): NameSet {
  const random = createRandom(seed * 7919 + mixedManners.indexOf(manner))
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!
  const tongue = TONGUES[any(Object.keys(TONGUES))]!
  const count = 3 + Math.floor(random() * 3)
  const names = [...tongue.drums].sort(() => random() - 0.5).slice(0, count)
  const drums = names.map((name): Drum => ({ name, levels: any([1, 1, 2, 2, 3]), takes: any([1, 1, 2, 3, 4]) }))
  const saysOne = random() < 0.3 // a single take is called 1 all the same
  const microphones = random() < 0.2 ? 2 : 1
  const nameOf = MANNERS[manner]!(any(['_', '-', ' ', '.']))
  const files: MadeFile[] = drums.flatMap((drum, d) => {
    const [base, length, step, centre] = [-26 + 10 * random(), 8000 + 50000 * random(), 4 + 4 * random(), 100 * 60 ** random()]
    const words = drum.levels > 1 ? tongue.levels.find((each) => each.length === drum.levels)! : ['']
    return words.flatMap((word, level) =>
      Array.from({ length: drum.takes }, (_, take) => {
        const [loudnessDb, frames] = [base + step * level + 2.4 * (random() - 0.5), Math.round(length * (1 + 0.08 * level) * (0.85 + 0.3 * random()))] // prettier-ignore
        const centreHz = centre * (1 + 0.06 * level) * (0.95 + 0.1 * random())
        return Array.from({ length: microphones }, (_, microphone) => {
          const path = nameOf(drum.name, word, drum.takes > 1 || saysOne ? String(take + 1) : '', microphones > 1 ? tongue.microphones[microphone]! : '', drum) // prettier-ignore
          const [folder, name] = path.includes('/') ? path.split('/') : [undefined, path]
          const file = { name: `${name}.wav`, ...(folder ? { folder } : {}), loudnessDb: loudnessDb - 4 * microphone, frames, centreHz }
          return { file, drum: d, level, take, microphone }
        })
      }).flat(),
    )
  })
  return { kind: manner, files: files.sort(() => random() - 0.5) }
}
