import { FLUX_PER_SECOND } from './flux'
import { quantile } from './strength'

/** The flux of a rise is the highest from so long before it to so long after it, s. */
const HERE = [-0.01, 0.02] as const
/** Where the flux is looked at before and after it, s. */
const WINDOWS = [
  [-0.03, -0.01],
  [-0.05, -0.03],
  [-0.1, -0.05],
  [-0.25, -0.1],
  [0.025, 0.04],
  [0.04, 0.06],
  [0.06, 0.12],
  [0.12, 0.25],
] as const
const AROUND = [-0.1, 0.07] as const
const USUAL_PEAK = 0.9
/** So much of a usual peak is as good as nothing. */
const LEAST_SHARE = 0.01
const MOST = 4

export const FLUX_SIGNS = 4 + WINDOWS.length

/** What is told of a rise by the flux about it, `FLUX_SIGNS` numbers: how high it is, beside the recording's peaks, and beside what is near it. */
export function fluxSigns(flux: Float32Array): (seconds: number) => number[] {
  const usual = quantile(Float32Array.from(peaksOf(flux)), USUAL_PEAK)
  const least = LEAST_SHARE * usual + 1e-6
  return (seconds) => {
    const at = Math.round(seconds * FLUX_PER_SECOND)
    const here = highest(flux, at, HERE) + least
    const mean = meanOf(flux, at, AROUND)
    const within = (value: number, low: number) => Math.max(low, Math.min(MOST, value))
    return [
      Math.log(here / (usual + least)),
      within((here - least - mean) / (usual + least), -2),
      Math.log(here),
      Math.log((mean + least) / here),
      ...WINDOWS.map((window) => within(Math.log((highest(flux, at, window) + least) / here), -MOST)),
    ]
  }
}

function peaksOf(flux: Float32Array): number[] {
  const peaks: number[] = []
  for (let i = 1; i + 1 < flux.length; i++) if (flux[i] > flux[i - 1] && flux[i] >= flux[i + 1]) peaks.push(flux[i])
  return peaks
}

function highest(flux: Float32Array, at: number, [from, to]: readonly [number, number]): number {
  let most = 0
  for (let i = Math.max(0, at + Math.round(from * FLUX_PER_SECOND)); i <= at + Math.round(to * FLUX_PER_SECOND); i++) if (flux[i] > most) most = flux[i]
  return most
} // prettier-ignore

function meanOf(flux: Float32Array, at: number, [from, to]: readonly [number, number]): number {
  const [first, last] = [at + Math.round(from * FLUX_PER_SECOND), at + Math.round(to * FLUX_PER_SECOND)]
  let sum = 0
  for (let i = Math.max(0, first); i <= Math.min(last, flux.length - 1); i++) sum += flux[i]
  return sum / (last - first + 1)
}
