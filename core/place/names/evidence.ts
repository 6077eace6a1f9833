import { unlikeness } from '../../alike/portrait'
import { familyInName } from '../../cut/family-names'
import type { Family } from '../../kit/families'
import { middleOf } from '../notes-by-pitch'
import { sameStrike } from './strikes'
import type { Likeness, NamedFile } from './types'
import { determines } from './parts'
import type { Factor } from './factors'

/** What the files themselves tell of a factor, compared where all else of their names is alike. */
export interface Evidence {
  /** Loudness of each value against the others, dB; nothing where none is known. */
  readonly effectDb: ReadonlyMap<string, number>
  /** How far the values lie apart in loudness, and how far files of one value lie from where it puts them, dB. */
  readonly rangeDb: number
  readonly restDb: number
  /** 0..1: how many files that differ in this alone are equally long; nothing where lengths tell nothing. */
  readonly asLong?: number
  /** 0..1: how sure it is by ear that what differs in this alone is the same strike; nothing where that was not heard. */
  readonly sameStrike?: number
  /** How much lengths differ between values, in octaves. */
  readonly lengthOctaves: number
  /** How far the values lie apart in where their energy balances, octaves; nothing where that is not known. */
  readonly centreOctaves?: number
  /** How unlike the sound of files is that differ in this alone, dB, and how far apart their pitches lie, octaves; nothing where that is not known. */
  readonly unlike?: number
  readonly pitchOctaves?: number
  /** Whether all that it counts are called toms. */
  readonly areToms: boolean
  /** How many groups of files differ in this alone. */
  readonly groups: number
  /** How many files there are for each value. */
  readonly repeats: number
  /** -1..1: how loudness goes with numbers. */
  readonly rises: number
  readonly isHeard: boolean
}

const TOMS: ReadonlySet<Family> = new Set<Family>(['tom', 'lowTom', 'midTom', 'highTom'])
const EQUAL = 0.003
const MOST_PAIRS = 4000

/** Everything that is told of each factor of a set. */
export function evidenceOf(files: readonly NamedFile[], factors: readonly Factor[], likeness?: Likeness): Evidence[] {
  const isTelling = lengthsTell(files)
  const all = factors.map((factor) => {
    const heard = likeness && sameStrike(factors, factor, likeness)
    return { ...evidenceFor(files, factors, factor, isTelling), ...(heard === undefined ? {} : { sameStrike: heard }) }
  })
  return lengthsTellOf(all) ? all : all.map(({ asLong: _, ...rest }) => rest)
}

const AS_LONG = 0.8

/** Where drums or takes are as long as each other too, as after cutting all to one length, it says nothing of being one strike. */
export function lengthsTellOf(evidence: readonly Evidence[]): boolean {
  return evidence.some(({ asLong }) => asLong !== undefined) && evidence.filter(({ asLong }) => (asLong ?? 0) > AS_LONG).length < 2
}

/** So many files share a length where each strike has one of its own; more, where each drum or nothing has. */
const SHARE_A_STRIKE = 4
const MOST_SHARE = 12

/** Lengths tell strikes apart only where they differ from strike to strike. */
export function lengthsTell(files: readonly NamedFile[]): boolean {
  const known = files.flatMap(({ frames }) => (frames === undefined ? [] : [frames]))
  const different = new Set(known).size
  if (known.length < files.length || different < 2) return false
  return different * SHARE_A_STRIKE >= files.length || (different > 2 && different * MOST_SHARE >= files.length)
}

const LEVELLED_DB = 2
/** Less than this from value to value is no order. */
const LEAST_RISE_DB = 1.5

/** Loudness tells nothing of files that were all brought to one. */
function loudnessTells(files: readonly NamedFile[]): boolean {
  const known = files.flatMap(({ loudnessDb }) => (loudnessDb !== undefined && Number.isFinite(loudnessDb) ? [loudnessDb] : []))
  return known.length > 1 && Math.max(...known) - Math.min(...known) > LEVELLED_DB
}

/** Files that are alike in all but this factor, and in what only counts on within it. */
function groupsOf(files: readonly NamedFile[], factors: readonly Factor[], factor: Factor): number[][] {
  const others = factors.filter((other) => other !== factor && !determines(other, factor))
  const groups = new Map<string, number[]>()
  files.forEach((_, file) => {
    const key = others.map(({ values }) => values[file]).join('|')
    groups.set(key, [...(groups.get(key) ?? []), file])
  })
  return [...groups.values()].filter((group) => new Set(group.map((file) => factor.values[file])).size > 1)
}

function evidenceFor(files: readonly NamedFile[], factors: readonly Factor[], factor: Factor, isTelling: boolean): Evidence {
  const groups = groupsOf(files, factors, factor)
  const { effectDb, restDb } = effectsOf(files, factor, groups)
  const effects = [...effectDb.values()]
  const rangeDb = effects.length > 1 ? Math.max(...effects) - Math.min(...effects) : 0
  const pairs = pairsApart(factor, groups)
  return {
    effectDb,
    rangeDb,
    restDb,
    ...lengthsOf(files, pairs, isTelling),
    ...centresOf(files, factor, groups),
    ...soundsOf(files, pairs),
    areToms: files.every(({ name }, file) => factor.values[file] === '' || TOMS.has(familyInName(name) ?? 'other')),
    groups: groups.length,
    repeats: groups.reduce((sum, group) => sum + group.length, 0) / Math.max(1, new Set(factor.values).size),
    rises: rangeDb > LEAST_RISE_DB ? risesWith(factor, effectDb) : 0,
    isHeard: effects.length > 1 && loudnessTells(files),
  }
}

type Pairs = readonly (readonly [file: number, other: number])[]

/** Files of a group that differ in the factor; of very many the first. */
function pairsApart({ values }: Factor, groups: readonly (readonly number[])[]): Pairs {
  const pairs: [number, number][] = []
  for (const group of groups)
    for (let i = 0; i < group.length && pairs.length < MOST_PAIRS; i++)
      for (let k = i + 1; k < group.length; k++) if (values[group[i]] !== values[group[k]]) pairs.push([group[i], group[k]])
  return pairs
}

/** How many pairs are equally long, where lengths tell something, and how many octaves apart they are in length. */
function lengthsOf(files: readonly NamedFile[], pairs: Pairs, isTelling: boolean): Pick<Evidence, 'asLong' | 'lengthOctaves'> {
  const known = pairs.map(([a, b]) => [files[a].frames, files[b].frames]).filter((both): both is [number, number] => both.every(Boolean))
  if (known.length === 0) return { lengthOctaves: 0 }
  const same = known.filter(([a, b]) => Math.abs(a - b) <= EQUAL * Math.max(a, b)).length
  const octaves = known.reduce((sum, [a, b]) => sum + Math.abs(Math.log2(a / b)), 0)
  return { ...(isTelling ? { asLong: same / known.length } : {}), lengthOctaves: octaves / known.length }
}

/** Of fewer pairs than this share nothing is told. */
const LEAST_KNOWN = 0.25

/** How unlike pairs sound, and how far apart they are tuned: in the middle of all of which it is known. */
function soundsOf(files: readonly NamedFile[], pairs: Pairs): Pick<Evidence, 'unlike' | 'pitchOctaves'> {
  const middle = (of: (one: NamedFile, other: NamedFile) => number | undefined) => {
    const known = pairs.flatMap(([a, b]) => of(files[a], files[b]) ?? [])
    return known.length > 0 && known.length >= LEAST_KNOWN * pairs.length ? middleOf(known) : undefined
  }
  const unlike = middle(({ portrait: a }, { portrait: b }) => a && b && unlikeness(a, b))
  const pitchOctaves = middle(({ pitchHz: a }, { pitchHz: b }) => (a && b ? Math.abs(Math.log2(a / b)) : undefined))
  return { ...(unlike === undefined ? {} : { unlike }), ...(pitchOctaves === undefined ? {} : { pitchOctaves }) }
}

/** How much louder each value is than the rest of its groups, by alternating means, and what is left. */
function effectsOf(files: readonly NamedFile[], { values }: Factor, groups: readonly (readonly number[])[]) {
  const effect = new Map<string, number>()
  const db = (file: number) => files[file].loudnessDb ?? NaN
  const heard = groups.map((group) => group.filter((file) => Number.isFinite(db(file)))).filter((group) => new Set(group.map((file) => values[file])).size > 1) // prettier-ignore
  const effectOf = (file: number) => effect.get(values[file]) ?? 0
  let rest = 0
  for (let turn = 0; turn < 6; turn++) {
    const sums = new Map<string, { sum: number; count: number }>()
    rest = 0
    let count = 0
    for (const group of heard) {
      const mean = group.reduce((sum, file) => sum + db(file) - effectOf(file), 0) / group.length
      for (const file of group) {
        const own = sums.get(values[file]) ?? { sum: 0, count: 0 }
        sums.set(values[file], { sum: own.sum + db(file) - mean, count: own.count + 1 })
        rest += (db(file) - mean - effectOf(file)) ** 2
        count++
      }
    }
    for (const [value, { sum, count: own }] of sums) effect.set(value, sum / own)
    rest = count > 0 ? Math.sqrt(rest / count) : 0
  }
  return { effectDb: effect, restDb: rest }
}

/** The rank correlation of loudness with numbers, or with letters in their order (C. Spearman, 1904). */
function risesWith({ numberOf }: Factor, effectDb: ReadonlyMap<string, number>): number {
  const pairs = [...effectDb].flatMap(([value, db]) => (numberOf(value) === undefined ? [] : [[numberOf(value)!, db] as const]))
  if (pairs.length < 2) return 0
  const rank = (of: (pair: readonly [number, number]) => number) => {
    const sorted = pairs.map(of).sort((a, b) => a - b)
    return pairs.map((pair) => sorted.indexOf(of(pair)))
  }
  const [x, y] = [rank(([number]) => number), rank(([, db]) => db)]
  const mean = (pairs.length - 1) / 2
  const both = x.reduce((sum, one, i) => sum + (one - mean) * (y[i] - mean), 0)
  const own = x.reduce((sum, one) => sum + (one - mean) ** 2, 0)
  return own > 0 ? both / own : 0
}

/** Means of each value against its groups, as octaves; what is apart by more than a value is by itself. */
function centresOf(files: readonly NamedFile[], { values }: Factor, groups: readonly (readonly number[])[]): { centreOctaves?: number } {
  const sums = new Map<string, { sum: number; count: number }>()
  const octave = (file: number) => Math.log2(files[file].centreHz ?? 0)
  for (const group of groups) {
    const known = group.filter((file) => Number.isFinite(octave(file)))
    const mean = known.reduce((sum, file) => sum + octave(file), 0) / known.length
    for (const file of known) {
      const own = sums.get(values[file]) ?? { sum: 0, count: 0 }
      sums.set(values[file], { sum: own.sum + octave(file) - mean, count: own.count + 1 })
    }
  }
  const effects = [...sums.values()].map(({ sum, count }) => sum / count)
  return effects.length > 1 ? { centreOctaves: Math.max(...effects) - Math.min(...effects) } : {}
}
