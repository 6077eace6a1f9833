import type { Curve, Envelope } from '../../kit/shape'
import { bendToK, table, toFrames } from './context'
import type { CompileContext } from './context'
import { CurveField, CurvePointField, EnvelopeField, PointField } from './layout'

/** Writes an envelope and returns its offset; -1 for none. Its points fall on whole frames. */
export function writeEnvelope(out: number[], envelope: Envelope, timeScale: number, context: CompileContext): number {
  return writePoints(out, envelope, (seconds) => toFrames(seconds * timeScale, context))
}

/** The same for pitch, whose points fall where they fall: a fall of a few frames is another one when it is rounded. */
export function writePitchEnvelope(out: number[], envelope: Envelope, { sampleRateHz }: CompileContext): number {
  return writePoints(out, envelope, (seconds) => seconds * sampleRateHz)
}

function writePoints(out: number[], envelope: Envelope, framesOf: (seconds: number) => number): number {
  const { points } = envelope
  if (points.length === 0) return -1
  const at = table(out, 1, EnvelopeField.length + points.length * PointField.length)
  out[at + EnvelopeField.count] = points.length
  out[at + EnvelopeField.sustain] = envelope.sustain !== undefined && envelope.sustain < points.length ? envelope.sustain : -1
  points.forEach((point, index) => {
    const row = at + EnvelopeField.length + index * PointField.length
    out[row + PointField.frame] = framesOf(point.seconds)
    out[row + PointField.value] = point.value
    out[row + PointField.k] = bendToK(point.bend)
  })
  return at
}

/** Writes a drawn curve and returns its offset; -1 for one without points, which is straight. */
export function writeCurve(out: number[], curve: Curve | undefined): number {
  if (!curve || curve.points.length === 0) return -1
  const at = table(out, 1, CurveField.length + curve.points.length * CurvePointField.length)
  out[at + CurveField.count] = curve.points.length
  curve.points.forEach(({ x, y, bend }, index) => {
    const row = at + CurveField.length + index * CurvePointField.length
    out[row + CurvePointField.x] = x
    out[row + CurvePointField.y] = y
    out[row + CurvePointField.k] = bendToK(bend)
  })
  return at
}
