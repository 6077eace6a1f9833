import { dividingJoin, groupsAfter, hitPortraitsOf, hitUnlikeness, joinsOf, portraitOf, unlikeness } from '@heliaster/core/alike'

import type { Figure } from './figure'
import { manners, realScene } from './real/compose'
import { banks, strikesOfBank } from './real/drums'
import { measuredPackages, REAL_RATE, realStrikes } from './real/material'
import type { RealStrike } from './real/material'
import { mfccMeans } from './real/mfcc'

const SEED = Number(process.env.BENCH_SEED ?? 900)
const SCENES = 3
const LOOKED_AT_SECONDS = 0.45

/**
 * How well other takes of the same thing are found by likeness: mean average precision over impacts that others recorded,
 * as single files and as hits of composed recordings, beside means of MFCC; and how well hits fall into things by
 * themselves, as the F-measure of pairs that are one thing. One package was never looked at, nor were the banks of drums.
 */
export function figuresOfAlike(): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  for (const [name, { isUnseen }] of measuredPackages)
    Object.assign(figures, figuresOfSet(`alike.${name}${isUnseen ? ' (unseen)' : ''}`, realStrikes(name)))
  for (const name of Object.keys(banks)) Object.assign(figures, figuresOfSet(`alike.${name} (unseen)`, strikesOfBank(name, SEED)))
  return figures
}

function figuresOfSet(title: string, strikes: readonly RealStrike[]): Record<string, Figure> {
  const figures: Record<string, Figure> = {}
  const sounds = strikes.map(({ samples }) => samples.subarray(beginOf(samples)))
  const portraits = sounds.map((sound) => portraitOf(sound, REAL_RATE))
  const files = precisions(sounds, strikes.map(({ thing }) => thing), (a, b) => unlikeness(portraits[a], portraits[b])) // prettier-ignore
  if (files.queries === 0) return figures
  figures[`${title}.files`] = figureOf(files, `${files.queries} files`)
  const scenes = Object.keys(manners).flatMap((manner) => Array.from({ length: SCENES }, (_, i) => hitsOf(manner, strikes, SEED + i)))
  const all = scenes.map(({ sounds: hits, things, unlike }) => precisions(hits, things, unlike))
  const queries = all.reduce((sum, one) => sum + one.queries, 0)
  const mean = (of: 'ours' | 'theirs') => all.reduce((sum, one) => sum + one[of] * one.queries, 0) / queries
  figures[`${title}.hits`] = figureOf({ ours: mean('ours'), theirs: mean('theirs'), queries }, `${scenes.length} recordings`)
  const grouped = scenes.map(({ things, unlike }) => pairsRight(things, unlike))
  figures[`${title}.things`] = {
    value: grouped.reduce((sum, one) => sum + one, 0) / grouped.length,
    unit: `F of pairs that are one thing, ${scenes.length} recordings`,
    spread: [Math.min(...grouped), Math.max(...grouped)],
  }
  return figures
}

interface Precision {
  readonly ours: number
  readonly theirs: number
  readonly queries: number
}

const figureOf = ({ ours, theirs }: Precision, of: string): Figure => ({
  value: ours,
  unit: `mean average precision, ${of}`,
  peer: `means of MFCC, ${theirs.toFixed(3)}`,
})

function beginOf(samples: Float32Array): number {
  const top = samples.reduce((most, sample) => Math.max(most, Math.abs(sample)), 0)
  return Math.max(
    0,
    samples.findIndex((sample) => Math.abs(sample) >= 0.02 * top),
  )
}

function hitsOf(manner: string, strikes: Parameters<typeof realScene>[1], seed: number) {
  const { samples, truth, things } = realScene(manners[manner]!, strikes, seed)
  const hits = truth.map((onsetFrame, i) => ({ onsetFrame, endFrame: truth[i + 1] ?? samples.length }))
  const portraits = hitPortraitsOf(samples, REAL_RATE, hits)
  const unlike = (a: number, b: number) => hitUnlikeness(portraits[a], portraits[b])
  return { sounds: hits.map(({ onsetFrame, endFrame }) => samples.subarray(onsetFrame, endFrame)), things, unlike }
}

type Unlike = (a: number, b: number) => number

function precisions(sounds: readonly Float32Array[], things: readonly string[], unlike: Unlike): Precision {
  const cepstra = sounds.map((sound) => mfccMeans(sound.subarray(0, Math.round(LOOKED_AT_SECONDS * REAL_RATE)), REAL_RATE))
  const ours = things.map((_, i) => averagePrecision(i, things, (j) => unlike(i, j)))
  const theirs = things.map((_, i) => averagePrecision(i, things, (j) => Math.hypot(...cepstra[i].map((value, k) => value - cepstra[j][k]))))
  const known = ours.filter((value) => value !== undefined)
  const mean = (values: readonly (number | undefined)[]) => values.reduce<number>((sum, value) => sum + (value ?? 0), 0) / Math.max(1, known.length)
  return { ours: mean(ours), theirs: mean(theirs), queries: known.length }
} // prettier-ignore

function averagePrecision(query: number, things: readonly string[], unlike: (other: number) => number): number | undefined {
  const others = things.map((_, i) => i).filter((i) => i !== query)
  const wanted = others.filter((i) => things[i] === things[query]).length
  if (wanted === 0) return undefined
  const order = others.map((i) => ({ i, unlike: unlike(i) })).sort((a, b) => a.unlike - b.unlike)
  let found = 0
  return order.reduce((sum, { i }, rank) => (things[i] === things[query] ? sum + ++found / (rank + 1) : sum), 0) / wanted
}

function pairsRight(things: readonly string[], unlike: Unlike): number {
  const joins = joinsOf(things.length, unlike)
  const groupOf = new Map(groupsAfter(things.length, joins, dividingJoin(joins)).flatMap((group, g) => group.map((i) => [i, g] as const)))
  const counts = { right: 0, wrong: 0 }
  for (let a = 0; a < things.length; a++)
    for (let b = a + 1; b < things.length; b++) {
      const [isOne, isJoined] = [things[a] === things[b], groupOf.get(a) === groupOf.get(b)]
      if (isOne && isJoined) counts.right++
      else if (isOne || isJoined) counts.wrong++
    }
  return (2 * counts.right) / (2 * counts.right + counts.wrong)
}
