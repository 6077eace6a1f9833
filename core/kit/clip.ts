import { z } from 'zod'

import { audioHashSchema } from './ids'
import { matterFault } from './matter-values'
import { valuesSchema } from './values-schema'

const frameSchema = z.number().int().min(0)
export const channelChoices = ['left', 'right', 'both', 'mid'] as const

/** Repairs of a recording, heard before anything else is done to it: a low cut, a shelf that turns the heights, no DC. */
export const repairsSchema = z.strictObject({
  lowCutHz: z.number().min(10).max(2000).optional(),
  shelfDb: z.number().min(-24).max(24).optional(),
  shelfHz: z.number().min(500).max(20000).optional(),
  lowShelfDb: z.number().min(-24).max(24).optional(),
  lowShelfHz: z.number().min(20).max(2000).optional(),
  bellDb: z.number().min(-24).max(24).optional(),
  bellHz: z.number().min(20).max(20000).optional(),
  bellOctaves: z.number().min(0.1).max(4).optional(),
  notchHz: z.number().min(20).max(20000).optional(),
  notchOctaves: z.number().min(0.02).max(2).optional(),
  removeDc: z.boolean().optional(),
})
export type Repairs = z.infer<typeof repairsSchema>

/** A stretch of a clip that goes round, until its strike is let go or to its end. */
export const loopSchema = z.strictObject({
  startFrame: frameSchema,
  endFrame: frameSchema,
  kind: z.enum(['forward', 'backAndForth']),
  until: z.enum(['end', 'letGo']),
  crossfadeSeconds: z.number().min(0).max(10),
})

/** Where a part of a clip begins, and what is set for it alone; `sends` by bus. */
export const sliceSchema = z.strictObject({
  id: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/),
  frame: frameSchema,
  values: valuesSchema('slice'),
  sends: z.record(z.string().max(64), z.strictObject({ gainDb: z.number().min(-120).max(60) })).optional(),
})
export type Slice = z.infer<typeof sliceSchema>

/** How a clip's matter is worked, step by step, in the order of the list. `part` is the stretch it is done to; all without. */
export const processSchema = z
  .array(
    z
      .strictObject({
        id: z.string().regex(/^[A-Za-z0-9_-]{1,64}$/),
        kind: z.enum(['time', 'grains', 'resonances', 'ringing', 'noise']),
        part: z.strictObject({ startFrame: frameSchema, endFrame: frameSchema }).optional(),
        values: z.record(z.string().max(60), z.number()),
        curve: z
          .array(z.strictObject({ seconds: z.number().min(0).max(3600), value: z.number() }))
          .max(256)
          .optional(),
        bypass: z.boolean(),
      })
      .superRefine((step, context) => {
        const fault = matterFault(step)
        if (fault) context.addIssue({ code: 'custom', message: fault })
      }),
  )
  .max(32)

/** The fields of a clip. Frames are frames of the file at its own rate. */
export const clipFieldsSchema = z.strictObject({
  audio: audioHashSchema,
  startFrame: frameSchema,
  endFrame: frameSchema,
  fadeInSeconds: z.number().min(0).max(60),
  fadeOutSeconds: z.number().min(0).max(60),
  gainDb: z.number().min(-120).max(60),
  reverse: z.boolean(),
  invert: z.boolean(),
  channel: z.enum(channelChoices),
  repairs: repairsSchema.optional(),
  loop: loopSchema.optional(),
  slices: z.array(sliceSchema).max(512).optional(),
  process: processSchema.optional(),
  /** What computed this clip, where none recorded it. */
  made: z.strictObject({ by: z.enum(['layers', 'casting', 'variation']), from: z.array(audioHashSchema).max(64) }).optional(),
  fromHit: z.strictObject({ sourceId: z.string().max(64), markerId: z.string().max(64) }).optional(),
})

/** A region of an audio file with its small edits. */
export const clipSchema = clipFieldsSchema.refine((clip) => clip.endFrame > clip.startFrame, { message: 'a clip ends after it starts' })
export type Clip = z.infer<typeof clipSchema>

export const audioInfoSchema = z.strictObject({
  name: z.string().max(255),
  sampleRateHz: z.number().positive().max(768000),
  frames: frameSchema,
  channels: z.number().int().min(1).max(64),
  derivedFrom: audioHashSchema.optional(),
  /** Who made the recording, under which licence it may be used, and where it comes from. */
  author: z.string().max(255).optional(),
  licence: z.string().max(255).optional(),
  origin: z.string().max(1000).optional(),
})
export type AudioInfo = z.infer<typeof audioInfoSchema>

const LOSSY_ENDING = /\.(mp3|ogg|oga|opus|m4a|mp4|mov|webm|mka)$/i

/** Whether a file went through a lossy codec, as far as its name, or that it was decoded from another, tells. */
export function wasCoded({ name, derivedFrom }: Pick<AudioInfo, 'name' | 'derivedFrom'>): boolean {
  return derivedFrom !== undefined || LOSSY_ENDING.test(name)
}
