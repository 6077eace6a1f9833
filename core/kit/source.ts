import { z } from 'zod'

import { audioHashSchema, markerIdSchema, padIdSchema, sourceIdSchema } from './ids'
import type { AudioHash, MakeId } from './ids'
import { families } from './families'
import { audioInfoSchema, channelChoices, clipFieldsSchema, MOST } from './kit'
import type { AudioInfo, Clip } from './kit'
import { Draft, elementEditSchemas, isElementEdit } from './elements'
import { merge, sameData } from './list'
import { wholeClip } from './make'

/** Repairs of a hit: settings of its clip, never of the file. */
export const hitSettingsSchema = clipFieldsSchema
  .pick({ fadeInSeconds: true, fadeOutSeconds: true, gainDb: true, reverse: true, invert: true, channel: true, repairs: true })
  .partial()
export type HitSettings = z.infer<typeof hitSettingsSchema>

/**
 * A marker someone has touched. Markers that were only found are computed anew from the recording and the water line;
 * once pinned, moved, named or judged, a marker is written here and stays whatever the water does. A removed one
 * stays removed.
 */
export const markerSchema = z.strictObject({
  id: markerIdSchema,
  frame: z.number().int().min(0),
  origin: z.enum(['found', 'hand', 'file']),
  pinned: z.boolean(),
  removed: z.boolean(),
  name: z.string().max(120).optional(),
  verdict: z.enum(['keep', 'pass']).optional(),
  endFrame: z.number().int().min(0).optional(),
  /** What is set on the clip of this hit; all else is as every cut has it. */
  clip: hitSettingsSchema.optional(),
})
export type Marker = z.infer<typeof markerSchema>

export const verdicts = ['open', 'keep', 'pass'] as const
export const origins = ['recorded', 'imported', 'takenBack'] as const
export const SOURCE_VERSION = 3

/** What was measured of a file when it came in. Silence is -200 dB. */
export const measuredSchema = z.strictObject({
  peakDb: z.number(),
  /** The loudest stretch of `windowSeconds`, K-weighted; 0.4 s where that is not said. */
  loudnessDb: z.number(),
  windowSeconds: z.number().positive().optional(),
  /** Where the energy of its first strike balances, Hz. */
  centreHz: z.number().min(0).optional(),
  /** Where its pitch settles, Hz; only where that is sure. */
  pitchHz: z.number().positive().optional(),
  /** What it is found by among others: see `core/alike/portrait`; and the time until it stays 30 dB under its peak. */
  portrait: z.string().max(240).optional(),
  decaySeconds: z.number().min(0).optional(),
  /** How alike left and right are, -1..1, and what the mean of both loses in dB; only of files with two channels or more. */
  correlation: z.number().min(-1).max(1).optional(),
  midLossDb: z.number().optional(),
})
export type Measured = z.infer<typeof measuredSchema>

/** Tempo, length in beats and root note, as they were written in the file. */
export const toldSchema = z.strictObject({
  tempoBpm: z.number().min(20).max(400).optional(),
  beats: z.number().int().min(1).max(4096).optional(),
  rootNote: z.number().int().min(0).max(127).optional(),
})

/** A strike that sounded while the pads were taken back in. `frame` is a frame of the recording. */
export const soundedStrikeSchema = z.strictObject({
  frame: z.number().int().min(0),
  padId: padIdSchema,
  padName: z.string().max(120),
  velocity: z.number().int().min(1).max(127),
  band: z.number().int().min(-1),
  turn: z.number().int().min(-1),
})
export type SoundedStrike = z.infer<typeof soundedStrikeSchema>

/** A grid that cuts instead of the strikes: equal parts of the whole, a number of beats at a tempo, or markers alone. */
export const gridSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('parts'), count: z.number().int().min(1).max(512) }),
  z.strictObject({
    kind: z.literal('beats'),
    tempoBpm: z.number().min(20).max(400),
    firstSeconds: z.number().min(0).max(36000),
    beats: z
      .number()
      .min(1 / 16)
      .max(64),
  }),
  /** Nothing cuts but markers: those that came with the file and those that were set by hand. */
  z.strictObject({ kind: z.literal('marks') }),
])

export const cutSchema = z.strictObject({
  waterLine: z.number().min(0).max(1),
  /** The line stands where this recording divides, whatever `waterLine` says; until someone draws it. */
  findsLevel: z.boolean().optional(),
  minGapSeconds: z.number().min(0.005).max(5),
  /** Slow also sees what swells rather than strikes. Fast where it is not said. */
  attack: z.enum(['fast', 'slow']).optional(),
  /** Someone plays in time here: what falls on the pulse is likelier a strike. */
  inTime: z.boolean().optional(),
  /** Where the start of a clip snaps to; the begin of the attack where it is not said. */
  snap: z.enum(['attack', 'up', 'down', 'none']).optional(),
  grid: gridSchema.optional(),
  /** The marks of a grid stay on it, instead of moving to the attacks near them. */
  marksStay: z.boolean().optional(),
  /** Hits that were passed end what rings before them. */
  passedEnd: z.boolean().optional(),
})
export type CutSettings = z.infer<typeof cutSchema>

/** A recording or imported file with its cuts: edited, undone and saved like a kit. */
export const sourceSchema = z.strictObject({
  format: z.literal('heliaster-source'),
  version: z.literal(SOURCE_VERSION),
  id: sourceIdSchema,
  audio: audioHashSchema,
  info: audioInfoSchema,
  name: z.string().max(255),
  tags: z.array(z.string().max(60)).max(64),
  verdict: z.enum(verdicts),
  cut: cutSchema,
  markers: z.array(markerSchema).max(MOST.markers),
  /** Milliseconds since 1970; 0 where it is not known. */
  addedAt: z.number().int().min(0),
  origin: z.enum(origins),
  favourite: z.boolean(),
  family: z.enum(families),
  /** What new clips of this file take from it. */
  channel: z.enum(channelChoices),
  measured: measuredSchema.optional(),
  told: toldSchema.optional(),
  /** What the pads were struck with, for a recording taken back from them. */
  strikes: z.array(soundedStrikeSchema).max(20000).optional(),
})
export type Source = z.infer<typeof sourceSchema>

export const sourceEditSchema = z.discriminatedUnion('type', [
  ...elementEditSchemas,
  z.strictObject({
    type: z.literal('setSource'),
    fields: sourceSchema.pick({ name: true, tags: true, verdict: true, cut: true, favourite: true, family: true, channel: true }).partial(),
  }),
  /** Another version of the same sound takes the place of the audio. Markers stay; they are put anew where rates differ. */
  z.strictObject({
    type: z.literal('setAudio'),
    audio: audioHashSchema,
    info: audioInfoSchema,
    measured: measuredSchema.optional(),
  }),
  /** Puts or replaces markers, by id. */
  z.strictObject({ type: z.literal('putMarkers'), markers: z.array(markerSchema).max(20000) }),
  /** Forgets markers altogether; a found one may then be found again. */
  z.strictObject({ type: z.literal('forgetMarkers'), markerIds: z.array(markerIdSchema).max(20000) }),
])
export type SourceEdit = z.infer<typeof sourceEditSchema>

/** A new recording or file, not cut yet. `given` sets what is known of it. */
/** Two strikes are apart by at least so much where nothing is said; and where someone plays in time, whose quick ones come closer, s. */
export const USUAL_GAP_SECONDS = 0.06
export const IN_TIME_GAP_SECONDS = 0.045

/** A way to cut for someone who plays in time, or who does not. The least gap goes with it, unless another was chosen. */
export function playedInTime(cut: CutSettings, inTime: boolean): CutSettings {
  const [usual, other] = inTime ? [USUAL_GAP_SECONDS, IN_TIME_GAP_SECONDS] : [IN_TIME_GAP_SECONDS, USUAL_GAP_SECONDS]
  return { ...cut, inTime: inTime || undefined, minGapSeconds: cut.minGapSeconds === usual ? other : cut.minGapSeconds }
}

export function createSource(makeId: MakeId, audio: AudioHash, info: AudioInfo, name: string, given: Partial<Source> = {}): Source {
  return {
    format: 'heliaster-source',
    version: SOURCE_VERSION,
    id: makeId('rec'),
    audio,
    info,
    name,
    tags: [],
    verdict: 'open',
    cut: { waterLine: 0.3, findsLevel: true, minGapSeconds: USUAL_GAP_SECONDS },
    markers: [],
    addedAt: 0,
    origin: 'imported',
    favourite: false,
    family: 'other',
    channel: info.channels > 1 ? 'both' : 'left',
    ...given,
  }
}

/** All of a sound as a clip, through the channels that its clips take. */
export function clipOfSource(source: Source): Clip {
  return { ...wholeClip(source.audio, source.info), channel: source.channel }
}

/** Returns the same source when the edit changes nothing. */
export function applySourceEdit(source: Source, edit: SourceEdit): Source {
  if (isElementEdit(edit)) {
    const draft = new Draft(source, sourceGround)
    draft.apply(edit)
    return draft.doc
  }
  switch (edit.type) {
    case 'setSource':
      return merge(source, edit.fields)
    case 'setAudio': {
      const { measured: _before, ...rest } = source
      const next = { ...rest, audio: edit.audio, info: edit.info, ...(edit.measured ? { measured: edit.measured } : {}) }
      return sameData(source, next) ? source : next
    }
    case 'putMarkers': {
      return merge(source, { markers: withMarkers(source.markers, edit.markers) })
    }
    case 'forgetMarkers':
      return merge(source, { markers: without(source.markers, new Set(edit.markerIds)) })
  }
}

function without(markers: Marker[], ids: ReadonlySet<string>): Marker[] {
  return markers.filter((marker) => !ids.has(marker.id))
}

/** The list with these markers in the places of those of the same ids, and new ones at its end. */
function withMarkers(list: Marker[], put: readonly Marker[]): Marker[] {
  const byId = new Map(list.map((marker) => [marker.id, marker]))
  for (const marker of put) if (!sameData(byId.get(marker.id), marker)) byId.set(marker.id, marker)
  return [...byId.values()]
}

const FOUND = /^(?:found|grid)-(\d+)$/

/**
 * A marker that was found, or that a grid set, has its name from its place, so two devices that touch it make the same one: it is written as it
 * was found, and what each set on it beside that.
 */
export function bareMarker(at: readonly string[], item: unknown): unknown {
  const marker = item as Marker
  const found = at[0] === 'markers' ? FOUND.exec(marker.id) : null
  if (!found) return item
  return { id: marker.id, frame: Number(found[1]), origin: 'found', pinned: false, removed: false } satisfies Marker
}

/** No repairs stand for repairs that are absent, and no settings for a hit that has none. */
export function sourceGround(_source: Source, at: readonly string[]): unknown {
  const last = at[at.length - 1]
  return last === 'repairs' || (last === 'clip' && at[0] === 'markers') ? {} : undefined
}
