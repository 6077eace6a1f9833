// Our own drawing of how a hit sounds.
import { memo } from 'react'
import Svg, { Path } from 'react-native-svg'

/** What of a hit is seen on its rim. */
export interface RimLook {
  /** Lowest and highest of each column of the whole clip. */
  readonly low: Float32Array
  readonly high: Float32Array
  /** How long the clip is, and until when it is heard well, s. */
  readonly clipSeconds: number
  readonly decaySeconds: number
  /** Where its energy balances, Hz. */
  readonly centreHz: number
}

const SHORTEST_SECONDS = 0.02
const LONGEST_SECONDS = 4
/** Below this a rim is smooth; each octave above adds teeth. */
const SMOOTH_HZ = 350
const TEETH_PER_OCTAVE = 2.1
const INNER_SHARE = 0.79
const OUTER_SHARE = 0.99
const LEAST = 0.1

/** The part of the rim that a hit takes, 0..1: each doubling of its time adds the same. */
export function rimShare(decaySeconds: number): number {
  const share = Math.log(Math.max(SHORTEST_SECONDS, decaySeconds) / SHORTEST_SECONDS) / Math.log(LONGEST_SECONDS / SHORTEST_SECONDS)
  return Math.min(1, 0.06 + 0.94 * share)
}

/** Teeth of a whole rim: none for what is dark, many and fine for what is bright. */
export function rimTeeth(centreHz: number): number {
  return Math.round(2 * Math.PI * TEETH_PER_OCTAVE * Math.max(0, Math.log2(Math.max(1, centreHz) / SMOOTH_HZ)))
}

/** The hit's outline, laid round a circle of this radius from the top clockwise. */
export function rimPath(look: RimLook, radius: number): string {
  const share = rimShare(look.decaySeconds)
  const teeth = Math.round(rimTeeth(look.centreHz) * share)
  const depth = Math.min(0.7, rimTeeth(look.centreHz) / 60)
  const levelAt = levelsOf(look)
  const [inner, outer] = [INNER_SHARE * radius, OUTER_SHARE * radius]
  const steps = Math.max(40, 2 * teeth)
  const point = (r: number, at: number) => {
    const angle = 2 * Math.PI * share * at
    return `${(r * Math.sin(angle)).toFixed(1)} ${(-r * Math.cos(angle)).toFixed(1)}`
  }
  const outline = Array.from({ length: steps + 1 }, (_, i) => {
    const dip = teeth > 0 && steps === 2 * teeth ? i % 2 : teeth > 0 ? Math.abs(1 - ((i * 2 * teeth) / steps) % 2) : 0 // prettier-ignore
    return point(inner + (outer - inner) * Math.max(LEAST, levelAt(i / steps)) * (1 - depth * dip), i / steps)
  })
  const large = share > 0.5 ? 1 : 0
  const back = share >= 0.999 ? `A ${inner} ${inner} 0 1 0 ${point(inner, 0.5)} A ${inner} ${inner} 0 1 0 ${point(inner, 0)}` : `A ${inner} ${inner} 0 ${large} 0 ${point(inner, 0)}` // prettier-ignore
  return `M ${point(inner, 0)} L ${outline.join('L')} L ${point(inner, 1)} ${back} Z`
}

/** The level over the part that is heard, 0..1, seen larger where it is low. */
function levelsOf({ low, high, clipSeconds, decaySeconds }: RimLook): (at: number) => number {
  const columns = Array.from(high, (top, i) => Math.max(Math.abs(top), Math.abs(low[i]!)))
  const peak = Math.max(1e-6, ...columns)
  const heard = Math.min(1, Math.max(decaySeconds, SHORTEST_SECONDS) / Math.max(1e-6, clipSeconds))
  return (at) => {
    const place = at * heard * (columns.length - 1)
    const [before, after] = [columns[Math.floor(place)] ?? 0, columns[Math.ceil(place)] ?? 0]
    return Math.sqrt((before + (after - before) * (place % 1)) / peak)
  }
}

/** How a hit sounds, as its outline round a disc: how long by how far round it goes, how bright by its teeth. */
export const Rim = memo(function Rim({ look, size, colour }: { readonly look: RimLook; readonly size: number; readonly colour: string }) {
  return (
    <Svg width={size} height={size} viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`} aria-hidden>
      <Path d={rimPath(look, size / 2)} fill={colour} />
    </Svg>
  )
})
