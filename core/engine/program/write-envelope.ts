import type { Curve, Envelope } from '../../kit/shape'
import { bendToK, table } from './context'
import type { CompileContext } from './context'
import { CurveField, CurvePointField, EnvelopeField, PointField } from './layout'

/**
 * Writes an envelope, its times stretched, and returns its offset; -1 for none. Points fall where they fall: a way of a few
 * frames is another one when it is rounded.
 */
export function writeEnvelope(out: number[], envelope: Envelope, timeScale: number, { sampleRateHz }: CompileContext): number {
  const { points } = envelope
  if (points.length === 0) return -1
  const at = table(out, 1, EnvelopeField.length + points.length * PointField.length)
  out[at + EnvelopeField.count] = points.length
  const loop = envelope.loop && envelope.loop.from < envelope.loop.to && envelope.loop.to < points.length ? envelope.loop : undefined
  const sustain = loop?.to ?? envelope.sustain ?? -1
  out[at + EnvelopeField.sustain] = sustain < points.length ? sustain : -1
  out[at + EnvelopeField.loopFrom] = loop?.from ?? -1
  points.forEach((point, index) => {
    const row = at + EnvelopeField.length + index * PointField.length
    out[row + PointField.frame] = point.seconds * timeScale * sampleRateHz
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
