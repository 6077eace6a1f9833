import { z } from 'zod'

import { clipSchema } from './clip'
import { bandIdSchema, padIdSchema, rayIdSchema, tieIdSchema } from './ids'
import { curveSchema } from './shape'

const nameSchema = z.string().max(120)
const midiSchema = z.number().int().min(0).max(127)
const fadeSeconds = z.number().min(0).max(10)
const strikes = z.number().int().min(1).max(128)
export const picks = ['cycle', 'random', 'shuffle'] as const

/** What of the pads is silenced: all of them, or these rays and bands alone. */
const reachSchema = z.strictObject({
  rays: z.array(rayIdSchema).max(128).optional(),
  bands: z.array(bandIdSchema).max(128).optional(),
})

const tieBase = { id: tieIdSchema }
export const tieSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...tieBase,
    kind: z.literal('choke'),
    from: padIdSchema,
    to: z.array(padIdSchema),
    fadeSeconds,
    reach: reachSchema.optional(),
    /** What of `from` does it; its strike where it is not said. */
    on: z.enum(['strike', 'letGo', 'pressure']).optional(),
  }),
  z.strictObject({
    ...tieBase,
    kind: z.literal('chokeGroup'),
    name: nameSchema,
    pads: z.array(padIdSchema),
    fadeSeconds,
    maxStrikes: strikes.optional(),
    reach: reachSchema.optional(),
    /** A pad of it silences its own strikes too. */
    itself: z.boolean().optional(),
  }),
  /** Pads that share a number of strikes without silencing each other. */
  z.strictObject({ ...tieBase, kind: z.literal('limit'), name: nameSchema, pads: z.array(padIdSchema), maxStrikes: strikes }),
  z.strictObject({
    ...tieBase,
    kind: z.literal('alsoStrike'),
    from: padIdSchema,
    to: z.array(
      z.strictObject({
        pad: padIdSchema,
        chance: z.number().min(0).max(1),
        gainDb: z.number().min(-120).max(60),
        delaySeconds: z.number().min(0).max(10),
        /** Its velocity over that of the strike, both 0..1. */
        velocity: curveSchema.optional(),
      }),
    ),
    passOn: z.boolean(),
  }),
  z.strictObject({ ...tieBase, kind: z.literal('takeTurns'), pads: z.array(padIdSchema), pick: z.enum(picks) }),
  z.strictObject({
    ...tieBase,
    kind: z.literal('openings'),
    controller: midiSchema,
    steps: z.array(z.strictObject({ from: midiSchema, pad: padIdSchema })),
    chokeAt: midiSchema.optional(),
  }),
  /** One drum struck at several places. */
  z.strictObject({ ...tieBase, kind: z.literal('spots'), name: nameSchema, spots: z.array(z.strictObject({ pad: padIdSchema, name: nameSchema })).max(32) }), // prettier-ignore
  /** Which stretch of a recording lies on which pad; even parts, in the order of the list, where no frames are said. */
  z.strictObject({
    ...tieBase,
    kind: z.literal('parts'),
    clip: clipSchema,
    /** A hand's strikes wait for the next of so many beats of the kit's tempo; at once where it is not said. */
    startsEveryBeats: z.number().min(0.0625).max(64).optional(),
    parts: z
      .array(
        z.strictObject({
          id: z.string().regex(/^[A-Za-z0-9_-]{1,80}$/),
          pad: padIdSchema,
          startFrame: z.number().int().min(0).optional(),
          endFrame: z.number().int().min(0).optional(),
        }),
      )
      .max(512),
  }),
])
export type Tie = z.infer<typeof tieSchema>
