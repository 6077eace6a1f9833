/** A pitch estimate with how sure it is: the height, 0..1, of the peak it was read from. */
export interface Pitch {
  readonly hz: number
  readonly confidence: number
}

const LOWEST_HZ = 35
const HIGHEST_HZ = 1500
const LOOK_SECONDS = 0.16
const SKIP_SECONDS = 0.008
const SURE = 0.82

/**
 * Pitch of a struck sound by the normalised square difference (P. McLeod, G. Wyvill, "A smarter way to find pitch",
 * 2005), over 160 ms after the attack. Undefined where no period repeats well enough.
 */
export function pitchOf(mono: Float32Array, sampleRateHz: number): Pitch | undefined {
  const step = Math.max(1, Math.floor(sampleRateHz / 12000))
  const rate = sampleRateHz / step
  const samples = decimate(mono, Math.round(SKIP_SECONDS * sampleRateHz), Math.round(LOOK_SECONDS * sampleRateHz), step)
  const longest = Math.min(Math.floor(rate / LOWEST_HZ), Math.floor(samples.length / 2))
  const shortest = Math.max(2, Math.floor(rate / HIGHEST_HZ))
  if (longest <= shortest + 2) return undefined
  const nsdf = new Float64Array(longest + 1)
  for (let lag = 1; lag <= longest; lag++) nsdf[lag] = normalisedAt(samples, lag)
  let lag = 1
  while (lag < longest && nsdf[lag] > 0) lag++ // leave the peak at lag 0
  let best = -1
  let highest = 0
  for (let i = Math.max(lag, shortest); i < longest; i++) if (nsdf[i] > highest) highest = nsdf[i]
  for (let i = Math.max(lag, shortest); i < longest && best < 0; i++)
    if (nsdf[i] > 0.93 * highest && nsdf[i] >= nsdf[i - 1] && nsdf[i] >= nsdf[i + 1]) best = i
  if (best < 0 || nsdf[best] < SURE) return undefined
  const [a, b, c] = [nsdf[best - 1], nsdf[best], nsdf[best + 1]]
  const shift = a - 2 * b + c === 0 ? 0 : (0.5 * (a - c)) / (a - 2 * b + c)
  return { hz: rate / (best + shift), confidence: Math.min(1, b) }
}

function decimate(mono: Float32Array, from: number, count: number, step: number): Float64Array {
  const available = Math.max(0, Math.min(count, mono.length - from))
  const out = new Float64Array(Math.floor(available / step))
  for (let i = 0; i < out.length; i++) {
    for (let j = 0; j < step; j++) out[i] += mono[from + i * step + j]
    out[i] /= step
  }
  return out
}

function normalisedAt(samples: Float64Array, lag: number): number {
  let product = 0
  let power = 0
  for (let i = 0; i + lag < samples.length; i++) {
    product += samples[i] * samples[i + lag]
    power += samples[i] * samples[i] + samples[i + lag] * samples[i + lag]
  }
  return power > 0 ? (2 * product) / power : 0
}
