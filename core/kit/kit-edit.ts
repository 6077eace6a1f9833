import { z } from 'zod'

import { audioHashSchema, bandIdSchema, busIdSchema, grooveIdSchema, padIdSchema, rayIdSchema, tieIdSchema, turnIdSchema } from './ids'
import type { PadId } from './ids'
import {
  audioInfoSchema,
  bandSchema,
  busSchema,
  clipSchema,
  grooveSchema,
  kitSchema,
  MOST,
  padSchema,
  padSettingsSchema,
  raySchema,
  tieSchema,
} from './kit'
import type { Band, Kit, OwnSettings, Pad, Turn } from './kit'
import { Draft, EditDoesNotApply, elementEditSchemas, isElementEdit } from './elements'
import type { ElementEdit } from './elements'
import { kitGround } from './ground'
import { merge, movedTo, putById, replaceById, withoutId } from './list'
import { choices, parameterNames } from './parameters'
import type { Choice } from './parameters'
import { replaceAudio, usesAudio } from './replace-audio'
import { envelopeNames } from './shape'
import { tidied } from './tidy'

const index = z.number().int().min(0)
const kitFields = kitSchema
  .pick({
    name: true,
    tempoBpm: true,
    values: true,
    inserts: true,
    seed: true,
    tuningA4Hz: true,
    maxStrikes: true,
    arrangement: true,
    responses: true,
    oscillators: true,
    tillers: true,
    song: true,
  })
  .partial()
const padOwn = padSettingsSchema.partial()
const sparse = { values: parameterNames, choices: Object.keys(choices) as Choice[], envelopes: envelopeNames } as const
const clearable = [
  ...(Object.keys(padSettingsSchema.shape) as (keyof OwnSettings)[]),
  ...sparse.values,
  ...sparse.choices,
  ...sparse.envelopes,
] as const
/** What can fall back to what is inherited: a setting, or one value, choice or envelope by its name. */
export type Clearable = (typeof clearable)[number]

/**
 * Every way a kit can change. An edit is data: it is logged, sent, replayed, inverted and tested. What screens make of
 * gestures are mostly edits of one thing as a whole; what travels and what undoes them are edits of single elements.
 */
export const kitEditSchema = z.discriminatedUnion('type', [
  ...elementEditSchemas,
  z.strictObject({ type: z.literal('setKit'), fields: kitFields, clear: z.array(z.enum(['maxStrikes'])).optional() }),
  z.strictObject({ type: z.literal('addPad'), pad: padSchema, index }),
  z.strictObject({ type: z.literal('removePad'), padId: padIdSchema }),
  z.strictObject({ type: z.literal('movePad'), padId: padIdSchema, index }),
  /**
   * Changes single settings, and values, choices and envelopes each by itself; `clear` names those that fall back to the
   * leader's or the usual ones, as `pan` or `responses`.
   */
  z.strictObject({ type: z.literal('setPad'), padId: padIdSchema, own: padOwn, clear: z.array(z.enum(clearable)).optional() }),
  z.strictObject({ type: z.literal('setPadNotes'), padId: padIdSchema, notes: padSchema.shape.notes }),
  z.strictObject({ type: z.literal('setPadLeader'), padId: padIdSchema, leansOn: padIdSchema.nullable() }),
  /** Replaces what fills a pad and leaves every setting as it is. */
  z.strictObject({
    type: z.literal('setPadFilling'),
    padId: padIdSchema,
    rays: padSchema.shape.rays.optional(),
    bands: padSchema.shape.bands.optional(),
    spread: padSchema.shape.spread.optional(),
  }),
  z.strictObject({
    type: z.literal('setRay'),
    padId: padIdSchema,
    rayId: rayIdSchema,
    fields: raySchema.omit({ id: true }).partial(),
    clear: z.array(z.enum(clearable)).optional(),
  }),
  z.strictObject({
    type: z.literal('setBand'),
    padId: padIdSchema,
    bandId: bandIdSchema,
    fields: bandSchema.omit({ id: true, turns: true }).partial(),
  }),
  z.strictObject({
    type: z.literal('setClip'),
    padId: padIdSchema,
    turnId: turnIdSchema,
    rayId: rayIdSchema,
    clip: z.union([clipSchema, z.literal('intendedSilence')]).nullable(),
  }),
  z.strictObject({ type: z.literal('putTie'), tie: tieSchema, index: index.optional() }),
  z.strictObject({ type: z.literal('removeTie'), tieId: tieIdSchema }),
  z.strictObject({ type: z.literal('putGroove'), groove: grooveSchema, index: index.optional() }),
  z.strictObject({ type: z.literal('removeGroove'), grooveId: grooveIdSchema }),
  z.strictObject({ type: z.literal('putBus'), bus: busSchema, index: index.optional() }),
  z.strictObject({ type: z.literal('removeBus'), busId: busIdSchema }),
  z.strictObject({ type: z.literal('putAudio'), audio: audioHashSchema, info: audioInfoSchema }),
  z.strictObject({ type: z.literal('removeAudio'), audio: audioHashSchema }),
  /** Every clip of one file reads another one from now on, at the same places in seconds. */
  z.strictObject({ type: z.literal('replaceAudio'), from: audioHashSchema, to: audioHashSchema, info: audioInfoSchema }),
])
export type KitEdit = z.infer<typeof kitEditSchema>

/** Returns the same kit when the edit changes nothing, so callers can compare by reference. Nothing names what is gone. */
export function applyEdit(kit: Kit, edit: KitEdit): Kit {
  if (!isElementEdit(edit)) return tidied(applyUntidied(kit, edit), kit)
  const draft = new Draft(kit, kitGround)
  draft.apply(edit)
  return tidied(draft.doc, kit)
}

/** The same without tidying: until the batch is through, a kit may name what is not there. */
export function applyUntidied(kit: Kit, edit: Exclude<KitEdit, ElementEdit>): Kit {
  switch (edit.type) {
    case 'setKit':
      return mergeOptional(cleared(kit, edit.clear), { ...edit.fields, ...overlaid(kit, edit.fields) })
    case 'addPad':
      return addPad(kit, edit.pad, edit.index)
    case 'removePad':
      return withoutPad(kit, findPad(kit, edit.padId))
    case 'movePad':
      return withPads(kit, movedTo(kit.pads, findPad(kit, edit.padId).id, edit.index))
    case 'setPad':
      return changePad(kit, edit.padId, (pad) => {
        const own = withSettings(pad.own, edit.own, edit.clear)
        return own === pad.own ? pad : { ...pad, own }
      })
    case 'setPadNotes':
      return changePad(kit, edit.padId, (pad) => merge(pad, { notes: edit.notes }))
    case 'setPadLeader':
      return setLeader(kit, edit.padId, edit.leansOn)
    case 'setPadFilling':
      return changePad(kit, edit.padId, (pad) => mergeOptional(pad, { rays: edit.rays, bands: edit.bands, spread: edit.spread }))
    case 'setRay':
      return changePad(kit, edit.padId, (pad) => {
        const rays = replaceById(
          pad.rays,
          edit.rayId,
          (ray) => withSettings(ray, edit.fields, edit.clear),
          () => missing('ray'),
        )
        return rays === pad.rays ? pad : { ...pad, rays }
      })
    case 'setBand':
      return changePad(kit, edit.padId, (pad) => {
        const bands = replaceById(
          pad.bands,
          edit.bandId,
          (band) => withSettings(band, edit.fields),
          () => missing('band'),
        )
        if (!bands.every((b, i) => (i === 0 ? b.fromVelocity === 1 : b.fromVelocity > bands[i - 1]!.fromVelocity)))
          throw new EditDoesNotApply('A band cannot begin at or above the next one, and the softest begins at 1.')
        return bands === pad.bands ? pad : { ...pad, bands }
      })
    case 'setClip':
      return changePad(kit, edit.padId, (pad) => changeTurn(pad, edit.turnId, (turn) => setClip(turn, edit.rayId, edit.clip)))
    case 'putTie':
      return merge(kit, { ties: putById(kit.ties, edit.tie, edit.index) })
    case 'removeTie':
      return merge(kit, { ties: withoutId(kit.ties, edit.tieId) })
    case 'putGroove':
      return merge(kit, { grooves: putById(kit.grooves, edit.groove, edit.index) })
    case 'removeGroove':
      return merge(kit, { grooves: withoutId(kit.grooves, edit.grooveId) })
    case 'putBus':
      return merge(kit, { buses: putById(kit.buses, edit.bus, edit.index) })
    case 'removeBus':
      return merge(kit, { buses: withoutId(kit.buses, edit.busId) })
    case 'putAudio':
      return merge(kit, { audio: merge(kit.audio, { [edit.audio]: edit.info }) })
    case 'replaceAudio':
      return replaceAudio(kit, edit.from, edit.to, edit.info)
    case 'removeAudio': {
      if (!(edit.audio in kit.audio) || usesAudio(kit, edit.audio)) return kit
      const { [edit.audio]: _gone, ...audio } = kit.audio
      return { ...kit, audio }
    }
  }
}

function missing(what: string): never {
  throw new EditDoesNotApply(`The ${what} this change was made on is no longer there.`)
}

function findPad(kit: Kit, padId: PadId): Pad {
  return kit.pads.find((pad) => pad.id === padId) ?? missing('pad')
}

function withPads(kit: Kit, pads: Pad[]): Kit {
  return merge(kit, { pads })
}

function changePad(kit: Kit, padId: PadId, change: (pad: Pad) => Pad): Kit {
  return withPads(
    kit,
    replaceById(kit.pads, padId, change, () => missing('pad')),
  )
}

/** Takes a pad away. Those that lean on it keep all they had from it; what else names it goes when the kit is tidied. */
export function withoutPad(kit: Kit, pad: Pad): Kit {
  const left = (follower: Pad): Pad => {
    if (follower.leansOn !== pad.id) return follower
    const { leansOn: _gone, ...rest } = follower
    return { ...rest, own: withSettings(pad.own, follower.own), ...(pad.leansOn ? { leansOn: pad.leansOn } : {}) }
  }
  return { ...kit, pads: withoutId(kit.pads, pad.id).map(left) }
}

function addPad(kit: Kit, pad: Pad, at: number): Kit {
  if (kit.pads.some((other) => other.id === pad.id)) throw new EditDoesNotApply('A pad with this id is already there.')
  if (kit.pads.length >= MOST.pads) throw new EditDoesNotApply(`A kit holds at most ${MOST.pads} pads.`)
  return { ...kit, pads: [...kit.pads.slice(0, at), pad, ...kit.pads.slice(at)] }
}

function setLeader(kit: Kit, padId: PadId, leaderId: PadId | null): Kit {
  const way = new Set([padId])
  for (let at = leaderId; at; at = findPad(kit, at).leansOn ?? null) {
    if (way.has(at)) throw new EditDoesNotApply('Pads cannot lean on each other in a circle.')
    way.add(at)
  }
  return changePad(kit, padId, (pad) => {
    if ((pad.leansOn ?? null) === leaderId) return pad
    const { leansOn: _before, ...rest } = pad
    return leaderId ? { ...rest, leansOn: leaderId } : rest
  })
}

function setClip(turn: Turn, rayId: string, clip: Turn['clips'][string] | null): Turn {
  if (clip !== null) return merge(turn, { clips: merge(turn.clips, { [rayId]: clip }) })
  if (!(rayId in turn.clips)) return turn
  const { [rayId]: _gone, ...clips } = turn.clips
  return { ...turn, clips }
}

/** Changes one turn wherever it is: in the pad's own bands or in those of one of its rays. */
function changeTurn(pad: Pad, turnId: string, change: (turn: Turn) => Turn): Pad {
  let found = false
  const inBands = (bands: Band[]): Band[] =>
    bands.map((band) => {
      if (!band.turns.some((turn) => turn.id === turnId)) return band
      found = true
      return merge(band, { turns: replaceById(band.turns, turnId, change, () => missing('turn')) })
    })
  const bands = inBands(pad.bands)
  const rays = pad.rays.map((ray) =>
    ray.source.kind === 'clips' && ray.source.bands ? { ...ray, source: { ...ray.source, bands: inBands(ray.source.bands) } } : ray,
  )
  return found ? merge(pad, { bands, rays }) : missing('turn')
}

interface Sparse {
  readonly values?: object
  readonly choices?: object
  readonly envelopes?: object
}

/** What is set in each of the sparse parts, over what was set there before. */
function overlaid<T extends Sparse>(of: T, fields: Partial<T>): Partial<T> {
  const parts = (Object.keys(sparse) as (keyof Sparse)[]).filter((part) => fields[part] !== undefined)
  return Object.fromEntries(parts.map((part) => [part, merge<object>(of[part] ?? {}, fields[part]!)])) as Partial<T>
}

/** Fields set over something, and others taken off it, whole or one number by itself. */
function withSettings<T extends Sparse>(of: T, fields: Partial<T>, clear?: readonly string[]): T {
  let kept = cleared(of, clear)
  for (const part of Object.keys(sparse) as (keyof Sparse)[]) {
    const held = kept[part]
    const left = held && cleared<object>(held, clear)
    if (left !== held) kept = { ...kept, [part]: left }
  }
  return merge(kept, { ...fields, ...overlaid(kept, fields) })
}

/** A copy without the named keys, or the same object when it has none of them. */
function cleared<T extends object>(of: T, keys: readonly string[] | undefined): T {
  if (!keys?.some((key) => key in of)) return of
  return Object.fromEntries(Object.entries(of).filter(([key]) => !keys.includes(key))) as T
}

/** Merges only the fields that are given; `undefined` leaves a field as it is. */
function mergeOptional<T extends object>(of: T, fields: Partial<T>): T {
  return merge(of, Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) as Partial<T>)
}
