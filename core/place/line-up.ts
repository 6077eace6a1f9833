import { COMPARED_SECONDS, crossSpectrum, MOST_APART_SECONDS, spectraOf } from './spectra'

/** How much later a sound arrives than another, and how alike they are: -1..1, below 0 where one is upside down. */
export interface Lag {
  readonly seconds: number
  readonly correlation: number
}

const FAINTEST = 1e-9

/**
 * The lag of `other` behind `reference`, both at `sampleRateHz`: where their cross-correlation over the first quarter of
 * a second is greatest in size, within 40 ms, to a fraction of a frame by a parabola through the peak. Undefined where
 * one of them is silent.
 */
export function lagBetween(reference: Float32Array, other: Float32Array, sampleRateHz: number): Lag | undefined {
  const length = Math.round(COMPARED_SECONDS * sampleRateHz)
  const most = Math.round(MOST_APART_SECONDS * sampleRateHz)
  const [a, b] = [reference, other].map((samples) => samples.subarray(0, length))
  const scale = Math.sqrt(powerOf(a) * powerOf(b))
  if (scale < FAINTEST) return undefined
  const { correlation, size } = correlate(a, b, sampleRateHz)
  const at = (lag: number) => correlation[lag < 0 ? size + lag : lag] / scale
  let best = 0
  for (let lag = -most; lag <= most; lag++) if (Math.abs(at(lag)) > Math.abs(at(best))) best = lag
  const [before, here, after] = [at(best - 1), at(best), at(best + 1)]
  const bend = before - 2 * here + after
  const shift = Math.abs(best) < most && bend !== 0 ? Math.max(-0.5, Math.min(0.5, (0.5 * (before - after)) / bend)) : 0
  return { seconds: (best + shift) / sampleRateHz, correlation: here }
}

function powerOf(samples: Float32Array): number {
  let power = 0
  for (const sample of samples) power += sample * sample
  return power
}

/** Circular cross-correlation by way of the spectra: entry n tells how b, moved back by n frames, goes with a. */
function correlate(a: Float32Array, b: Float32Array, sampleRateHz: number): { readonly correlation: Float64Array; readonly size: number } {
  const spectra = spectraOf(a, b, sampleRateHz)
  const back = spectra.fft.createComplexArray()
  spectra.fft.inverseTransform(back, crossSpectrum(spectra))
  return { correlation: Float64Array.from({ length: spectra.size }, (_, i) => back[2 * i]), size: spectra.size }
}

/** What brings one ray into line with the others. */
export interface LineUp {
  /** How much later it arrives than the first ray, as its cells agree. */
  readonly lagSeconds: number
  readonly delaySeconds: number
  readonly isFlipped: boolean
  /** How alike it is to the first ray at that lag, 0..1: near 0 nothing can be said. */
  readonly likeness: number
}

/**
 * From lags of many cells behind the first ray, by ray: the middle one counts, and the earlier rays wait for the latest,
 * since nothing can sound before it was struck. The first ray's own entry is at lag 0.
 */
export function lineUpRays(lagsOfRays: readonly (readonly Lag[])[]): LineUp[] {
  const middles = lagsOfRays.map((lags) => middleOf(lags))
  const latest = Math.max(0, ...middles.map(({ seconds }) => seconds))
  return middles.map(({ seconds, correlation }) => ({
    lagSeconds: seconds,
    delaySeconds: latest - seconds,
    isFlipped: correlation < 0,
    likeness: Math.abs(correlation),
  }))
}

function middleOf(lags: readonly Lag[]): Lag {
  if (lags.length === 0) return { seconds: 0, correlation: 0 }
  const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1]
  return { seconds: median(lags.map(({ seconds }) => seconds)), correlation: median(lags.map(({ correlation }) => correlation)) }
}
