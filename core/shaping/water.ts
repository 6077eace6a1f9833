import { broadFamily } from '../kit'
import type { Family } from '../kit'

/** Where the fundamental of a family usually lies, Hz: the water that carries it. */
const USEFUL_HZ: Partial<Record<Family, readonly [low: number, high: number]>> = {
  kick: [40, 60],
  tom: [60, 250],
  lowTom: [60, 95],
  midTom: [95, 130],
  highTom: [130, 250],
  snare: [150, 280],
  bell: [400, 2000],
}

/** What is deeper is hardly heard on any speaker, Hz. */
export const HARDLY_HEARD_HZ = 35
/** What is deeper is not heard at all, Hz. */
export const HEARING_HZ = 20
/** A level so far under the highest is still up, dB. */
const UP_DB = -36

/** The useful pitches of a family, Hz; nothing for one that has none of its own. */
export function usefulHz(family: Family): readonly [low: number, high: number] | undefined {
  return USEFUL_HZ[family] ?? USEFUL_HZ[broadFamily(family)]
}

/** Where a hit sinks below what is heard while its level is up. */
export interface Sinking {
  readonly fromSeconds: number
  readonly toSeconds: number
  readonly lowestHz: number
}

/**
 * The stretches of a hit in which its pitch lies below 35 Hz while its level is within 36 dB of its highest.
 *
 * @param levels the highest level, 0 to 1, of each of equal parts of `seconds`
 * @param hzAt the pitch, Hz, at a time, s
 */
export function sinkingsOf(levels: ArrayLike<number>, seconds: number, hzAt: (seconds: number) => number): Sinking[] {
  let highest = 0
  for (let i = 0; i < levels.length; i++) highest = Math.max(highest, levels[i]!)
  const least = highest * 10 ** (UP_DB / 20)
  const found: Sinking[] = []
  let now: { fromSeconds: number; toSeconds: number; lowestHz: number } | undefined
  for (let i = 0; i < levels.length; i++) {
    const at = (seconds * (i + 0.5)) / levels.length
    const hz = hzAt(at)
    if (highest === 0 || levels[i]! < least || hz >= HARDLY_HEARD_HZ) {
      now = undefined
      continue
    }
    if (!now) found.push((now = { fromSeconds: (seconds * i) / levels.length, toSeconds: 0, lowestHz: hz }))
    now.toSeconds = (seconds * (i + 1)) / levels.length
    now.lowestHz = Math.min(now.lowestHz, hz)
  }
  return found
}

/** A sinking in words. */
export function sinkingWords(sinkings: readonly Sinking[]): string | undefined {
  if (sinkings.length === 0) return undefined
  const lowest = Math.min(...sinkings.map(({ lowestHz }) => lowestHz))
  const from = sinkings[0]!.fromSeconds * 1000
  const when = from < 1 ? 'from the start' : `from ${from.toFixed(0)} ms on`
  const what = lowest < HEARING_HZ ? 'below hearing' : 'hardly heard'
  return `Sinks to ${lowest.toFixed(0)} Hz ${when}, ${what}, while it is still loud.`
}
