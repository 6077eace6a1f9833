import { clipsOfPad, createPad, freeNote, sameData, STRAIGHT, velocityToLevel, withStartTillers } from '@heliaster/core/kit'
import type { BeadId, Clip, GrooveId, Kit, KitEdit, Pad, PadId, PadStart, Source, Start } from '@heliaster/core/kit'
import { asLoud, asTurns, byLoudness, keepSettings, suggestBands } from '@heliaster/core/place'
import type { BandLevels } from '@heliaster/core/place'

import { makeId } from '../../../documents/make-id'
import { nameEdits } from '../../place'
import { clipOfHit, hitTitle } from '../hits/hit-clip'
import type { CutHit } from '../bench/use-source-cut'

/** How hits reach the pads. */
export type SendWay = 'pads' | 'turns' | 'bands' | 'loop' | 'things' | 'rhythm'
export type SendOrder = 'time' | 'loudness' | 'pitch'

export interface SendPlan {
  readonly way: SendWay
  readonly order: SendOrder
  readonly bandCount?: number
  readonly levels?: BandLevels
  /** Of ways `things` and `rhythm`: which hits are one thing, by their places among those that are sent. */
  readonly groups?: readonly (readonly number[])[]
  /** The pad whose clips are replaced, the first of several when each hit is its own; new pads where there is none. */
  readonly onto?: PadId
  /** What each new pad begins with. */
  readonly start?: PadStart
}

type Described = CutHit & { readonly hit: NonNullable<CutHit['hit']> }

/** The pads as sending would leave them, new ones and filled ones; nothing has changed yet. */
export function padsToSend(kit: Kit, source: Source, hits: readonly CutHit[], plan: SendPlan): Pad[] {
  const described = inOrder(hits.filter((item): item is Described => item.hit !== undefined), plan.order) // prettier-ignore
  if (described.length === 0) return []
  if (plan.way === 'pads' || plan.way === 'loop') return eachItsOwn(kit, source, described, plan)
  if (plan.way === 'things' || plan.way === 'rhythm') return thingsOnPads(kit, source, hits, plan)
  const takes = described.map(({ marker, hit }) => {
    const clip = clipOfHit(source, marker, hit)
    return { clip, loudnessDb: hit.loudnessDb + clip.gainDb }
  })
  const [first] = described
  const pad =
    kit.pads.find((one) => one.id === plan.onto) ??
    createPad(
      makeId,
      { pick: 'shuffle', ...plan.start, name: first.marker.name ?? source.name.slice(0, 60), family: first.hit.family },
      freeNote(kit),
    )
  const rayId = pad.rays[0].id
  if (plan.way === 'turns') {
    const turns = asTurns(makeId, rayId, takes.map((take) => take.clip)) // prettier-ignore
    return [{ ...pad, bands: keepSettings(pad.bands, turns, 'kept'), spread: 'even' }]
  }
  const bands = byLoudness(makeId, rayId, takes, plan.bandCount, plan.levels)
  const own = plan.onto || plan.start?.responses ? pad.own : { ...pad.own, responses: [velocityToLevel(bands.length)] }
  return [{ ...pad, own, bands: keepSettings(pad.bands, bands, 'brought'), spread: 'loudness' }]
}

/** Each thing on a pad: its hits are turns, in bands by loudness where soft and loud ones stand apart; those of a rhythm so that it can be played again as loud as it was. */
function thingsOnPads(kit: Kit, source: Source, hits: readonly CutHit[], { way, groups = [], onto, start, levels }: SendPlan): Pad[] {
  const from = onto ? kit.pads.findIndex((pad) => pad.id === onto) : kit.pads.length
  const there = from < 0 ? [] : kit.pads.slice(from)
  let grown = kit
  return groups.slice(0, there.length + 128 - kit.pads.length).flatMap((group, i) => {
    const members = group.map((at) => hits[at]).filter((item): item is Described => item?.hit !== undefined)
    if (members.length === 0) return []
    const takes = members.map(({ marker, hit }) => {
      const clip = clipOfHit(source, marker, hit)
      return { clip, loudnessDb: hit.loudnessDb + clip.gainDb }
    })
    const [first] = members
    const pad =
      there[i] ??
      createPad(makeId, { pick: 'shuffle', ...start, name: hitTitle(first.marker, first.hit, source.info.sampleRateHz), family: first.hit.family }, freeNote(grown)) // prettier-ignore
    if (!there[i]) grown = { ...grown, pads: [...grown.pads, pad] }
    if (way === 'rhythm' && !there[i] && !start?.responses) {
      const { bands, response } = asLoud(makeId, pad.rays[0].id, takes)
      return [{ ...pad, own: { ...pad.own, responses: [response] }, bands, spread: 'loudness' as const }]
    }
    const bandCount = Math.max(1, suggestBands(takes.map(({ loudnessDb }) => loudnessDb)))
    const bands = byLoudness(makeId, pad.rays[0].id, takes, bandCount, levels)
    const own = there[i] || start?.responses || bands.length < 2 ? pad.own : { ...pad.own, responses: [velocityToLevel(bands.length)] }
    return [{ ...pad, own, bands: keepSettings(pad.bands, bands, 'brought'), spread: bands.length > 1 ? ('loudness' as const) : ('even' as const) }] // prettier-ignore
  })
}

function inOrder(hits: readonly Described[], order: SendOrder): Described[] {
  if (order === 'time') return [...hits].sort((a, b) => a.marker.frame - b.marker.frame)
  const value = ({ hit }: Described) => (order === 'loudness' ? hit.loudnessDb : (hit.pitch?.hz ?? hit.centreHz))
  return [...hits].sort((a, b) => value(a) - value(b))
}

/** From a chosen pad on, pads that are there take a hit each and keep their settings; the rest become new pads. */
function eachItsOwn(kit: Kit, source: Source, hits: readonly Described[], { onto, start }: SendPlan): Pad[] {
  const from = onto ? kit.pads.findIndex((pad) => pad.id === onto) : kit.pads.length
  const there = from < 0 ? [] : kit.pads.slice(from)
  let grown = kit
  return hits.slice(0, there.length + 128 - kit.pads.length).map(({ marker, hit }, i) => {
    const clip = clipOfHit(source, marker, hit)
    if (there[i]) return filled(there[i], clip)
    const pad = filled(
      createPad(makeId, { ...start, name: hitTitle(marker, hit, source.info.sampleRateHz), family: hit.family }, freeNote(grown)),
      clip,
    )
    grown = { ...grown, pads: [...grown.pads, pad] }
    return pad
  })
}

function filled(pad: Pad, clip: Clip): Pad {
  return { ...pad, bands: keepSettings(pad.bands, asTurns(makeId, pad.rays[0].id, [clip]), 'kept'), spread: 'even' }
}

/** New pads come behind those that are there; a pad that is there gets new clips and keeps every setting. */
export function sendEdits(kit: Kit, source: Source, pads: readonly Pad[], hits: readonly CutHit[]): KitEdit[] {
  const there = new Map(kit.pads.map((pad) => [pad.id, pad]))
  let index = kit.pads.length
  return [
    { type: 'putAudio', audio: source.audio, info: source.info },
    ...pads.flatMap((pad): KitEdit[] => {
      const before = there.get(pad.id)
      if (!before) return [{ type: 'addPad', pad, index: index++ }]
      const filling: KitEdit = { type: 'setPadFilling', padId: pad.id, bands: pad.bands, spread: pad.spread }
      return [filling, ...nameEdits(before, titleOnPad(source, pad, hits))]
    }),
  ]
}

/** What a pad's sound is called: its hit where it is one, else its recording. */
function titleOnPad(source: Source, pad: Pad, hits: readonly CutHit[]): string {
  const clips = clipsOfPad(pad)
  const only = clips.length === 1 ? hits.find(({ marker }) => marker.id === clips[0]!.fromHit?.markerId) : undefined
  return only ? hitTitle(only.marker, only.hit, source.info.sampleRateHz) : source.name
}

const LOOP_CHOKE_SECONDS = 0.005

/**
 * A groove that plays slices where they stood in the loop, so that they follow the tempo of the kit, and a choke group
 * that lets no slice ring into the next; the kit takes the tempo of the loop where that is wanted. Nothing where the recording is not cut on beats.
 */
export function loopEdits(
  source: Source,
  hits: readonly CutHit[],
  pads: readonly Pad[],
  grooveId: GrooveId = makeId('groove'),
  takesTempo = false,
): KitEdit[] {
  const { grid } = source.cut
  if (grid?.kind !== 'beats') return []
  const inTime = hits.filter(({ hit }) => hit).sort((a, b) => a.marker.frame - b.marker.frame)
  const stepsPerBeat = Math.max(4, Math.ceil(1 / grid.beats))
  const framesPerStep = ((60 / grid.tempoBpm) * source.info.sampleRateHz) / stepsPerBeat
  const firstFrame = grid.firstSeconds * source.info.sampleRateHz
  const placed = pads.flatMap((pad, i) => {
    const step = Math.round(((inTime[i].marker.gridFrame ?? inTime[i].marker.frame) - firstFrame) / framesPerStep)
    return step >= 0 && step < 1024 ? [{ pad, step }] : []
  })
  const bar = 4 * stepsPerBeat
  const last = Math.max(0, ...placed.map(({ step }) => step + Math.round(grid.beats * stepsPerBeat)))
  const strings = placed.map(({ pad, step }) => ({ padId: pad.id, beads: [{ id: `${pad.id}.${step}` as BeadId, step, velocity: 127 }] }))
  const name = source.name.slice(0, 120)
  const lengthSteps = Math.min(1024, Math.max(1, Math.ceil(last / bar)) * bar)
  return [
    ...(takesTempo ? [{ type: 'setKit' as const, fields: { tempoBpm: grid.tempoBpm } }] : []),
    { type: 'putGroove', groove: { id: grooveId, name, lengthSteps, stepsPerBeat, swing: STRAIGHT, strings } },
    {
      type: 'putTie',
      tie: { id: makeId('tie'), kind: 'chokeGroup', name, pads: pads.map((pad) => pad.id), fadeSeconds: LOOP_CHOKE_SECONDS },
    },
  ]
}

/** What of a hit a pad takes over: its place, and its repairs. Levels of a pad that goes by loudness are left to the pad. */
function updated({ startFrame, endFrame, fadeInSeconds, fadeOutSeconds, gainDb, reverse, invert, repairs }: Clip, keepsLevel: boolean) {
  return {
    ...{ startFrame, endFrame, fadeInSeconds, fadeOutSeconds, reverse, invert },
    ...(repairs ? { repairs } : {}),
    ...(keepsLevel ? {} : { gainDb }),
  }
}

/** Edits that bring clips on pads to what their hits, touched since, are now; clips that are so already are left alone. */
export function updateEdits(kit: Kit, source: Source, hits: readonly CutHit[]): KitEdit[] {
  const byMarker = new Map(
    hits.flatMap(({ marker, hit }) => (hit && marker.kept ? [[marker.id as string, clipOfHit(source, marker, hit)] as const] : [])),
  )
  const edits: KitEdit[] = []
  for (const pad of kit.pads)
    for (const turn of pad.bands.flatMap((band) => band.turns))
      for (const [rayId, clip] of Object.entries(turn.clips)) {
        if (clip === 'intendedSilence' || clip.audio !== source.audio || clip.fromHit?.sourceId !== source.id) continue
        const now = byMarker.get(clip.fromHit.markerId)
        const next = now && { ...clip, ...updated(now, pad.spread === 'loudness') }
        if (!next || sameData(next, clip)) continue
        edits.push({ type: 'setClip', padId: pad.id, turnId: turn.id, rayId: rayId as never, clip: next })
      }
  return edits
}

/** Lets the tillers that a start brings move the pads that are begun with it. */
export function tillerEdits(kit: Kit, pads: readonly Pad[], start: Start | undefined): KitEdit[] {
  const fresh = pads.filter(({ id }) => kit.pads.every((pad) => pad.id !== id)).map(({ id }) => id)
  if (!start?.tillers?.length || fresh.length === 0) return []
  return [{ type: 'setKit', fields: { tillers: withStartTillers(makeId, kit, start.tillers, fresh) } }]
}
