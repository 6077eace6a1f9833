import { hitUnlikeness } from './amid'
import type { HitPortrait } from './amid'
import { groupsAfter, joinsOf } from './groups'

/** A hit of a rhythm: what it is like, and on which place of its bar it falls, where that is known. */
export interface PlacedHit {
  readonly portrait: HitPortrait
  readonly place?: number
}

/** What is less unlike is surely one thing, dB, as `hitUnlikeness` says; and where the line between things runs. */
const SURELY_ONE = 2.2
const USUAL = 5.7
/** So many hits say where in the bar a thing is struck; and how much that weighs, dB. */
const ENOUGH = 4
const PLACE_DB = 6
/** What the sounds before it leave behind differs from place to place: that places differ weighs less than that they are the same. */
const OTHER_PLACES = 0.5
const ALIKE_PLACES = 0.45
/** Things of a rhythm come again and again: what comes less often is a stray of another one. */
const LEAST_TIMES = 3
const LEAST_SHARE = 0.04

interface Cluster {
  readonly members: readonly number[]
  readonly places: ReadonlyMap<number, number>
}

/**
 * The hits of a rhythm that are one thing, by their places in the list. Sounds say most; and where two sounds stand for each other, on
 * the same places of the bar, they are sooner one thing, where each keeps to places of its own, sooner two. Strays go to the thing
 * that they are most like.
 */
export function thingsOfRhythm(hits: readonly PlacedHit[]): number[][] {
  const unlike = (a: number, b: number) => hitUnlikeness(hits[a]!.portrait, hits[b]!.portrait)
  const joins = joinsOf(hits.length, unlike)
  const sure = joins.filter((join) => join.unlike < SURELY_ONE).length
  const table = hits.map((_, a) => hits.map((__, b) => (a === b ? 0 : unlike(a, b))))
  let clusters = groupsAfter(hits.length, joins, sure).map((members): Cluster => ({ members, places: placesOf(hits, members) }))
  for (;;) {
    const nearest = nearestPair(clusters, table)
    if (!nearest || nearest.apart > USUAL) break
    const [a, b] = [clusters[nearest.one]!, clusters[nearest.other]!]
    const members = [...a.members, ...b.members]
    clusters = [...clusters.filter((one) => one !== a && one !== b), { members, places: placesOf(hits, members) }]
  }
  return withStrays(clusters, table, hits.length).map((group) => group.sort((a, b) => a - b)).sort((a, b) => a[0]! - b[0]!)
} // prettier-ignore

function placesOf(hits: readonly PlacedHit[], members: readonly number[]): Map<number, number> {
  const places = new Map<number, number>()
  for (const i of members) {
    const { place } = hits[i]!
    if (place !== undefined) places.set(place, (places.get(place) ?? 0) + 1)
  }
  return places
}

function nearestPair(clusters: readonly Cluster[], table: readonly (readonly number[])[]): { one: number; other: number; apart: number } | undefined {
  let best: { one: number; other: number; apart: number } | undefined
  for (let one = 0; one < clusters.length; one++)
    for (let other = one + 1; other < clusters.length; other++) {
      const apart = meanApart(clusters[one]!.members, clusters[other]!.members, table) - standingIn(clusters[one]!, clusters[other]!)
      if (!best || apart < best.apart) best = { one, other, apart }
    }
  return best
} // prettier-ignore

function meanApart(one: readonly number[], other: readonly number[], table: readonly (readonly number[])[]): number {
  let sum = 0
  for (const a of one) for (const b of other) sum += table[a]![b]!
  return sum / (one.length * other.length)
}

/** How much, in dB, the places say that two are one thing (above 0) or two; nothing where there are few. */
function standingIn(one: Cluster, other: Cluster): number {
  if (Math.min(one.members.length, other.members.length) < ENOUGH || one.places.size === 0 || other.places.size === 0) return 0
  let [both, a, b] = [0, 0, 0]
  for (const [place, count] of one.places) {
    both += count * (other.places.get(place) ?? 0)
    a += count * count
  }
  for (const count of other.places.values()) b += count * count
  const alike = both / Math.sqrt(a * b) - ALIKE_PLACES
  return PLACE_DB * (alike > 0 ? alike : OTHER_PLACES * alike)
}

function withStrays(clusters: readonly Cluster[], table: readonly (readonly number[])[], count: number): number[][] {
  const least = Math.max(LEAST_TIMES, LEAST_SHARE * count)
  const often = clusters.filter(({ members }) => members.length >= least)
  if (often.length === 0) return clusters.map(({ members }) => [...members])
  const grown = often.map(({ members }) => [...members])
  for (const { members } of clusters)
    if (members.length < least)
      for (const stray of members) {
        const apart = often.map((group) => meanApart([stray], group.members, table))
        grown[apart.indexOf(Math.min(...apart))]!.push(stray)
      }
  return grown
}
