import { levelResponse, responseTo } from '../kit/responses'
import type { Response } from '../kit/shape'

/** A band as it was measured: the middle of its velocities, 1..127, and how loud its turns are there on average, LUFS. */
export interface MeasuredBand {
  readonly velocity: number
  readonly loudness: number
}

/** A straight line of loudness over velocity. */
export interface DynamicsLine {
  /** Velocity and loudness (LUFS) of its middle. */
  readonly velocity: number
  readonly loudness: number
  /** dB for each velocity. */
  readonly rise: number
}

/** Harder is never quieter: an even curve rises by so much at least, dB for each velocity. */
const LEAST_RISE = 0.03
/** Changes that nobody hears are not made, dB. */
const LEAST_CHANGE = 0.1
/** What one action may change a band by, dB. */
const MOST_CHANGE = 40
const MOST_RESPONSE_DB = 60

/** The line that lies nearest to all bands (least squares); nothing where fewer than two of them sound. */
export function evenLine(bands: readonly MeasuredBand[]): DynamicsLine | undefined {
  const known = bands.filter(({ loudness }) => Number.isFinite(loudness))
  if (known.length < 2) return undefined
  const mean = (of: (band: MeasuredBand) => number) => known.reduce((sum, band) => sum + of(band), 0) / known.length
  const [velocity, loudness] = [mean((band) => band.velocity), mean((band) => band.loudness)]
  const spread = known.reduce((sum, band) => sum + (band.velocity - velocity) ** 2, 0)
  const joint = known.reduce((sum, band) => sum + (band.velocity - velocity) * (band.loudness - loudness), 0)
  return { velocity, loudness, rise: Math.max(LEAST_RISE, spread > 0 ? joint / spread : 0) }
}

/** By how many dB each band's level has to change to lie on a line; 0 for one that is silent, and where nobody would hear it. */
export function ontoLine(bands: readonly MeasuredBand[], line: DynamicsLine): number[] {
  return bands.map(({ velocity, loudness }) => {
    if (!Number.isFinite(loudness)) return 0
    const wanted = line.loudness + line.rise * (velocity - line.velocity)
    const change = Math.min(MOST_CHANGE, Math.max(-MOST_CHANGE, wanted - loudness))
    return Math.abs(change) < LEAST_CHANGE ? 0 : Math.round(change * 10) / 10
  })
}

/**
 * The responses with which a pad also rises along a line within each of its bands: velocity moves its level by as much as the
 * line does from the softest strike to the hardest. One that someone has bent or bounded stays as it is.
 */
export function responsesAlong(responses: readonly Response[], { rise }: DynamicsLine): readonly Response[] {
  const amount = Math.min(MOST_RESPONSE_DB, Math.round(rise * 126 * 10) / 10)
  const before = levelResponse(responses)
  if (!before) return [...responses, responseTo('velocity', 'gainDb', amount)]
  if (before.curve || before.min !== undefined || before.max !== undefined) return responses
  if (before.amount === amount && !before.bypass) return responses
  return responses.map((one) => (one === before ? { ...one, amount, bypass: false } : one))
}
