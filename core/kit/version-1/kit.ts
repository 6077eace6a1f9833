/** Kits as the first version wrote them. This file stays as it is: old kits and old edits are read with it. */
import { z } from 'zod'

import {
  audioHashSchema,
  bandIdSchema,
  busIdSchema,
  grooveIdSchema,
  kitIdSchema,
  padIdSchema,
  rayIdSchema,
  tieIdSchema,
  turnIdSchema,
} from '../ids'
import { responseSchema, shapeSchema } from './shape'

const nameSchema = z.string().max(120)
const gainDbSchema = z.number().min(-120).max(60)
const panSchema = z.number().min(-1).max(1)
const midiSchema = z.number().int().min(0).max(127)

export const families = [
  'kick', 'snare', 'hat', 'tom', 'cymbal', 'clap', 'shaker', 'bell', 'wood', 'noise', 'other',
] as const // prettier-ignore
export const picks = ['cycle', 'random', 'shuffle'] as const
export const padModes = ['oneShot', 'hold', 'loopUntilLetGo', 'loopUntilStruckAgain', 'silencer'] as const
/** Colours that a pad can be marked with; each theme has its own shade of them. */
export const tints = ['tide', 'mussel', 'rust', 'ochre', 'slate', 'plum'] as const
export type Tint = (typeof tints)[number]
export const channelChoices = ['left', 'right', 'both', 'mid'] as const

/** Repairs of a recording, heard before anything else is done to it: a low cut, a shelf that turns the heights, no DC. */
export const repairsSchema = z.strictObject({
  lowCutHz: z.number().min(10).max(2000).optional(),
  shelfDb: z.number().min(-24).max(24).optional(),
  shelfHz: z.number().min(500).max(20000).optional(),
  removeDc: z.boolean().optional(),
})
export type Repairs = z.infer<typeof repairsSchema>

/** The fields of a clip. Frames are frames of the file at its own rate. */
export const clipFieldsSchema = z.strictObject({
  audio: audioHashSchema,
  startFrame: z.number().int().min(0),
  endFrame: z.number().int().min(0),
  fadeInSeconds: z.number().min(0).max(60),
  fadeOutSeconds: z.number().min(0).max(60),
  gainDb: gainDbSchema,
  reverse: z.boolean(),
  invert: z.boolean(),
  channel: z.enum(channelChoices),
  repairs: repairsSchema.optional(),
  loop: z.strictObject({ startFrame: z.number().int().min(0), endFrame: z.number().int().min(0) }).optional(),
  slices: z.array(z.number().int().min(0)).max(512).optional(),
  process: z.record(z.string(), z.unknown()).optional(),
  fromHit: z.strictObject({ sourceId: z.string().max(64), markerId: z.string().max(64) }).optional(),
})

/** A region of an audio file with its small edits. */
export const clipSchema = clipFieldsSchema.refine((clip) => clip.endFrame > clip.startFrame, { message: 'a clip ends after it starts' })
export type Clip = z.infer<typeof clipSchema>

/** One strike, seen by every ray. A ray without an entry has no clip here. */
export const turnSchema = z.strictObject({
  id: turnIdSchema,
  weight: z.number().min(0).max(100),
  clips: z.record(z.string(), z.union([clipSchema, z.literal('intendedSilence')])),
  shape: shapeSchema.partial().optional(),
})
export type Turn = z.infer<typeof turnSchema>

/** One velocity layer; it reaches up to the next band, so gaps and overlaps cannot be written down. */
export const bandSchema = z.strictObject({
  id: bandIdSchema,
  fromVelocity: z.number().int().min(1).max(127),
  blendVelocities: z.number().int().min(0).max(126),
  blendLaw: z.enum(['power', 'linear']),
  gainDb: gainDbSchema,
  turns: z.array(turnSchema).max(128),
})
export type Band = z.infer<typeof bandSchema>

const bandsSchema = z
  .array(bandSchema)
  .max(127)
  .refine((bands) => bands.every((b, i) => (i === 0 ? b.fromVelocity === 1 : b.fromVelocity > bands[i - 1]!.fromVelocity)), {
    message: 'bands run from soft to loud and the first begins at velocity 1',
  })

export const raySchema = z.strictObject({
  id: rayIdSchema,
  name: nameSchema,
  source: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('clips'), bands: bandsSchema.optional(), pick: z.enum(picks).optional() }),
    z.strictObject({
      kind: z.literal('body'),
      partials: z.array(z.strictObject({ hz: z.number().positive(), gainDb: gainDbSchema })).max(32),
      noise: z.number().min(0).max(1),
      phase: z.number().min(0).max(1),
    }),
  ]),
  microphone: z.boolean(),
  onMissing: z.enum(['silent', 'nearest']),
  bus: busIdSchema.optional(),
  sends: z.array(z.strictObject({ busId: busIdSchema, gainDb: gainDbSchema })).max(16),
  gainDb: gainDbSchema,
  pan: panSchema,
  tuneCents: z.number().min(-12000).max(12000),
  keyTrack: z.number().min(0).max(1),
  bendTrack: z.number().min(0).max(1),
  invert: z.boolean(),
  delaySeconds: z.number().min(0).max(10),
  mute: z.boolean(),
  shape: shapeSchema.partial().optional(),
})
export type Ray = z.infer<typeof raySchema>

export const padSettingsSchema = z.strictObject({
  name: nameSchema,
  family: z.enum(families),
  tint: z.enum(tints).optional(),
  /** The name under which pads are gathered to be edited as one; it changes nothing that sounds. */
  group: nameSchema.optional(),
  gainDb: gainDbSchema,
  pan: panSchema,
  mode: z.enum(padModes),
  maxStrikes: z.number().int().min(1).max(128),
  pick: z.enum(picks),
  counter: z.enum(['pad', 'band']),
  /** When turns begin anew: after a silence, when the groove begins, or never. */
  startAgain: z.union([z.literal('never'), z.literal('groove'), z.number().min(0.05).max(600)]),
  mute: z.boolean(),
  /** Where rays without a bus of their own go. */
  bus: busIdSchema.optional(),
  rootNote: midiSchema.optional(),
  tuneCents: z.number().min(-12000).max(12000),
  shape: shapeSchema,
  responses: z.array(responseSchema).max(64),
})
export type PadSettings = z.infer<typeof padSettingsSchema>

export const padSchema = z.strictObject({
  id: padIdSchema,
  notes: z.array(midiSchema).max(128),
  leansOn: padIdSchema.optional(),
  own: padSettingsSchema.partial(),
  rays: z.array(raySchema).max(32),
  bands: bandsSchema,
  spread: z.enum(['even', 'loudness', 'own']),
})
export type Pad = z.infer<typeof padSchema>

const tieBase = { id: tieIdSchema }
export const tieSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...tieBase,
    kind: z.literal('choke'),
    from: padIdSchema,
    to: z.array(padIdSchema),
    fadeSeconds: z.number().min(0).max(10),
  }),
  z.strictObject({
    ...tieBase,
    kind: z.literal('chokeGroup'),
    name: nameSchema,
    pads: z.array(padIdSchema),
    fadeSeconds: z.number().min(0).max(10),
    maxStrikes: z.number().int().min(1).max(128).optional(),
  }),
  z.strictObject({
    ...tieBase,
    kind: z.literal('alsoStrike'),
    from: padIdSchema,
    to: z.array(
      z.strictObject({ pad: padIdSchema, chance: z.number().min(0).max(1), gainDb: gainDbSchema, delaySeconds: z.number().min(0).max(10) }),
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
  z.strictObject({ ...tieBase, kind: z.literal('loopParts'), clip: clipSchema, pads: z.array(padIdSchema) }),
])
export type Tie = z.infer<typeof tieSchema>

export const busSchema = z.strictObject({ id: busIdSchema, name: nameSchema, gainDb: gainDbSchema, pan: panSchema, mute: z.boolean() })
export type Bus = z.infer<typeof busSchema>

export const beadSchema = z.strictObject({
  step: z.number().int().min(0).max(1023),
  velocity: z.number().int().min(1).max(127),
  chance: z.number().min(0).max(1).optional(),
  repeats: z.number().int().min(1).max(16).optional(),
})
export type Bead = z.infer<typeof beadSchema>

export const grooveSchema = z.strictObject({
  id: grooveIdSchema,
  name: nameSchema,
  lengthSteps: z.number().int().min(1).max(1024),
  stepsPerBeat: z.number().int().min(1).max(48),
  swing: z.number().min(0).max(1), // 0: even, 1: every second step two thirds of the way
  strings: z.array(z.strictObject({ padId: padIdSchema, beads: z.array(beadSchema).max(1024) })).max(128),
})
export type Groove = z.infer<typeof grooveSchema>

export const audioInfoSchema = z.strictObject({
  name: z.string().max(255),
  sampleRateHz: z.number().positive().max(768000),
  frames: z.number().int().min(0),
  channels: z.number().int().min(1).max(64),
  derivedFrom: audioHashSchema.optional(),
})
export type AudioInfo = z.infer<typeof audioInfoSchema>

const MOST = { pads: 128, buses: 16, ties: 256, grooves: 64 }

/** The form of a kit's parts. What a kit is read with also holds the rules between them. */
export const kitSchema = z.strictObject({
  format: z.literal('heliaster-kit'),
  version: z.literal(1),
  id: kitIdSchema,
  name: nameSchema,
  tempoBpm: z.number().min(20).max(400),
  gainDb: gainDbSchema,
  seed: z.number().int().min(0).max(0xffffffff),
  tuningA4Hz: z.number().min(380).max(500),
  maxStrikes: z.number().int().min(1).max(128).optional(),
  /** How many pads stand side by side, and how large they are against what is usual for so many; 1 where it is not said. */
  arrangement: z.strictObject({ columns: z.number().int().min(1).max(16), size: z.number().min(0.4).max(2.5).optional() }),
  pads: z.array(padSchema).max(MOST.pads),
  buses: z.array(busSchema).max(MOST.buses),
  ties: z.array(tieSchema).max(MOST.ties),
  quickControls: z.array(z.strictObject({ id: z.string().max(64), name: nameSchema, value: z.number().min(0).max(1) })).max(16),
  grooves: z.array(grooveSchema).max(MOST.grooves),
  audio: z.record(audioHashSchema as unknown as z.ZodString, audioInfoSchema),
})
export type Kit = z.infer<typeof kitSchema>
