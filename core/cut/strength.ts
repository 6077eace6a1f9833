import { bandEnergies } from './bands'
import type { BandEnergy } from './bands'

/** The curve of strike strength: how suddenly the sound rises at each hop, 0..1. */
export interface StrengthCurve {
  readonly hopFrames: number
  readonly strength: Float32Array
}

/** Fast is for what is struck; slow also sees what swells over some tens of milliseconds, as a brush or a bow. */
export type Attack = 'fast' | 'slow'

const HOP_SECONDS = 1 / 750
/** For each band, how long it is looked at after and before a hop, ms: a few periods of what sounds there. */
const AFTER_MS = [12, 10, 6, 5, 4, 4]
const BEFORE_MS = [24, 18, 14, 12, 12, 12]
/** How much longer that is for slow attacks. */
const SLOWER = 6
/** A rise that stands this many deviations of the band's own unrest above it counts half. */
const HALF_AT = 6
const LEAST_UNREST_DB = 0.7
const FULL_DB = 43
/** A rise counts by its root or so, so that soft strikes can be seen and the line has room below them. */
const BEND = 0.48
/** No strike reaches the very top, so that a water line drawn there hides them all. */
const STRONGEST = 0.995
/** A rise counts over this much of the noise of the room. */
export const ROOM_SHARE = 1.5
/** What is this far under a strike, and for how long, is taken for its echo. */
const ECHO_DB = -42
const ECHO_FALL_DB_PER_SECOND = 20

/**
 * The rise of energy in six bands: the mean just after each hop against the mean just before it, in dB over the room's
 * noise and over the echoes of the last strike. A rise counts by how far it stands out of the band's own unrest. The
 * band that rises most counts half, the mean of all the other half, so that a strike under a ringing one is seen in
 * the bands that are free, and neither rumble nor hiss alone makes a strike.
 *
 * `mono` is -1..1 at `sampleRateHz`; the curve has a value for each whole hop of a 750th of a second.
 */
export function strengthCurve(mono: Float32Array, sampleRateHz: number, attack: Attack = 'fast'): StrengthCurve {
  return listenForStrikes(mono, sampleRateHz, attack).curve
}

/** What is computed of a recording once: the curve, and the energies it was made from, for finding where tails end. */
export interface Listening {
  readonly curve: StrengthCurve
  readonly bands: readonly BandEnergy[]
}

export function listenForStrikes(mono: Float32Array, sampleRateHz: number, attack: Attack = 'fast'): Listening {
  const hopFrames = Math.max(1, Math.round(sampleRateHz * HOP_SECONDS))
  const energies = bandEnergies(mono, sampleRateHz, hopFrames)
  return { bands: energies, curve: { hopFrames, strength: strengthOf(energies, sampleRateHz / hopFrames / 1000, attack) } }
}

function strengthOf(energies: readonly BandEnergy[], hopsPerMs: number, attack: Attack): Float32Array {
  const hops = energies[0]?.length ?? 0
  const strength = new Float32Array(hops)
  const most = new Float32Array(hops)
  const longer = attack === 'slow' ? SLOWER : 1
  for (const [band, energy] of energies.entries()) {
    const after = Math.max(1, Math.round(AFTER_MS[band] * longer * hopsPerMs))
    const before = Math.max(1, Math.round(BEFORE_MS[band] * longer * hopsPerMs))
    const rises = risesOf(energy, after, before, hopsPerMs * 1000)
    const unrest = Math.max(LEAST_UNREST_DB, unrestOf(rises))
    for (let hop = 0; hop < hops; hop++) {
      const over = rises[hop] / unrest - 1
      if (over <= 0) continue
      const counted = (rises[hop] * over) / (over + HALF_AT)
      strength[hop] += counted / energies.length
      if (counted > most[hop]) most[hop] = counted
    }
  }
  const stops = stopsOf(energies, hops)
  for (let hop = 0; hop < hops; hop++) strength[hop] = stops[hop] ? 0 : shown((0.5 * strength[hop] + 0.5 * most[hop]) / FULL_DB)
  return strength
}

const STOP_SHARE = 0.03
/** What stops has stood before: a short tick that dies at once has not. */
const STOOD_SHARE = 0.25
const STOP_HOPS = 6
const STOP_FROM_HOPS = 6
/** The click is seen as soon as it comes into the windows that look ahead. */
const STOP_BEFORE_HOPS = 5

/** Where sound stops dead, by 15 dB within some ms: the click of that is no strike. */
function stopsOf(energies: readonly BandEnergy[], hops: number): Uint8Array {
  const total = new Float32Array(hops)
  for (const energy of energies) for (let hop = 0; hop < hops; hop++) total[hop] += energy[hop]
  const sums = runningSums(total)
  const stops = new Uint8Array(hops)
  for (let hop = 2 * STOP_HOPS; hop + STOP_FROM_HOPS + STOP_HOPS <= hops; hop++) {
    const later = sums[hop + STOP_FROM_HOPS + STOP_HOPS] - sums[hop + STOP_FROM_HOPS]
    const now = sums[hop] - sums[hop - STOP_HOPS]
    const earlier = sums[hop - STOP_HOPS] - sums[hop - 2 * STOP_HOPS]
    if (later < STOP_SHARE * now && earlier > STOOD_SHARE * now) stops.fill(1, hop - STOP_BEFORE_HOPS, hop + 1)
  }
  return stops
}

/** Bends 0.. into 0..1 without a flat top, so that even the strongest strike has one highest place. */
function shown(rise: number): number {
  const bent = rise ** BEND
  return (STRONGEST * bent) / (1 + bent ** 4) ** 0.25
}

function risesOf(energy: BandEnergy, after: number, before: number, hopsPerSecond: number): Float32Array {
  const hops = energy.length
  const rises = new Float32Array(hops)
  const sums = runningSums(energy)
  const noise = noiseFloor(windowMeans(sums, before))
  const floor = noise * ROOM_SHARE + 1e-12
  const echo = 10 ** (ECHO_DB / 10)
  const echoFall = 10 ** (-ECHO_FALL_DB_PER_SECOND / hopsPerSecond / 10)
  let echoes = 0
  for (let hop = 0; hop < hops; hop++) {
    if (hop > 0) echoes = Math.max(echoes * echoFall, energy[hop - 1] * echo)
    const ground = floor + echoes
    const end = Math.min(hops, hop + after)
    const now = (sums[end] - sums[hop]) / (end - hop)
    const from = Math.max(0, hop - before)
    // Before the file began there was the room: a file that begins with its strike has one.
    const then = (sums[hop] - sums[from] + (before - hop + from) * noise) / before
    rises[hop] = 10 * Math.log10((now + ground) / (then + ground))
  }
  return rises
}

/** How much a band rises and falls by itself: the deviation of its rises, from their median, so that strikes do not count. */
function unrestOf(rises: Float32Array): number {
  return quantile(rises, 0.5, Math.abs) * 1.4826
}

/** The level that a fifth of all hops stay below: what the room sounds like when nothing is struck. */
export function noiseFloor(energy: Float32Array | Float64Array): number {
  return quantile(energy, 0.2)
}

const QUANTILE_VALUES = 20_000

/** The value that a share of all stay below, from some of them, spread evenly. */
export function quantile(values: Float32Array | Float64Array, share: number, of: (value: number) => number = (value) => value): number {
  if (values.length === 0) return 0
  const step = Math.max(1, Math.floor(values.length / QUANTILE_VALUES))
  const some = new Float64Array(Math.ceil(values.length / step))
  for (let i = 0; i < some.length; i++) some[i] = of(values[i * step])
  some.sort()
  return some[Math.floor(some.length * share)]
}

/** Means over `width` hops, end to end. */
function windowMeans(sums: Float64Array, width: number): Float64Array {
  const count = Math.max(1, Math.floor((sums.length - 1) / width))
  return Float64Array.from({ length: count }, (_, i) => {
    const end = Math.min(sums.length - 1, (i + 1) * width)
    return (sums[end] - sums[i * width]) / Math.max(1, end - i * width)
  })
}

function runningSums(energy: BandEnergy): Float64Array {
  const sums = new Float64Array(energy.length + 1)
  for (let i = 0; i < energy.length; i++) sums[i + 1] = sums[i] + energy[i]
  return sums
}
