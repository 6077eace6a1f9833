import { magnitudes } from './spectrum'

/** Where a struck tone settles, and how sure that is, 0..1: how much of the sound is tones, and how steady this one is. */
export interface Pitch {
  readonly hz: number
  readonly confidence: number
}

const RATE_HZ = 12000
const LOWEST_HZ = 30
const HIGHEST_HZ = 4000
/** The attack itself has no pitch yet. */
const SKIP_SECONDS = 0.025
const LOOK_SECONDS = 0.34
const SHORTEST_SECONDS = 0.03
/** A lower partial this far under the strongest is the one that is heard as the pitch. */
const LOWER_SHARE = 0.16
const PARTIALS = 6
const SURE = 0.35
/** Unsteadiness, in cents, at which confidence is down to a third. */
const UNSTEADY_CENTS = 25

/**
 * Pitch of a struck sound, whose partials need not be harmonic and may fall after the strike: the lowest strong partial
 * of the spectrum once the attack is over, followed by its phase; what it falls to is read by fitting
 * f(t) = a + b exp(-t / tau) to its frequency, weighted by its power. Undefined where no partial is steady enough.
 *
 * `mono` begins at the strike. Pitches from 30 Hz to 4 kHz are found.
 */
export function pitchOf(mono: Float32Array, sampleRateHz: number): Pitch | undefined {
  const step = Math.max(1, Math.floor(sampleRateHz / RATE_HZ))
  const rate = sampleRateHz / step
  const samples = decimate(mono, Math.round(SKIP_SECONDS * sampleRateHz), Math.round(LOOK_SECONDS * sampleRateHz), step)
  const length = soundingLength(samples, rate)
  if (length < SHORTEST_SECONDS * rate) return undefined
  const size = 2 ** Math.ceil(Math.log2(length))
  const partials = partialsOf(magnitudes(samples.subarray(0, length), 0, size, length), rate / size, (2 * rate) / length)
  const chosen = partials.list[0]
  if (!chosen) return undefined
  const track = trackOf(samples, rate, chosen.hz, partials.list[1]?.hz)
  const settled = track && settle(track)
  if (!settled) return undefined
  const confidence = partials.share * Math.exp(-settled.unrestCents / UNSTEADY_CENTS)
  if (confidence < SURE || settled.hz < LOWEST_HZ || settled.hz > HIGHEST_HZ) return undefined
  return { hz: settled.hz, confidence: Math.min(1, confidence) }
}

function decimate(mono: Float32Array, from: number, count: number, step: number): Float32Array {
  const available = Math.max(0, Math.min(count, mono.length - from))
  const out = new Float32Array(Math.floor(available / step))
  for (let i = 0; i < out.length; i++) {
    let sum = 0
    for (let j = 0; j < step; j++) sum += mono[from + i * step + j]
    out[i] = sum / step
  }
  return out
}

/** Up to where the sound is within 40 dB of its strongest 5 ms. */
function soundingLength(samples: Float32Array, rate: number): number {
  const block = Math.max(1, Math.round(rate * 0.005))
  let loudest = 0
  let last = 0
  for (let from = 0; from + block <= samples.length; from += block) {
    let energy = 0
    for (let i = from; i < from + block; i++) energy += samples[i] * samples[i]
    if (energy > loudest) loudest = energy
    if (energy > loudest * 1e-4) last = from + block
  }
  return loudest > 0 ? last : 0
}

interface Partial {
  readonly hz: number
  readonly level: number
}

/** The partials from the one that is heard as the pitch upwards, and the share of the energy that partials hold. */
function partialsOf(bins: Float64Array, binHz: number, lobeHz: number): { list: Partial[]; share: number } {
  const first = Math.max(2, Math.round(LOWEST_HZ / binHz))
  const last = Math.min(bins.length - 2, Math.round((HIGHEST_HZ * 1.2) / binHz))
  const lobe = Math.max(1, Math.round(lobeHz / binHz))
  const peaks: Partial[] = []
  let total = 0
  for (let bin = first; bin <= last; bin++) {
    total += bins[bin] * bins[bin]
    if (bins[bin] < bins[bin - 1] || bins[bin] < bins[bin + 1]) continue
    const from = Math.max(1, bin - lobe)
    const to = Math.min(bins.length - 1, bin + lobe)
    let isHighest = true
    for (let near = from; near <= to && isHighest; near++) isHighest = bins[near] <= bins[bin]
    if (!isHighest) continue
    const [a, b, c] = [bins[bin - 1], bins[bin], bins[bin + 1]]
    const shift = a - 2 * b + c === 0 ? 0 : (0.5 * (a - c)) / (a - 2 * b + c)
    peaks.push({ hz: (bin + shift) * binHz, level: b })
  }
  const strongest = Math.max(0, ...peaks.map((peak) => peak.level))
  let held = 0
  for (const peak of [...peaks].sort((a, b) => b.level - a.level).slice(0, PARTIALS)) {
    const middle = Math.round(peak.hz / binHz)
    for (let bin = Math.max(first, middle - lobe); bin <= Math.min(last, middle + lobe); bin++) held += bins[bin] * bins[bin]
  }
  return { list: peaks.filter((peak) => peak.level >= LOWER_SHARE * strongest), share: total > 0 ? Math.min(1, held / total) : 0 }
}

/** A frequency over time: points `stepSeconds` apart, the first at `fromSeconds`. */
interface Track {
  readonly fromSeconds: number
  readonly stepSeconds: number
  readonly hz: Float64Array
  readonly power: Float64Array
}

/** The frequency of one partial over time: turned down to 0 Hz, smoothed until its neighbour is gone, read from the phase. */
function trackOf(samples: Float32Array, rate: number, hz: number, nextHz?: number): Track | undefined {
  const apart = Math.min(hz, nextHz === undefined ? hz : nextHz - hz)
  // A whole number of periods, so that what stands at multiples of the partial, and its mirror image, vanish.
  const periods = Math.max(1, Math.ceil(Math.min(0.06, Math.max(0.006, 1.3 / apart)) * hz))
  const half = Math.round((periods * rate) / hz)
  const step = Math.max(1, Math.round(half / 5))
  const count = Math.floor((samples.length - 2 * half) / step) - 1
  if (count < 2) return undefined
  const { re, im } = smoothed(samples, (2 * Math.PI * hz) / rate, half)
  const track = { fromSeconds: (step + half) / rate, stepSeconds: step / rate, hz: new Float64Array(count), power: new Float64Array(count) }
  for (let point = 0, at = step; point < count; point++, at += step) {
    const [nowRe, nowIm, thenRe, thenIm] = [re[at], im[at], re[at - step], im[at - step]]
    const phase = Math.atan2(nowIm * thenRe - nowRe * thenIm, nowRe * thenRe + nowIm * thenIm)
    track.hz[point] = hz + (phase * rate) / (2 * Math.PI * step)
    track.power[point] = nowRe * nowRe + nowIm * nowIm
  }
  return track
}

/** Samples turned down by `turn` a sample, as the mean of means over `half` samples: a triangle of 2 `half`. */
function smoothed(samples: Float32Array, turn: number, half: number): { re: Float64Array; im: Float64Array } {
  const length = samples.length
  const re = new Float64Array(length)
  const im = new Float64Array(length)
  const [turnRe, turnIm] = [Math.cos(turn), -Math.sin(turn)]
  let [wheelRe, wheelIm] = [1, 0]
  for (let i = 0; i < length; i++) {
    re[i] = samples[i] * wheelRe
    im[i] = samples[i] * wheelIm
    const next = wheelRe * turnRe - wheelIm * turnIm
    wheelIm = wheelRe * turnIm + wheelIm * turnRe
    wheelRe = next
  }
  return { re: meansOf(meansOf(re, half), half), im: meansOf(meansOf(im, half), half) }
}

/** The sum of `width` values from each one on. */
function meansOf(values: Float64Array, width: number): Float64Array {
  const out = new Float64Array(Math.max(0, values.length - width + 1))
  let sum = 0
  for (let i = 0; i < values.length; i++) {
    sum += values[i]
    if (i >= width) sum -= values[i - width]
    if (i >= width - 1) out[i - width + 1] = sum
  }
  return out
}

const TAUS = [0.008, 0.015, 0.025, 0.04, 0.06, 0.09]
/** A fall is believed when it explains this much of what a steady tone leaves unexplained. */
const FALL_EXPLAINS = 0.6
const WEAKEST = 1e-4

/** Where the track settles, and how unsteady it is about that. */
function settle(track: Track): { hz: number; unrestCents: number } | undefined {
  const weights = weightsOf(track.power)
  const first = weights.findIndex((weight) => weight > 0)
  const last = weights.findLastIndex((weight) => weight > 0)
  if (last - first < 2) return undefined
  const seconds = (last - first) * track.stepSeconds
  let best = fit(track, weights, 0)
  const steady = best.error
  for (const tau of TAUS) {
    if (tau > seconds / 2) break
    const falling = fit(track, weights, tau)
    if (falling.b > 0 && falling.a > 0 && falling.error < best.error && falling.error < FALL_EXPLAINS * steady) best = falling
  }
  if (!(best.a > 0)) return undefined
  return { hz: best.a, unrestCents: (1200 / Math.LN2) * (Math.sqrt(best.error) / best.a) }
}

/** Points count by their level; those that are nearly gone do not. */
function weightsOf(power: Float64Array): Float64Array {
  let strongest = 0
  for (let i = 0; i < power.length; i++) if (power[i] > strongest) strongest = power[i]
  return power.map((own) => (own > strongest * WEAKEST ? Math.sqrt(own) : 0))
}

/** Weighted least squares of f(t) = a + b exp(-t / tau), or of a + b 0 for a tau of 0; `error` is the mean square that is left. */
function fit(
  { fromSeconds, stepSeconds, hz }: Track,
  weights: Float64Array,
  tau: number,
): { readonly a: number; readonly b: number; readonly error: number } {
  const start = tau > 0 ? Math.exp(-fromSeconds / tau) : 0
  const fall = tau > 0 ? Math.exp(-stepSeconds / tau) : 0
  let [w, x, y, xx, xy] = [0, 0, 0, 0, 0]
  for (let i = 0, shape = start; i < hz.length; i++, shape *= fall) {
    const weight = weights[i]
    w += weight
    x += weight * shape
    y += weight * hz[i]
    xx += weight * shape * shape
    xy += weight * shape * hz[i]
  }
  const spread = w * xx - x * x
  const b = spread > 1e-12 * w * w ? (w * xy - x * y) / spread : 0
  const a = (y - b * x) / w
  let error = 0
  for (let i = 0, shape = start; i < hz.length; i++, shape *= fall) error += (weights[i] * (hz[i] - a - b * shape) ** 2) / w
  return { a, b, error }
}
