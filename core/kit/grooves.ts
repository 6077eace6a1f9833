import { z } from 'zod'

import { bandIdSchema, beadIdSchema, grooveIdSchema, padIdSchema, turnIdSchema } from './ids'
import { clipSchema } from './clip'
import { addressSchema, ownAddressSchema } from './shape'

const nameSchema = z.string().max(120)
const lengthSteps = z.number().int().min(1).max(1024)
const stepsPerBeat = z.number().int().min(1).max(48)
/** Where the second step of a pair stands, as a share of the pair: 0.5 straight, two thirds triplet, 0.75 dotted. */
const swing = z.number().min(0.5).max(0.75)
export const STRAIGHT = 0.5

/** Laps and other beads by which a bead sounds; all that is said must hold. */
const whenSchema = z.strictObject({
  laps: z.strictObject({ of: z.number().int().min(1).max(64), in: z.array(z.number().int().min(1).max(64)).max(64) }).optional(),
  after: beadIdSchema.optional(),
  unless: beadIdSchema.optional(),
})

/** Strikes in the place of one, over `steps` (one where it is not said), growing louder and closer by these shares. */
const repeatsSchema = z.strictObject({
  count: z.number().int().min(1).max(16),
  steps: z.number().positive().max(64).optional(),
  rise: z.number().min(-1).max(1).optional(),
  draw: z.number().min(-1).max(1).optional(),
})

export const beadSchema = z.strictObject({
  id: beadIdSchema,
  step: z.number().int().min(0).max(1023),
  /** Off its step by a share of one; 0 where it is not said. */
  offset: z.number().min(-0.5).max(0.5).optional(),
  velocity: z.number().int().min(1).max(127),
  chance: z.number().min(0).max(1).optional(),
  when: whenSchema.optional(),
  repeats: repeatsSchema.optional(),
  band: bandIdSchema.optional(),
  turn: turnIdSchema.optional(),
  clip: clipSchema.optional(),
  /** Parameters for this bead alone. */
  locks: z.array(ownAddressSchema.extend({ value: z.number(), mode: z.enum(['set', 'add']) })).max(32).optional(),
}) // prettier-ignore
export type Bead = z.infer<typeof beadSchema>

export const stringSchema = z.strictObject({
  padId: padIdSchema,
  /** Its own, where it goes by another length, division or swing than its groove. */
  lengthSteps: lengthSteps.optional(),
  stepsPerBeat: stepsPerBeat.optional(),
  swing: swing.optional(),
  beads: z.array(beadSchema).max(1024),
})
export type GrooveString = z.infer<typeof stringSchema>

export const grooveSchema = z.strictObject({
  id: grooveIdSchema,
  name: nameSchema,
  lengthSteps,
  stepsPerBeat,
  swing,
  strings: z.array(stringSchema).max(128),
  /** Movements of buses and what is in them. */
  lanes: z
    .array(
      z.strictObject({
        id: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/),
        address: addressSchema,
        points: z
          .array(z.strictObject({ step: z.number().min(0).max(1024), value: z.number(), bend: z.number().min(-1).max(1) }))
          .max(1024),
      }),
    )
    .max(64)
    .optional(),
  /** The timing and level of another groove, laid over by these shares. */
  feel: z.strictObject({ grooveId: grooveIdSchema, timing: z.number().min(0).max(1), level: z.number().min(0).max(1) }).optional(),
})
export type Groove = z.infer<typeof grooveSchema>

/** Grooves in the order in which they play as a song. */
export const songSchema = z
  .array(
    z.strictObject({
      id: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/),
      groove: grooveIdSchema,
      laps: z.number().int().min(1).max(1024),
    }),
  )
  .max(1024)
