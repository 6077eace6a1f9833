import type { AudioHash, PadId } from './ids'
import type { Band, Clip, Kit, OwnSettings, Pad, Ray, Turn } from './kit'
import { usualPadSettings } from './make'
import { parameterNames, parameterRow, valueOf } from './parameters'
import type { AllChoices, AllValues, Stage } from './parameters'
import type { AllEnvelopes, Shape } from './shape'

/** A pad's settings with nothing left to inherit. */
export interface PadSettings
  extends Required<Omit<OwnSettings, Optional | 'values' | 'choices' | 'envelopes'>>, Pick<OwnSettings, Optional> {
  readonly values: AllValues
  readonly choices: AllChoices
  readonly envelopes: AllEnvelopes
  readonly order: Stage[]
}
type Optional = 'tint' | 'group' | 'bus' | 'rootNote'

export function padById(kit: Kit, padId: PadId): Pad | undefined {
  return kit.pads.find((pad) => pad.id === padId)
}

/** A pad's settings with all it takes from the pads it leans on. A circle of leaning pads ends where it closes. */
export function padSettings(kit: Kit, pad: Pad): PadSettings {
  const chain: Pad[] = []
  for (let at: Pad | undefined = pad; at && !chain.includes(at); at = at.leansOn ? padById(kit, at.leansOn) : undefined) chain.push(at)
  return chain.reverse().reduce((settings, link) => settled(settings, link.own), usualPadSettings)
}

/** Settings with what is set over them: numbers, choices and envelopes one by one, all else by its name. */
export function settled(settings: PadSettings, { values, choices, envelopes, ...own }: OwnSettings): PadSettings {
  return {
    ...settings,
    ...(own as Partial<PadSettings>),
    values: values ? { ...settings.values, ...values } : settings.values,
    choices: choices ? { ...settings.choices, ...choices } : settings.choices,
    envelopes: envelopes ? { ...settings.envelopes, ...envelopes } : settings.envelopes,
  }
}

const added = parameterNames.filter((name) => parameterRow(name).joins === 'add')

/**
 * What shapes a ray's strike, with nothing left to inherit: the pad's, then the ray's, then the turn's, each number by
 * itself. Values that add up, as levels do, are the ray's own here, without its pad's.
 */
export function shapeOf(settings: PadSettings, ray: Pick<Ray, 'values' | 'choices' | 'envelopes'>, turn?: Turn): Shape {
  const values: Record<string, number> = { ...settings.values, ...ray.values, ...turn?.values }
  for (const name of added) values[name] = valueOf(ray, name)
  return {
    values: values as AllValues,
    choices: { ...settings.choices, ...ray.choices, ...turn?.choices },
    envelopes: { ...settings.envelopes, ...ray.envelopes, ...turn?.envelopes },
  }
}

/** The bands a ray sounds from: its own, or the pad's. */
export function bandsOfRay(pad: Pad, ray: Ray): readonly Band[] {
  return (ray.source.kind === 'clips' && ray.source.bands) || pad.bands
}

/** Where a ray sounds, with its bus: its own, or its pad's. Levels in dB; left is -1, right 1, and what adds up beyond is held there. */
export interface RaySound {
  readonly gainDb: number
  readonly pan: number
  readonly isMuted: boolean
}

/** Level and place of a ray together with its bus, without its pad's; muted where ray, pad or bus is. */
export function raySound(kit: Kit, settings: PadSettings, ray: Ray): RaySound {
  const bus = kit.buses.find(({ id }) => id === (ray.bus ?? settings.bus))
  return {
    gainDb: valueOf(ray, 'gainDb') + (bus ? valueOf(bus, 'gainDb') : 0),
    pan: valueOf(ray, 'pan') + (bus ? valueOf(bus, 'pan') : 0),
    isMuted: ray.mute || settings.mute || bus?.mute === true,
  }
}

/** The clip of a cell; a ray that asks for it borrows from the nearest band where its own is missing. */
export function clipOfCell(bands: readonly Band[], bandIndex: number, turnIndex: number, ray: Ray): Clip | undefined {
  const clip = bands[bandIndex].turns[turnIndex].clips[ray.id]
  if (clip === 'intendedSilence') return undefined
  if (clip || ray.onMissing === 'silent') return clip
  for (let distance = 1; distance < bands.length; distance++)
    for (const band of [bands[bandIndex - distance], bands[bandIndex + distance]]) {
      const near = band?.turns[turnIndex % Math.max(1, band.turns.length)]?.clips[ray.id]
      if (near && near !== 'intendedSilence') return near
    }
  return undefined
}

/** All clips of a pad, its rays' own bands included. */
export function clipsOfPad(pad: Pad): Clip[] {
  const bandLists = [pad.bands, ...pad.rays.map((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])]
  return bandLists
    .flat()
    .flatMap((band) => band.turns)
    .flatMap((turn) => Object.values(turn.clips))
    .filter((clip) => clip !== 'intendedSilence')
}

export interface MissingCell {
  readonly ray: Ray
  /** Counted from 0. */
  readonly band: number
  readonly turn: number
}

/** Cells that other rays of the strike have a clip for and one has not, unless its silence is meant. */
export function missingCells(pad: Pad): MissingCell[] {
  const shared = pad.rays.filter((ray) => ray.source.kind === 'clips' && !ray.source.bands)
  if (shared.length < 2) return []
  return pad.bands.flatMap(({ turns }, band) =>
    turns.flatMap(({ clips }, turn) => {
      const lacking = shared.filter((ray) => clips[ray.id] === undefined)
      return lacking.length === shared.length ? [] : lacking.map((ray) => ({ ray, band, turn }))
    }),
  )
}

/** The audio that a kit's pads name, each once. */
export function audioInUse(kit: Kit): AudioHash[] {
  return [...new Set(kit.pads.flatMap(clipsOfPad).map((clip) => clip.audio))]
}

/** The files that some of those were decoded from once. */
export function originalsInUse(kit: Kit): AudioHash[] {
  return [...new Set(audioInUse(kit).flatMap((audio) => kit.audio[audio]?.derivedFrom ?? []))]
}

/** The pads that a MIDI note strikes. */
export function padsForNote(kit: Kit, note: number): Pad[] {
  return kit.pads.filter((pad) => pad.notes.includes(note))
}

/** The pads that a strike of `padId` silences, with the fade of each. */
export function chokedBy(kit: Kit, padId: PadId): { padId: PadId; fadeSeconds: number }[] {
  const choked = new Map<PadId, number>()
  for (const tie of kit.ties) {
    if (tie.kind === 'choke' && tie.from === padId) for (const to of tie.to) choked.set(to, tie.fadeSeconds)
    if (tie.kind === 'chokeGroup' && tie.pads.includes(padId)) for (const to of tie.pads) if (to !== padId) choked.set(to, tie.fadeSeconds)
  }
  return [...choked].map(([to, fadeSeconds]) => ({ padId: to, fadeSeconds }))
}

/** Notes that pads answer; pads without one take free notes from 36 up, in their order. */
export function notesOfPads(kit: Kit): Map<PadId, number[]> {
  const taken = new Set(kit.pads.flatMap((pad) => pad.notes))
  const result = new Map<PadId, number[]>()
  let next = 36
  for (const pad of kit.pads) {
    if (pad.notes.length > 0) result.set(pad.id, pad.notes)
    else {
      while (taken.has(next)) next++
      if (next <= 127) taken.add(next)
      result.set(pad.id, next <= 127 ? [next] : [])
    }
  }
  return result
}
