import type { Hit, Warning } from '@heliaster/core/cut'
import { families, familyWords, isOfFamily } from '@heliaster/core/kit'
import type { Family } from '@heliaster/core/kit'

import type { CutHit } from '../bench/use-source-cut'

/** What hits can be sorted by; `unit` and `scale` are how its values are typed. */
export const hitSorts = [
  { value: 'time', text: 'Time', unit: 's', scale: 1 },
  { value: 'loudness', text: 'Loudness', unit: 'LUFS', scale: 1 },
  { value: 'peak', text: 'Peak', unit: 'dB', scale: 1 },
  { value: 'length', text: 'Length', unit: 'ms', scale: 1000 },
  { value: 'pitch', text: 'Pitch', unit: 'Hz', scale: 1 },
  { value: 'brightness', text: 'Brightness', unit: 'Hz', scale: 1 },
  { value: 'attack', text: 'Attack', unit: 'ms', scale: 1000 },
  { value: 'family', text: 'Family', unit: '', scale: 1 },
  { value: 'warnings', text: 'Warnings', unit: '', scale: 1 },
] as const
export type HitSort = (typeof hitSorts)[number]['value']

/** How the list of hits is looked at: its order, and which ones. */
export interface HitListView {
  readonly sort: HitSort
  readonly isReversed: boolean
  readonly only: 'all' | 'kept' | 'passed' | 'open' | 'warned'
  readonly family?: Family
  readonly warning?: Warning
  /** Lowest and highest value of what is sorted by, in its unit; what has no value is left out. */
  readonly from?: number
  readonly to?: number
}

export const plainHitList: HitListView = { sort: 'time', isReversed: false, only: 'all' }

/** Low to high, in the unit of the measure; what has no value goes last. */
const VALUES: Record<HitSort, (hit: Hit, rate: number) => number> = {
  time: (hit, rate) => hit.onsetFrame / rate,
  loudness: (hit) => hit.loudnessDb,
  peak: (hit) => hit.peakDb,
  family: (hit) => families.indexOf(hit.family),
  warnings: (hit) => hit.warnings.length,
  length: (hit) => hit.seconds,
  pitch: (hit) => hit.pitch?.hz ?? Infinity,
  brightness: (hit) => hit.centreHz,
  attack: (hit) => hit.attackSeconds,
}

export function listedHits(hits: readonly CutHit[], view: HitListView, sampleRateHz: number): CutHit[] {
  const value = ({ hit }: CutHit) => (hit ? VALUES[view.sort](hit, sampleRateHz) : Infinity)
  const { scale } = hitSorts.find((sort) => sort.value === view.sort)!
  const isBetween = (item: CutHit) => {
    if (view.from === undefined && view.to === undefined) return true
    const shown = value(item) * scale
    return Number.isFinite(shown) && shown >= (view.from ?? -Infinity) && shown <= (view.to ?? Infinity)
  }
  const shown = hits.filter((item) => {
    const { marker, hit } = item
    if (!isBetween(item)) return false
    if (view.family && !(hit && isOfFamily(hit.family, view.family))) return false
    if (view.warning && !hit?.warnings.includes(view.warning)) return false
    switch (view.only) {
      case 'all':
        return true
      case 'kept':
        return marker.verdict === 'keep'
      case 'passed':
        return marker.verdict === 'pass'
      case 'open':
        return marker.verdict === undefined
      case 'warned':
        return (hit?.warnings.length ?? 0) > 0
    }
  })
  if (view.sort === 'time') return view.isReversed ? shown.reverse() : shown
  const way = view.isReversed ? -1 : 1
  return shown.sort((a, b) => {
    const [x, y] = [value(a), value(b)]
    if (x === y) return a.marker.frame - b.marker.frame
    return Number.isFinite(x) && Number.isFinite(y) ? way * (x - y) : x - y
  })
}

/** What the list says beside each hit when it is sorted by something. */
export function sortedFact(hit: Hit, sort: HitSort): string {
  switch (sort) {
    case 'brightness':
      return `${Math.round(hit.centreHz)} Hz centre`
    case 'attack':
      return `${(hit.attackSeconds * 1000).toFixed(1)} ms attack`
    case 'loudness':
      return `${hit.loudnessDb.toFixed(1)} LUFS`
    case 'family':
      return familyWords(hit.family)
    case 'pitch':
      return hit.pitch ? `${hit.pitch.hz.toFixed(1)} Hz` : 'unpitched'
    default:
      return ''
  }
}
