import { bendToK, bent } from '../engine'
import type { Envelope } from '../kit'

/** The value of an envelope so many seconds after the strike, as the engine runs it, with no regard to waiting and rounds. */
export function envelopeAt({ points }: Envelope, seconds: number): number {
  const after = points.findIndex((point) => point.seconds > seconds)
  if (after < 0) return points[points.length - 1]!.value
  if (after === 0) return points[0]!.value
  const [from, to] = [points[after - 1]!, points[after]!]
  return bent(from.value, to.value, (seconds - from.seconds) / (to.seconds - from.seconds), bendToK(to.bend))
}

const STEP_SECONDS = 0.001
const LONGEST_SECONDS = 600

/** When a clip of so many seconds has been read to its end: tuning and the pitch envelope read it faster or slower. */
export function clipEndSeconds(pitch: Envelope, startSeconds: number, tuneCents: number, clipSeconds: number): number {
  const left = Math.max(0, clipSeconds - startSeconds)
  if (pitch.points.length === 0) return left / 2 ** (tuneCents / 1200)
  let read = 0
  let seconds = 0
  for (; read < left && seconds < LONGEST_SECONDS; seconds += STEP_SECONDS)
    read += STEP_SECONDS * 2 ** ((tuneCents + envelopeAt(pitch, seconds)) / 1200)
  return seconds
}
