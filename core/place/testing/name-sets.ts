import { seeded } from '../../kit/builders'
import type { NamedFile } from '../names/types'

/** A strike as it was made: which drum, how hard (0 is the softest), which take, which microphone heard it. */
export interface MadeFile {
  readonly file: NamedFile
  readonly drum: number
  readonly level: number
  readonly take: number
  readonly microphone: number
}

export interface NameSet {
  readonly kind: string
  readonly files: readonly MadeFile[]
}

/**
 * Sets of files named as people name them, in languages and manners of their own. The words here are of this generator
 * alone: the reader knows none of its lists. `levels` run from soft to loud.
 */
interface Tongue {
  readonly drums: readonly string[]
  readonly levels: readonly (readonly string[])[]
  readonly microphones: readonly string[]
  readonly take: readonly string[]
}

export const TONGUES: Readonly<Record<string, Tongue>> = {
  german: {
    drums: ['Fass', 'Planke', 'Kiel', 'Ruder Holz', 'Eimer'],
    levels: [
      ['leise', 'laut'],
      ['sanft', 'mittel', 'kräftig'],
      ['zart', 'leicht', 'fest', 'heftig'],
    ],
    microphones: ['Nah', 'Fern', 'Decke', 'Kiste'],
    take: ['Schlag', 'Nr', 'Versuch'],
  },
  french: {
    drums: ['Tonneau', 'Planche', 'Quille', 'Bouée rouge', 'Seau'],
    levels: [
      ['doux', 'fort'],
      ['faible', 'moyen', 'puissant'],
      ['léger', 'posé', 'appuyé', 'violent'],
    ],
    microphones: ['Proche', 'Loin', 'Salle', 'Plafond'],
    take: ['prise', 'coup', 'essai'],
  },
  spanish: {
    drums: ['Barril', 'Tabla', 'Quilla', 'Cubo grande', 'Remo'],
    levels: [
      ['suave', 'fuerte'],
      ['flojo', 'medio', 'duro'],
      ['leve', 'normalito', 'recio', 'brutal'],
    ],
    microphones: ['Cerca', 'Lejos', 'Sala', 'Techo'],
    take: ['toma', 'golpe', 'vez'],
  },
  russian: {
    drums: ['бочка', 'доска', 'киль', 'весло', 'ведро'],
    levels: [
      ['тихо', 'громко'],
      ['слабо', 'средне', 'сильно'],
      ['еле', 'легко', 'крепко', 'мощно'],
    ],
    microphones: ['близко', 'далеко', 'зал', 'потолок'],
    take: ['дубль', 'удар', 'раз'],
  },
  japanese: {
    drums: ['樽', '板', '竜骨', '櫂', '桶'],
    levels: [
      ['弱', '強'],
      ['小', '中', '大'],
      ['極弱', '弱め', '強め', '極強'],
    ],
    microphones: ['近', '遠', '部屋', '天井'],
    take: ['回', 'テイク', '打'],
  },
  finnish: {
    drums: ['tynnyri', 'lankku', 'köli', 'airo', 'ämpäri'],
    levels: [
      ['hiljaa', 'kovaa'],
      ['heikko', 'keski', 'vahva'],
      ['hento', 'kevyt', 'raju', 'hurja'],
    ],
    microphones: ['lähi', 'kauko', 'huone', 'katto'],
    take: ['otto', 'isku', 'kerta'],
  },
  polish: {
    drums: ['beczka', 'deska', 'stępka', 'wiosło', 'wiadro'],
    levels: [
      ['cicho', 'głośno'],
      ['słabo', 'średnio', 'mocno'],
      ['ledwo', 'lekko', 'tęgo', 'potężnie'],
    ],
    microphones: ['blisko', 'daleko', 'pokój', 'sufit'],
    take: ['ujęcie', 'cios', 'próba'],
  },
  yard: {
    drums: ['cask', 'thwart', 'bilge pump', 'mooring ring', 'tiller'],
    levels: [
      ['brushed', 'whacked'],
      ['tapped', 'knocked', 'slammed'],
      ['grazed', 'nudged', 'struck', 'walloped'],
    ],
    microphones: ['mast', 'jetty', 'hold', 'quay'],
    take: ['go', 'pass', 'whack'],
  },
}

type Manner = (set: Making) => (drum: number, level: number, take: number, microphone: number) => string

interface Making {
  readonly random: () => number
  readonly tongue: Tongue
  readonly levels: number
  readonly takes: number
  readonly drums: number
  readonly microphones: number
  readonly separator: string
  any<T>(list: readonly T[]): T
}

const two = (n: number) => String(n).padStart(2, '0')
const three = (n: number) => String(n).padStart(3, '0')
const levelWords = ({ tongue, levels }: Making) => tongue.levels.find((words) => words.length === levels)!
const joined = (set: Making, parts: readonly string[]) => parts.filter(Boolean).join(set.separator)
const mic = (set: Making, m: number, words: readonly string[]) => (set.microphones > 1 ? words[m] : '')
const capital = (word: string) => word[0].toUpperCase() + word.slice(1)
/** How one edge of a range lies beside the next: with zeros or without. */
const rangesOf = (levels: number, zeros: boolean) =>
  Array.from({ length: levels }, (_, i) => {
    const [low, high] = [1 + Math.floor((i * 127) / levels), Math.floor(((i + 1) * 127) / levels)]
    return zeros ? [three(low), three(high)] : [String(low), String(high)]
  })

/** The kinds: each says how a file is called. Every third is left unseen while the reader is made. */
const KINDS: Readonly<Record<string, Manner>> = {
  'words in order': (set) => (d, l, t, m) =>
    joined(set, [set.tongue.drums[d], mic(set, m, set.tongue.microphones), levelWords(set)[l], String(t + 1)]),
  'take word glued to its number': (set) => {
    const word = set.any(set.tongue.take)
    return (d, l, t, m) => joined(set, [set.tongue.drums[d], levelWords(set)[l], `${word}${t + 1}`, mic(set, m, set.tongue.microphones)])
  },
  'letters for strength': (set) => (d, l, t, m) =>
    joined(set, [set.tongue.drums[d], 'abcd'[l], two(t + 1), mic(set, m, set.tongue.microphones)]),
  'microphone first, words of strength last': (set) => (d, l, t, m) =>
    joined(set, [mic(set, m, set.tongue.microphones), set.tongue.drums[d], two(t + 1), levelWords(set)[l]]),
  'camel case': (set) => (d, l, t, m) =>
    [
      set.tongue.drums[d].replace(/ (.)/g, (_, c: string) => c.toUpperCase()),
      mic(set, m, set.tongue.microphones),
      capital(levelWords(set)[l]),
      two(t + 1),
    ]
      .map((w) => capital(w || ' '))
      .join('')
      .replace(/ /g, ''),
  'ranges with zeros': (set) => {
    const ranges = rangesOf(set.levels, true)
    return (d, l, t, m) => joined(set, [set.tongue.drums[d], mic(set, m, set.tongue.microphones), ...ranges[l], String(t + 1)])
  },
  'ranges without zeros, by a dash': (set) => {
    const ranges = rangesOf(set.levels, false)
    return (d, l, t, m) => joined(set, [set.tongue.drums[d], ranges[l].join('-'), mic(set, m, set.tongue.microphones), two(t + 1)])
  },
  'numbers run on through the session': (set) => {
    let running = 0
    const of = new Map<string, number>()
    return (d, l, t, m) => {
      const key = [d, l, t].join()
      if (!of.has(key)) of.set(key, ++running)
      return joined(set, [set.tongue.drums[d], levelWords(set)[l], mic(set, m, set.tongue.microphones), three(of.get(key)!)])
    }
  },
  'microphones by letters': (set) => (d, l, t, m) =>
    joined(set, [set.tongue.drums[d], levelWords(set)[l], String(t + 1), mic(set, m, ['A', 'B', 'C', 'D'])]),
  'microphones by digits': (set) => (d, l, t, m) =>
    joined(set, [set.tongue.drums[d], mic(set, m, ['1', '2', '3', '4']), levelWords(set)[l], two(t + 1)]),
  'microphones by folders': (set) => (d, l, t, m) =>
    `${set.microphones > 1 ? `${set.tongue.microphones[m]}/` : ''}${joined(set, [set.tongue.drums[d], levelWords(set)[l], two(t + 1)])}`,
  'drums by folders': (set) => (d, l, t, m) =>
    `${set.tongue.drums[d]}/${joined(set, [mic(set, m, set.tongue.microphones), levelWords(set)[l], two(t + 1)])}`,
  'bare numbers': (set) => (d, l, t, m) =>
    joined(set, [set.tongue.drums[d], mic(set, m, set.tongue.microphones), String(l + 1), two(t + 1)]),
  'bare numbers, take first': (set) => (d, l, t, m) =>
    joined(set, [two(t + 1), set.tongue.drums[d], mic(set, m, set.tongue.microphones), String(l + 1)]),
  'digits crossed': (set) => (d, l, t, m) => joined(set, [set.tongue.drums[d], mic(set, m, set.tongue.microphones), `${l + 1}${t + 1}`]),
  'letters for takes': (set) => (d, l, t, m) =>
    joined(set, [set.tongue.drums[d], levelWords(set)[l], mic(set, m, set.tongue.microphones), 'abcdefgh'[t]]),
  velocities: (set) => (d, l, t, m) =>
    joined(set, [
      set.tongue.drums[d],
      String(Math.round(((l + 1) * 127) / set.levels)),
      mic(set, m, set.tongue.microphones),
      String(t + 1),
    ]),
  'levels by word and number': (set) => {
    const word = set.any(['kraft', 'puiss', 'fza', 'sila', 'voima'])
    return (d, l, t, m) =>
      joined(set, [set.tongue.drums[d], `${word}${l + 1}`, mic(set, m, set.tongue.microphones), `${set.any(['n', 'n'])}${t + 1}`])
  },
  'level one is the loudest': (set) => (d, l, t, m) =>
    joined(set, [set.tongue.drums[d], mic(set, m, set.tongue.microphones), `z${set.levels - l}`, two(t + 1)]),
  'a note for each drum': (set) => (d, l, t, m) =>
    joined(set, [String(36 + 2 * d), set.tongue.drums[d], levelWords(set)[l], mic(set, m, set.tongue.microphones), two(t + 1)]),
  'microphone word and number': (set) => (d, l, t, m) =>
    joined(set, [set.tongue.drums[d], set.microphones > 1 ? `${set.tongue.microphones[m]}${m + 1}` : '', levelWords(set)[l], two(t + 1)]),
}

export const nameKinds = Object.keys(KINDS)
/** Kinds that are not looked at while the reader is made. */
export const isUnseen = (kind: string) => nameKinds.indexOf(kind) % 3 === 2

export interface SetOptions {
  /** Whether all files are equally long, so that lengths tell nothing. */
  readonly equalLengths?: boolean
  /** Replaces every word by random letters of the same length. */
  readonly scrambled?: boolean
}

/** Neighbouring numbers far apart by mixing their bits. */
function mixed(number: number): number {
  let x = Math.imul(number + 1, 0x9e3779b1)
  x = Math.imul(x ^ (x >>> 15), 0x85ebca6b)
  x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35)
  return (x ^ (x >>> 16)) >>> 0
}

/** A set of a kind, from a seed. */
export function nameSet(kind: string, seed: number, { equalLengths = false, scrambled = false }: SetOptions = {}): NameSet {
  const random = seeded(mixed(seed * 977 + nameKinds.indexOf(kind)))
  const any = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]
  const tongue = TONGUES[any(Object.keys(TONGUES))]
  const drums = any([1, 1, 1, 2, 3, 4])
  const microphones = any([1, 2, 3, 3, 4])
  const levels = any([2, 3, 4])
  const takes = any([2, 3, 4, 5, 6])
  const separator = any(['_', '-', ' ', '.', ' - ', '__'])
  const shuffled = { ...tongue, drums: [...tongue.drums].sort(() => random() - 0.5) }
  const nameOf = KINDS[kind]({ random, tongue: shuffled, levels, takes, drums, microphones, separator, any })
  const missing = any([0, 0, 0.05, 0.15])
  const plainFrom = microphones > 1 && random() < 0.15 ? Math.ceil(takes / 2) : takes // takes from here on have the first microphone only
  const strikes = strikesOf(random, drums, levels, takes, equalLengths)
  const roomDb = Array.from({ length: microphones }, (_, m) => -m * (2 + 4 * random()))
  const words = new Map<string, string>()
  const scramble = (name: string) =>
    name.replace(
      /\p{Lu}?\p{Ll}+|\p{Lu}{2,}|\p{Lo}+/gu,
      (word) => words.get(word) ?? (words.set(word, lettersFor(word, random, words)), words.get(word)!),
    )
  const files: MadeFile[] = []
  for (let drum = 0; drum < drums; drum++)
    for (let level = 0; level < levels; level++)
      for (let take = 0; take < takes; take++)
        for (let microphone = 0; microphone < microphones; microphone++) {
          const plain = nameOf(drum, level, take, microphone)
          if ((take >= plainFrom && microphone > 0) || random() < missing) continue
          const { loudnessDb, frames } = strikes[drum][level][take]
          const file = {
            name: `${scrambled ? scramble(plain) : plain}.wav`,
            loudnessDb: loudnessDb + roomDb[microphone] + 0.6 * (random() - 0.5),
            frames,
          }
          files.push({ file, drum, level, take, microphone })
        }
  return { kind, files: files.sort(() => random() - 0.5) }
}

/** Loudness and length of each strike: drums differ much, levels in loudness, takes a little in both. */
function strikesOf(random: () => number, drums: number, levels: number, takes: number, equalLengths: boolean) {
  return Array.from({ length: drums }, () => {
    const [base, length, step] = [-26 + 10 * random(), 8000 + 50000 * random(), 4 + 4 * random()]
    return Array.from({ length: levels }, (_, level) =>
      Array.from({ length: takes }, () => ({
        loudnessDb: base + step * level + 2.4 * (random() - 0.5),
        frames: equalLengths ? 48000 : Math.round(length * (1 + 0.08 * level) * (0.85 + 0.3 * random())),
      })),
    )
  })
}

/** Random letters of the length and first letter's case of a word, unlike those of any other. */
function lettersFor(word: string, random: () => number, taken: ReadonlyMap<string, string>): string {
  const used = new Set(taken.values())
  for (;;) {
    const letters = [...word].map((_, i) => {
      const letter = 'bcdfghjklmnpqrstvwxz'[Math.floor(random() * 20)]
      return i === 0 && /\p{Lu}/u.test(word) ? letter.toUpperCase() : letter
    })
    const made = letters.join('')
    if (!used.has(made)) return made
  }
}
