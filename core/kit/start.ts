import { z } from 'zod'

import { Draft, elementEditSchemas, isElementEdit } from './elements'
import { startIdSchema } from './ids'
import type { MakeId } from './ids'
import { padSettingsSchema } from './kit'
import type { OwnSettings } from './kit'
import { merge } from './list'
import { parametersOf } from './parameters'
import { curveSchema, tillerSchema } from './shape'
import { cutSchema } from './source'
import type { CutSettings } from './source'

export const START_VERSION = 2

/** What a pad brings to a start: all its settings but those that are its own: name, family, group, root note, bus and mute. */
export const padStartSchema = padSettingsSchema
  .omit({ name: true, family: true, group: true, rootNote: true, bus: true, mute: true })
  .partial()
export type PadStart = z.infer<typeof padStartSchema>

/** A tiller of the kit that a start came from, with what it moved of that pad. */
export const startTillerSchema = z.strictObject({
  name: tillerSchema.shape.name,
  to: z
    .array(z.strictObject({ param: z.string().min(1).max(60), from: z.number(), to: z.number(), curve: curveSchema.optional() }))
    .max(64),
})
export type StartTiller = z.infer<typeof startTillerSchema>

/** Named settings to begin a pad or a cut with. */
export const startSchema = z.strictObject({
  format: z.literal('heliaster-start'),
  version: z.literal(START_VERSION),
  id: startIdSchema,
  name: z.string().max(120),
  pad: padStartSchema.optional(),
  /** What moves a pad that is begun with it; only beside `pad`. */
  tillers: z.array(startTillerSchema).max(16).optional(),
  cut: cutSchema.optional(),
})
export type Start = z.infer<typeof startSchema>

export const startEditSchema = z.discriminatedUnion('type', [
  ...elementEditSchemas,
  z.strictObject({ type: z.literal('setStart'), fields: startSchema.pick({ name: true, pad: true, tillers: true, cut: true }).partial() }),
])
export type StartEdit = z.infer<typeof startEditSchema>

export function createStart(makeId: MakeId, name: string, given: Pick<Start, 'pad' | 'tillers' | 'cut'>): Start {
  return { format: 'heliaster-start', version: START_VERSION, id: makeId('start'), name, ...given }
}

/** The settings of a pad that a start keeps. */
export function padStartOf(own: OwnSettings): PadStart {
  const { name: _name, family: _family, group: _group, rootNote: _root, bus: _bus, mute: _mute, values, ...kept } = own
  if (!values) return kept
  const onPads = parametersOf('pad').flatMap((name) => (values[name] === undefined ? [] : [[name, values[name]] as const]))
  return { ...kept, values: Object.fromEntries(onPads) }
}

/** The way of cutting that fits other recordings too: where the first beat falls belongs to one alone. */
export function cutStartOf({ grid, ...cut }: CutSettings): CutSettings {
  if (!grid) return cut
  return { ...cut, grid: grid.kind === 'beats' ? { ...grid, firstSeconds: 0 } : grid }
}

/** Returns the same start when the edit changes nothing. */
export function applyStartEdit(start: Start, edit: StartEdit): Start {
  if (!isElementEdit(edit)) return merge(start, edit.fields)
  const draft = new Draft<Start>(start, () => undefined)
  draft.apply(edit)
  return draft.doc
}
