import { z } from 'zod'

import { Draft, elementEditSchemas, isElementEdit } from './elements'
import { audioHashSchema, bandIdSchema, eventIdSchema, kitIdSchema, padIdSchema, performanceIdSchema, turnIdSchema } from './ids'
import { merge } from './list'

export const PERFORMANCE_VERSION = 1
/** A performance and its events: an hour at most, and more than ten minutes of anything can hold. */
export const MOST_EVENTS = 100_000
const MOST_FRAMES = 192_000 * 3600

const frame = z.number().int().min(0).max(MOST_FRAMES)
const timed = { id: eventIdSchema, frame }
/** Names the finger or key, so that letting go reaches the right strike. */
const key = z.number()

export const playedStrikeSchema = z.strictObject({
  type: z.literal('strike'),
  ...timed,
  padId: padIdSchema,
  velocity: z.number().min(0).max(127),
  note: z.number().int().min(0).max(127).optional(),
  key,
  /** Set where a groove struck it; a hand did where it is not said. */
  by: z.literal('groove').optional(),
  /** What it asks for; where it is not said the pad chooses. */
  band: bandIdSchema.optional(),
  turn: turnIdSchema.optional(),
})
export type PlayedStrike = z.infer<typeof playedStrikeSchema>

/** What was played, one thing after the other. Frames are counted from where the performance begins to be computed. */
export const playedEventSchema = z.discriminatedUnion('type', [
  playedStrikeSchema,
  z.strictObject({ type: z.literal('letGo'), ...timed, padId: padIdSchema, key }),
  z.strictObject({ type: z.literal('stop'), ...timed, padId: padIdSchema.optional() }),
  /** A control by its number, or how hard a pad is pressed. */
  z.strictObject({ type: z.literal('control'), ...timed, control: z.number().int().min(0).max(1000), value: z.number() }),
  z.strictObject({ type: z.literal('press'), ...timed, padId: padIdSchema, value: z.number() }),
])
export type PlayedEvent = z.infer<typeof playedEventSchema>

/** How often and when a pad was struck before: what its turns and its chance go on from. Frames may lie before the first. */
export const padStandingSchema = z.strictObject({
  padId: padIdSchema,
  strikes: z.number().int().min(0),
  countFrom: z.number().int().min(0),
  lastFrame: z.number().optional(),
  lastNote: z.number().int().min(0).max(127).optional(),
  takenTurns: z.number().int().min(0).optional(),
  pressed: z.number().optional(),
  /** Of each of its bands, by their places. */
  bands: z.array(z.number().int().min(0)).max(128),
})
export type PadStanding = z.infer<typeof padStandingSchema>

/** From this frame on the kit stood as a text that is kept by its hash. */
export const segmentSchema = z.strictObject({ frame, kit: audioHashSchema })

/** How many pictures a film has a second, and whether its timecode drops numbers to keep with the clock (SMPTE ST 12-1). */
export const pictureRates = ['23.976', '24', '25', '29.97', '29.97 drop', '30', '50', '59.94', '59.94 drop', '60'] as const
export type PictureRate = (typeof pictureRates)[number]

/**
 * The film that it was played to; the film itself stays with the person. `startPictures` is the timecode of its first picture, in
 * pictures since midnight; `offsetSeconds` is where frame 0 of the performance lies in the film.
 */
export const pictureSchema = z.strictObject({
  rate: z.enum(pictureRates),
  startPictures: z
    .number()
    .int()
    .min(0)
    .max(60 * 86_400),
  offsetSeconds: z.number().min(-86_400).max(86_400),
  /** The name of the film's file: performances of one film are its lines. */
  film: z.string().max(255).optional(),
  /** Places in the film that sounds are spotted for, s from its first picture. */
  marks: z
    .array(z.strictObject({ seconds: z.number().min(0).max(86_400), name: z.string().max(120) }))
    .max(500)
    .optional(),
})

/** What was played, with all that is needed to sound it again bit for bit. */
export const performanceSchema = z.strictObject({
  format: z.literal('heliaster-performance'),
  version: z.literal(PERFORMANCE_VERSION),
  id: performanceIdSchema,
  name: z.string().max(120),
  /** The kit it was played on. */
  kitId: kitIdSchema,
  /** Milliseconds since 1970. */
  playedAt: z.number().min(0),
  sampleRateHz: z.number().min(8000).max(384_000),
  /** The engine's frame at which it begins to be computed, a multiple of 16: what moves by itself goes on from there. */
  originFrame: z.number().int().min(0).multipleOf(16),
  /** What of it is heard. What lies before only leads up to it. */
  fromFrame: frame,
  toFrame: frame,
  /** What its strikes are drawn to when they are drawn to a grid. */
  tempoBpm: z.number().min(20).max(400),
  standing: z.strictObject({
    pads: z.array(padStandingSchema).max(128),
    controls: z.array(z.tuple([z.number().int().min(0).max(1000), z.number()])).max(400),
    /** The pad that was struck last: what moves the mix by the pressure on its key goes by it. */
    latestPad: padIdSchema.optional(),
  }),
  /** Set where it begins while strikes were under way that decide what later ones do: it may not sound as it was. */
  isUnsteady: z.literal(true).optional(),
  segments: z.array(segmentSchema).min(1).max(10_000),
  events: z.array(playedEventSchema).max(MOST_EVENTS),
  /** Set once its events are no longer those that were played. */
  edited: z.boolean().optional(),
  picture: pictureSchema.optional(),
})
export type Performance = z.infer<typeof performanceSchema>

export const performanceEditSchema = z.discriminatedUnion('type', [
  ...elementEditSchemas,
  z.strictObject({
    type: z.literal('setPerformance'),
    fields: performanceSchema
      .pick({
        name: true,
        fromFrame: true,
        toFrame: true,
        tempoBpm: true,
        standing: true,
        segments: true,
        events: true,
        edited: true,
        picture: true,
      })
      .partial(),
  }),
])
export type PerformanceEdit = z.infer<typeof performanceEditSchema>

/** Returns the same performance when the edit changes nothing. */
export function applyPerformanceEdit(performance: Performance, edit: PerformanceEdit): Performance {
  if (!isElementEdit(edit)) return merge(performance, edit.fields)
  const draft = new Draft<Performance>(performance, () => undefined)
  draft.apply(edit)
  return draft.doc
}
