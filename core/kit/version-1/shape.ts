/** Shapes and responses as the first version wrote them. This file stays as it is. */
import { z } from 'zod'

const seconds = z.number().min(0).max(3600)

/**
 * An envelope over a strike. Empty `points` means none: level 1, or 0 cents. Before the first point the value is the
 * first point's. `bend` shapes the way INTO a point, -1..1: with u the share of time passed and k = 64^bend,
 * value = from + (to - from) * u / (u + k (1 - u)). 0 is a straight line, -1 moves early, 1 moves late.
 */
export const envelopeSchema = z.strictObject({
  points: z
    .array(z.strictObject({ seconds, value: z.number().min(-12000).max(12000), bend: z.number().min(-1).max(1) }))
    .max(32)
    .refine((points) => points.every((p, i) => i === 0 || p.seconds >= points[i - 1]!.seconds), {
      message: 'envelope points run forward in time',
    }),
  sustain: z.number().int().min(0).max(31).optional(),
  loop: z.strictObject({ from: z.number().int().min(0), to: z.number().int().min(0) }).optional(),
})
export type Envelope = z.infer<typeof envelopeSchema>
export type EnvelopePoint = Envelope['points'][number]

export const filterTypes = ['off', 'lowPass', 'bandPass', 'highPass'] as const

export const shapeSchema = z.strictObject({
  amp: envelopeSchema,
  pitch: envelopeSchema,
  filter: z.strictObject({
    type: z.enum(filterTypes),
    cutoffHz: z.number().min(10).max(24000),
    resonance: z.number().min(0).max(1),
    env: envelopeSchema,
    envCents: z.number().min(-12000).max(12000),
  }),
  driveDb: z.number().min(0).max(60),
  crush: z.number().min(0).max(1),
  startSeconds: z.number().min(0).max(600),
  decayScale: z.number().min(0.01).max(100),
})
export type Shape = z.infer<typeof shapeSchema>
export type Filter = Shape['filter']

export const responseSources = [
  'velocity', 'wheel', 'controller', 'bend', 'pressure', 'note', 'turn', 'chance', 'strikeRate', 'lfo', 'quick',
] as const // prettier-ignore
export const responseTargets = ['gainDb', 'pan', 'tuneCents', 'startSeconds', 'cutoffCents', 'decay'] as const

/**
 * A control that moves a parameter, in the parameter's own unit. From velocity the set value is that of the loudest
 * strike and `amount` is how far it is lowered towards the softest; from chance the value wanders by +-amount.
 */
export const responseSchema = z.strictObject({
  from: z.enum(responseSources),
  which: z.number().int().min(0).max(127).optional(),
  to: z.strictObject({ kind: z.enum(responseTargets), rayId: z.string().max(64).optional() }),
  amount: z.number().min(-24000).max(24000),
  bend: z.number().min(-1).max(1),
  min: z.number().optional(),
  max: z.number().optional(),
  bypass: z.boolean(),
})
export type Response = z.infer<typeof responseSchema>
