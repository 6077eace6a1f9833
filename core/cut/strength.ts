/** The curve of strike strength: how suddenly the sound rises at each hop, 0..1 (1 is a rise of 40 dB or more). */
export interface StrengthCurve {
  readonly hopFrames: number
  readonly strength: Float32Array
}

const HOP_SECONDS = 1 / 750
const AFTER_HOPS = 4
const BEFORE_HOPS = 9
const FULL_DB = 40
/** No strike reaches the very top, so that a water line drawn there hides them all. */
const STRONGEST = 0.995
const BANDS = 3

/**
 * Rise of energy in three bands (split at 250 Hz and 2.5 kHz by one-pole filters): the mean over 5 ms after each hop
 * against the 12 ms before it, in dB over the recording's own noise floor. The band that rises most counts half, the
 * mean of all the other half, so that neither rumble nor hiss alone makes a strike.
 */
export function strengthCurve(mono: Float32Array, sampleRateHz: number): StrengthCurve {
  const hopFrames = Math.max(1, Math.round(sampleRateHz * HOP_SECONDS))
  const hops = Math.floor(mono.length / hopFrames)
  const energies = bandEnergies(mono, sampleRateHz, hopFrames, hops)
  const strength = new Float32Array(hops)
  const most = new Float32Array(hops)
  for (const energy of energies) {
    const floor = noiseFloor(energy) * 2 + 1e-11
    const sums = runningSums(energy)
    for (let hop = 1; hop < hops; hop++) {
      const after = mean(sums, hop, Math.min(hops, hop + AFTER_HOPS))
      const before = mean(sums, Math.max(0, hop - BEFORE_HOPS), hop)
      const riseDb = Math.max(0, 10 * Math.log10((after + floor) / (before + floor)))
      strength[hop] += riseDb / BANDS
      if (riseDb > most[hop]) most[hop] = riseDb
    }
  }
  for (let hop = 0; hop < hops; hop++) strength[hop] = Math.min(STRONGEST, (0.5 * strength[hop] + 0.5 * most[hop]) / FULL_DB)
  return { hopFrames, strength }
}

function bandEnergies(mono: Float32Array, sampleRateHz: number, hopFrames: number, hops: number): Float64Array[] {
  const low = new Float64Array(hops)
  const middle = new Float64Array(hops)
  const high = new Float64Array(hops)
  const lowStep = 1 - Math.exp((-2 * Math.PI * 250) / sampleRateHz)
  const highStep = 1 - Math.exp((-2 * Math.PI * 2500) / sampleRateHz)
  const rumbleStep = 1 - Math.exp((-2 * Math.PI * 30) / sampleRateHz)
  let rumble = 0
  let under250 = 0
  let under2500 = 0
  for (let hop = 0; hop < hops; hop++) {
    for (let i = hop * hopFrames; i < (hop + 1) * hopFrames; i++) {
      rumble += rumbleStep * (mono[i] - rumble)
      const x = mono[i] - rumble
      under250 += lowStep * (x - under250)
      under2500 += highStep * (x - under2500)
      low[hop] += under250 * under250
      middle[hop] += (under2500 - under250) * (under2500 - under250)
      high[hop] += (x - under2500) * (x - under2500)
    }
    low[hop] /= hopFrames
    middle[hop] /= hopFrames
    high[hop] /= hopFrames
  }
  return [low, middle, high]
}

/** The level that a fifth of all hops stay below: what the room sounds like when nothing is struck. */
export function noiseFloor(energy: Float64Array): number {
  if (energy.length === 0) return 0
  const sorted = Float64Array.from(energy).sort()
  return sorted[Math.floor(sorted.length / 5)]
}

function runningSums(energy: Float64Array): Float64Array {
  const sums = new Float64Array(energy.length + 1)
  for (let i = 0; i < energy.length; i++) sums[i + 1] = sums[i] + energy[i]
  return sums
}

function mean(sums: Float64Array, from: number, to: number): number {
  return to > from ? (sums[to] - sums[from]) / (to - from) : 0
}
