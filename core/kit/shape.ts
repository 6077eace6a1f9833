import { z } from 'zod'

import { parameterNames, scopes, usualChoices, usualValues } from './parameters'
import type { AllChoices, AllValues, Parameter } from './parameters'

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

/** What an envelope moves: the level (0..1), the pitch (cents), and each filter's cutoff (0..1 of its envelope's cents). */
export const envelopeNames = ['level', 'pitch', 'filter1', 'filter2'] as const
export type EnvelopeName = (typeof envelopeNames)[number]

/** Envelopes that something has of its own; each is inherited whole. */
export const envelopesSchema = z.strictObject({
  level: envelopeSchema.optional(),
  pitch: envelopeSchema.optional(),
  filter1: envelopeSchema.optional(),
  filter2: envelopeSchema.optional(),
})
export type Envelopes = z.infer<typeof envelopesSchema>
export type AllEnvelopes = Readonly<Required<Envelopes>>

export const noEnvelope: Envelope = { points: [] }
export const usualEnvelopes: AllEnvelopes = { level: noEnvelope, pitch: noEnvelope, filter1: noEnvelope, filter2: noEnvelope }

/** A shape that changes nothing: what is recorded is what sounds. */
export const usualShape = { values: usualValues, choices: usualChoices, envelopes: usualEnvelopes } as const

/** All that shapes a strike of one ray, with nothing left to inherit. */
export interface Shape {
  readonly values: AllValues
  readonly choices: AllChoices
  readonly envelopes: AllEnvelopes
}

/** By how much the decay stretches an envelope: the level's, and where there is none all others. */
export function stretchOf({ values, envelopes }: Pick<Shape, 'values' | 'envelopes'>, name: EnvelopeName): number {
  return name === 'level' || envelopes.level.points.length === 0 ? values.decayScale : 1
}

/** A drawn curve over 0..1, in the form of an envelope's way into a point. Without points it is straight. */
export const curveSchema = z.strictObject({
  points: z
    .array(z.strictObject({ x: z.number().min(0).max(1), y: z.number().min(-1).max(1), bend: z.number().min(-1).max(1) }))
    .max(32)
    .refine((points) => points.every((p, i) => i === 0 || p.x >= points[i - 1]!.x), {
      message: 'points of a curve run from left to right',
    }),
})
export type Curve = z.infer<typeof curveSchema>

const parameterSchema = z.enum(parameterNames as [Parameter, ...Parameter[]])
const itemIdSchema = z.string().regex(/^[A-Za-z0-9_.-]{1,160}$/, 'an id has 1 to 160 letters, digits, points, - or _')

/** A parameter anywhere in the kit, by ids; the kit itself needs none. An effect's parameters are in its own table. */
export const addressSchema = z.strictObject({ scope: z.enum(scopes), id: itemIdSchema.optional(), param: z.string().min(1).max(60) })
export type Address = z.infer<typeof addressSchema>

/** A parameter of the pad it stands on, or of one of its rays. */
export const ownAddressSchema = z.strictObject({ param: parameterSchema, ray: z.string().max(64).optional() })
export type OwnAddress = z.infer<typeof ownAddressSchema>

export const responseSources = [
  'velocity', 'wheel', 'controller', 'bend', 'pressure', 'keyPressure', 'note', 'turn', 'chance', 'strikeRate', 'oscillator', 'tiller',
] as const // prettier-ignore
export type ResponseSource = (typeof responseSources)[number]

/** `number` is a controller's; `id` names an oscillator or a tiller of the kit. */
const sourceSchema = z.strictObject({
  kind: z.enum(responseSources),
  number: z.number().int().min(0).max(127).optional(),
  id: itemIdSchema.optional(),
})

const responseBase = {
  id: itemIdSchema,
  /** By what its chance is named: two responses of a pad with the same one draw alike. */
  draw: z.number().int().min(0).max(255),
  from: sourceSchema,
  amount: z.number().min(-24000).max(24000),
  curve: curveSchema.optional(),
  min: z.number().optional(),
  max: z.number().optional(),
  bypass: z.boolean(),
}

/**
 * A control that moves parameters of its pad by what the table says they are moved by. From velocity the set value is
 * that of the loudest strike and `amount` is how far it is lowered towards the softest; from chance the value wanders by
 * +-amount.
 */
export const responseSchema = z.strictObject({ ...responseBase, to: z.array(ownAddressSchema).max(32) })
export type Response = z.infer<typeof responseSchema>

/** The same for buses and what is put into them. */
export const kitResponseSchema = z.strictObject({ ...responseBase, to: z.array(addressSchema).max(32) })
export type KitResponse = z.infer<typeof kitResponseSchema>

export const oscillatorSchema = z.strictObject({
  id: itemIdSchema,
  name: z.string().max(120),
  wave: z.enum(['sine', 'triangle', 'falling', 'steps']),
  rate: z.strictObject({ unit: z.enum(['Hz', 'beats']), value: z.number().positive().max(10000) }),
  /** Begins with each strike, or runs by itself. */
  runs: z.enum(['strike', 'always']),
  phase: z.number().min(0).max(1),
})
export type Oscillator = z.infer<typeof oscillatorSchema>

/** A named control of the kit, 0..1, and what it moves, each from one value to another. */
export const tillerSchema = z.strictObject({
  id: z.string().max(64),
  name: z.string().max(120),
  value: z.number().min(0).max(1),
  to: z
    .array(z.strictObject({ id: itemIdSchema, address: addressSchema, from: z.number(), to: z.number(), curve: curveSchema.optional() }))
    .max(64),
})
export type Tiller = z.infer<typeof tillerSchema>

/** The bend of a curve that goes from 0 to 1 in one way, which is what the engine plays; nothing for any other curve. */
export function bendOf(curve: Curve | undefined): number | undefined {
  if (!curve || curve.points.length === 0) return 0
  const [from, to] = curve.points
  const isOneWay = curve.points.length === 2 && from!.x === 0 && from!.y === 0 && to!.x === 1 && to!.y === 1
  return isOneWay ? to!.bend : undefined
}

/** A curve that goes from 0 to 1 in one way; nothing for the straight one, which needs no saying. */
export function bentCurve(bend: number): Curve | undefined {
  if (bend === 0) return undefined
  const points = [
    { x: 0, y: 0, bend: 0 },
    { x: 1, y: 1, bend },
  ]
  return { points }
}

/** Height of a curve at `x` (0..1): straight without points; else bent from point to point, level before and after them. */
export function heightOf(curve: Curve | undefined, x: number): number {
  const points = curve?.points ?? []
  if (points.length === 0) return x
  const next = points.findIndex((point) => point.x > x)
  if (next === 0) return points[0]!.y
  if (next < 0) return points[points.length - 1]!.y
  const [from, to] = [points[next - 1]!, points[next]!]
  const share = (x - from.x) / (to.x - from.x)
  const k = 64 ** to.bend
  return from.y + (to.y - from.y) * (share / (share + k * (1 - share)))
}
