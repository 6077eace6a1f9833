import type { Envelope, Response, Shape } from './shape'

const none: Envelope = { points: [] }

/** A shape that changes nothing: what is recorded is what sounds. */
export const plainShape: Shape = {
  amp: none,
  pitch: none,
  filter: { type: 'off', cutoffHz: 2000, resonance: 0, env: none, envCents: 0 },
  driveDb: 0,
  crush: 0,
  startSeconds: 0,
  decayScale: 1,
}

/** How many dB the softest strike lies below the loudest where `bands` recorded layers already carry the difference. */
export function velocityRangeDb(bands: number): number {
  return 30 / Math.max(1, bands)
}

/** The response of a new pad: velocity to level. */
export function velocityToLevel(bands: number): Response {
  const amount = velocityRangeDb(bands)
  return { from: 'velocity', to: { kind: 'gainDb' }, amount, bend: 0, bypass: false }
}
