import { z } from 'zod'

import { audioInfoSchema, clipSchema } from './clip'
import { families } from './families'
import { grooveSchema, songSchema } from './grooves'
import { audioHashSchema, bandIdSchema, busIdSchema, kitIdSchema, padIdSchema, rayIdSchema, turnIdSchema } from './ids'
import { busSchema, insertsSchema, sendSchema } from './mix'
import { brokenRule } from './rules'
import { envelopesSchema, kitResponseSchema, oscillatorSchema, responseSchema, tillerSchema } from './shape'
import { picks, tieSchema } from './ties'
import { choicesSchema, orderSchema, valuesSchema } from './values-schema'
import { KIT_VERSION } from './version'

const nameSchema = z.string().max(120)
const midiSchema = z.number().int().min(0).max(127)

export const padModes = ['oneShot', 'hold', 'loopUntilLetGo', 'loopUntilStruckAgain', 'silencer'] as const
/** Colours that a pad can be marked with; each theme has its own shade of them. */
export const tints = ['tide', 'mussel', 'rust', 'ochre', 'slate', 'plum'] as const
export type Tint = (typeof tints)[number]

/** What pads and rays can have of their own in shape beside values; what they have not is inherited, each by itself. */
const shapingFields = { choices: choicesSchema, envelopes: envelopesSchema, order: orderSchema.optional() }

/** One strike, seen by every ray. A ray without an entry has no clip here. */
export const turnSchema = z.strictObject({
  id: turnIdSchema,
  weight: z.number().min(0).max(100),
  clips: z.record(z.string(), z.union([clipSchema, z.literal('intendedSilence')])),
  values: valuesSchema('turn').optional(),
  choices: choicesSchema.optional(),
  envelopes: envelopesSchema.optional(),
})
export type Turn = z.infer<typeof turnSchema>

/** One velocity layer; it reaches up to the next band, so gaps and overlaps cannot be written down. */
export const bandSchema = z.strictObject({
  id: bandIdSchema,
  fromVelocity: z.number().int().min(1).max(127),
  blendVelocities: z.number().int().min(0).max(126),
  blendLaw: z.enum(['power', 'linear']),
  values: valuesSchema('band'),
  turns: z.array(turnSchema).max(128),
})
export type Band = z.infer<typeof bandSchema>

/** The rule between the bands of one list. */
export const bandsRule = {
  holds: (bands: readonly Pick<Band, 'fromVelocity'>[]) =>
    bands.every((b, i) => (i === 0 ? b.fromVelocity === 1 : b.fromVelocity > bands[i - 1]!.fromVelocity)),
  message: 'bands run from soft to loud and the first begins at velocity 1',
}
const MOST_BANDS = 127
const bandsSchema = z.array(bandSchema).max(MOST_BANDS).refine(bandsRule.holds, { message: bandsRule.message })

export const raySchema = z.strictObject({
  id: rayIdSchema,
  name: nameSchema,
  source: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('clips'), bands: bandsSchema.optional(), pick: z.enum(picks).optional() }),
    z.strictObject({
      kind: z.literal('body'),
      partials: z.array(z.strictObject({ hz: z.number().positive(), gainDb: z.number().min(-120).max(60) })).max(32),
      noise: z.number().min(0).max(1),
      phase: z.number().min(0).max(1),
    }),
  ]),
  microphone: z.boolean(),
  onMissing: z.enum(['silent', 'nearest']),
  bus: busIdSchema.optional(),
  sends: z.array(sendSchema).max(16),
  invert: z.boolean(),
  mute: z.boolean(),
  values: valuesSchema('ray'),
  ...shapingFields,
})
export type Ray = z.infer<typeof raySchema>

export const padSettingsSchema = z.strictObject({
  name: nameSchema,
  family: z.enum(families),
  tint: z.enum(tints).optional(),
  /** The name under which pads are gathered to be edited as one; it changes nothing that sounds. */
  group: nameSchema.optional(),
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
  values: valuesSchema('pad'),
  ...shapingFields,
  responses: z.array(responseSchema).max(64),
})
export type OwnSettings = Partial<z.infer<typeof padSettingsSchema>>

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

/** How many there may be of what a document keeps in lists. */
export const MOST = { pads: 128, bands: MOST_BANDS, buses: 32, ties: 256, grooves: 64, markers: 20000 }

/** The form of a kit's parts. What a kit is read with also holds the rules between them. */
export const kitSchema = z.strictObject({
  format: z.literal('heliaster-kit'),
  version: z.literal(KIT_VERSION),
  id: kitIdSchema,
  name: nameSchema,
  tempoBpm: z.number().min(20).max(400),
  /** Those of the master, through which all buses go. */
  values: valuesSchema('kit'),
  inserts: insertsSchema,
  seed: z.number().int().min(0).max(0xffffffff),
  tuningA4Hz: z.number().min(380).max(500),
  maxStrikes: z.number().int().min(1).max(128).optional(),
  /** How many pads stand side by side, and how large they are against what is usual for so many; 1 where it is not said. */
  arrangement: z.strictObject({ columns: z.number().int().min(1).max(16), size: z.number().min(0.4).max(2.5).optional() }),
  pads: z.array(padSchema).max(MOST.pads),
  buses: z.array(busSchema).max(MOST.buses),
  ties: z.array(tieSchema).max(MOST.ties),
  /** Of buses, inserts and the master; those of a pad stand on it. */
  responses: z.array(kitResponseSchema).max(256),
  oscillators: z.array(oscillatorSchema).max(64),
  tillers: z.array(tillerSchema).max(16),
  grooves: z.array(grooveSchema).max(MOST.grooves),
  /** Which grooves play one after the other; the first one goes round where none is said. */
  song: songSchema,
  audio: z.record(audioHashSchema as unknown as z.ZodString, audioInfoSchema),
})
export type Kit = z.infer<typeof kitSchema>

export const wholeKitSchema = kitSchema.superRefine((kit, context) => {
  const broken = brokenRule(kit)
  if (broken) context.addIssue({ code: 'custom', message: broken.replace(/[.]$/, '') })
})

export * from './clip'
export * from './matter-values'
export * from './grooves'
export * from './mix'
export { picks, tieSchema } from './ties'
export type { Tie } from './ties'
