import type { Family, Hit, Warning } from '@heliaster/core/cut'

import type { CutHit } from './use-source-cut'

export const hitSorts = [
  { value: 'time', text: 'Time' },
  { value: 'loudness', text: 'Loudness' },
  { value: 'length', text: 'Length' },
  { value: 'pitch', text: 'Pitch' },
  { value: 'brightness', text: 'Brightness' },
  { value: 'attack', text: 'Attack' },
] as const
export type HitSort = (typeof hitSorts)[number]['value']

/** How the list of hits is looked at: its order, and which ones. */
export interface HitListView {
  readonly sort: HitSort
  readonly isReversed: boolean
  readonly only: 'all' | 'kept' | 'passed' | 'open' | 'warned'
  readonly family?: Family
  readonly warning?: Warning
}

export const plainHitList: HitListView = { sort: 'time', isReversed: false, only: 'all' }

/** Low to high; what has no value goes last. */
const VALUES: Record<HitSort, (hit: Hit) => number> = {
  time: (hit) => hit.onsetFrame,
  loudness: (hit) => hit.loudnessDb,
  length: (hit) => hit.seconds,
  pitch: (hit) => hit.pitch?.hz ?? Infinity,
  brightness: (hit) => hit.centreHz,
  attack: (hit) => hit.attackSeconds,
}

export function listedHits(hits: readonly CutHit[], view: HitListView): CutHit[] {
  const shown = hits.filter(({ marker, hit }) => {
    if (view.family && hit?.family !== view.family) return false
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
  const value = ({ hit }: CutHit) => (hit ? VALUES[view.sort](hit) : Infinity)
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
    case 'pitch':
      return hit.pitch ? `${hit.pitch.hz.toFixed(1)} Hz` : 'unpitched'
    default:
      return ''
  }
}
