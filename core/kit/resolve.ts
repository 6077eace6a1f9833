import type { AudioHash, BandId, BusId, PadId, TurnId } from './ids'
import type { Band, Bus, Clip, Insert, Kit, OwnSettings, Pad, Ray, Tie, Turn } from './kit'
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
 * What shapes a ray's strike, with nothing left to inherit: the pad's, then the ray's (see rayOfTurn), each number by
 * itself. Values that add up, as levels do, are the ray's own here, without its pad's.
 */
export function shapeOf(settings: PadSettings, ray: Pick<Ray, 'values' | 'choices' | 'envelopes'>): Shape {
  const values: Record<string, number> = { ...settings.values, ...ray.values }
  for (const name of added) values[name] = valueOf(ray, name)
  return {
    values: values as AllValues,
    choices: { ...settings.choices, ...ray.choices },
    envelopes: { ...settings.envelopes, ...ray.envelopes },
  }
}

/** A ray as a turn has it: what the turn has of its own takes the place of the ray's, and what adds up is added. */
export function rayOfTurn<Of extends Pick<Ray, 'values' | 'choices' | 'envelopes'>>(ray: Of, { values, choices, envelopes }: Turn): Of {
  if (!values && !choices && !envelopes) return ray
  const sums = added.flatMap((name) => (values?.[name] === undefined ? [] : [[name, valueOf(ray, name) + values[name]]]))
  return {
    ...ray,
    values: { ...ray.values, ...values, ...(Object.fromEntries(sums) as Ray['values']) },
    choices: { ...ray.choices, ...choices },
    envelopes: { ...ray.envelopes, ...envelopes },
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

/** Level and place of a ray together with the buses on its way, without its pad's; muted where ray, pad or a bus is. */
export function raySound(kit: Kit, settings: PadSettings, ray: Ray): RaySound {
  const way = wayFrom(kit, ray.bus ?? settings.bus)
  return {
    gainDb: way.reduce((sum, bus) => sum + valueOf(bus, 'gainDb'), valueOf(ray, 'gainDb')),
    pan: way.reduce((sum, bus) => sum + valueOf(bus, 'pan'), valueOf(ray, 'pan')),
    isMuted: ray.mute || settings.mute || way.some(({ mute }) => mute),
  }
}

/** The buses that are passed on the way from one to the master. */
function wayFrom(kit: Pick<Kit, 'buses'>, busId: BusId | undefined): Bus[] {
  const way: Bus[] = []
  for (let at = busId; at !== undefined;) {
    const bus = kit.buses.find(({ id }) => id === at)
    if (!bus || way.includes(bus)) break
    way.push(bus)
    at = bus.out
  }
  return way
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

/**
 * A pad whose strike at a velocity (1..127) sounds as the whole pad's does, with the clips of no other bands than it plays: less
 * has to be read and compiled. Where cells borrow from other bands, it is the whole pad.
 */
export function narrowedTo(pad: Pad, velocity: number): Pad {
  const at = pad.bands.findLastIndex(({ fromVelocity }) => fromVelocity <= velocity)
  const above = pad.bands[at + 1]
  const kept = pad.bands.filter((band, i) => i === at || (band === above && band.blendVelocities > 0))
  const borrows = pad.rays.some(({ id, onMissing }) => onMissing === 'nearest' && kept.some(({ turns }) => turns.some(({ clips }) => !clips[id])))
  if (at < 0 || borrows) return pad
  // The places of bands stay: a shuffle is another one in another place.
  return { ...pad, bands: pad.bands.map((band) => (kept.includes(band) ? band : { ...band, turns: [] })) }
} // prettier-ignore

/** All clips of a pad, its rays' own bands included. */
export function clipsOfPad(pad: Pick<Pad, 'bands' | 'rays'>): Clip[] {
  const bandLists = [pad.bands, ...pad.rays.map((ray) => (ray.source.kind === 'clips' && ray.source.bands) || [])]
  return bandLists
    .flat()
    .flatMap((band) => band.turns)
    .flatMap((turn) => Object.values(turn.clips))
    .filter((clip) => clip !== 'intendedSilence')
}

/** A pad with each of its clips, those of its rays' own bands included, as `change` makes it. */
export function mapClips(pad: Pad, change: (clip: Clip, rayId: string) => Clip): Pad {
  const mapped = (bands: readonly Band[]): Band[] =>
    bands.map((band) => ({
      ...band,
      turns: band.turns.map((turn) => ({
        ...turn,
        clips: Object.fromEntries(
          Object.entries(turn.clips).map(([ray, clip]) => [ray, clip === 'intendedSilence' ? clip : change(clip, ray)]),
        ),
      })),
    }))
  const rays = pad.rays.map((ray) =>
    ray.source.kind === 'clips' && ray.source.bands ? { ...ray, source: { ...ray.source, bands: mapped(ray.source.bands) } } : ray,
  )
  return { ...pad, bands: mapped(pad.bands), rays }
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

/** Clips that lie in no cell: recordings whose parts are on pads, and clips of single beads. */
export function clipsBesidePads(kit: Kit): Clip[] {
  const parts = kit.ties.flatMap((tie) => (tie.kind === 'parts' ? [tie.clip] : []))
  const beads = kit.grooves.flatMap(({ strings }) => strings.flatMap((string) => string.beads.flatMap(({ clip }) => clip ?? [])))
  return [...parts, ...beads]
}

/** What is put into the master and into buses; a kit of the first version, while old edits are made on it, has no places for that. */
export function insertsOf(kit: Pick<Kit, 'buses'> & { readonly inserts?: Kit['inserts'] }): Insert[] {
  return [...(kit.inserts ?? []), ...kit.buses.flatMap(({ inserts = [] }: Partial<Bus>) => inserts)]
}

/** The audio that a kit names, each once: its pads' first, impulses of rooms last. */
export function audioInUse(kit: Kit): AudioHash[] {
  const clips = [...kit.pads.flatMap(clipsOfPad), ...clipsBesidePads(kit)].map((clip) => clip.audio)
  return [...new Set([...clips, ...insertsOf(kit).flatMap(({ audio }) => audio ?? [])])]
}

/** The files that some of those were decoded from once. */
export function originalsInUse(kit: Kit): AudioHash[] {
  return [...new Set(audioInUse(kit).flatMap((audio) => kit.audio[audio]?.derivedFrom ?? []))]
}

/** The pads that a MIDI note strikes. */
export function padsForNote(kit: Kit, note: number): Pad[] {
  return kit.pads.filter((pad) => pad.notes.includes(note))
}

/** What a pad silences: by its strike, when it is let go, or by pressure on it; where `reach` is said only these rays and bands. */
export interface Choke {
  readonly padId: PadId
  readonly fadeSeconds: number
  readonly on: 'strike' | 'letGo' | 'pressure'
  readonly reach?: { readonly rays?: readonly string[]; readonly bands?: readonly string[] }
}

/** Everything that a pad silences; of ties that say the same of a pad the last one's fade counts. */
export function chokesOf(kit: Kit, padId: PadId): Choke[] {
  const found = new Map<string, Choke>()
  for (const tie of kit.ties) {
    if (tie.kind !== 'choke' && tie.kind !== 'chokeGroup') continue
    const on = (tie.kind === 'choke' && tie.on) || 'strike'
    for (const to of silencedBy(tie, padId))
      found.set(`${to} ${on} ${tie.reach ? tie.id : ''}`, {
        padId: to,
        fadeSeconds: tie.fadeSeconds,
        on,
        ...(tie.reach ? { reach: tie.reach } : {}),
      })
  }
  return [...found.values()]
}

function silencedBy(tie: Extract<Tie, { kind: 'choke' | 'chokeGroup' }>, padId: PadId): PadId[] {
  if (tie.kind === 'choke') return tie.from === padId ? tie.to : []
  return tie.pads.includes(padId) ? tie.pads.filter((to) => tie.itself === true || to !== padId) : []
}

/** The pads that a strike of `padId` silences altogether, with the fade of each. */
export function chokedBy(kit: Kit, padId: PadId): { padId: PadId; fadeSeconds: number }[] {
  return chokesOf(kit, padId)
    .filter(({ on, reach }) => on === 'strike' && !reach)
    .map(({ padId: to, fadeSeconds }) => ({ padId: to, fadeSeconds }))
}

type Parts = Extract<Tie, { kind: 'parts' }>

/** The stretches of a recording that lie on a pad, in their order; even ones where no frames are said. */
function partsOfPad(kit: Kit, padId: PadId): Clip[] {
  return kit.ties.flatMap((tie) =>
    tie.kind === 'parts' ? tie.parts.flatMap((part, place) => (part.pad === padId ? [partOf(tie, place)] : [])) : [],
  )
}

/** One part of a recording: the stretch that is said, else its even share. */
export function partOf({ clip, parts }: Parts, place: number): Clip {
  const { startFrame, endFrame } = parts[place]!
  const length = clip.endFrame - clip.startFrame
  const edge = (of: number) => clip.startFrame + Math.round((length * of) / parts.length)
  const from = Math.min(startFrame ?? edge(place), clip.endFrame - 1)
  return { ...clip, startFrame: from, endFrame: Math.max(from + 1, Math.min(endFrame ?? edge(place + 1), clip.endFrame)) }
}

/** Whether nothing fills a pad: no turn, in no band, and no ray that sounds by itself. */
export function isEmptyPad({ bands, rays }: Pad): boolean {
  const has = (list: readonly Band[]) => list.some(({ turns }) => turns.length > 0)
  return !has(bands) && rays.every(({ source }) => source.kind === 'clips' && !has(source.bands ?? []))
}

/** Ties in which a pad that is empty borrows: its drum's openings first, then its spots; the pads in their order. */
function rowsOf(kit: Kit, padId: PadId): PadId[][] {
  const openings = kit.ties.flatMap((tie) =>
    tie.kind === 'openings' ? [[...tie.steps].sort((a, b) => a.from - b.from).map(({ pad }) => pad)] : [],
  )
  const spots = kit.ties.flatMap((tie) => (tie.kind === 'spots' ? [tie.spots.map(({ pad }) => pad)] : []))
  return [...openings, ...spots].filter((row) => row.includes(padId))
}

/**
 * The pad whose sounds an empty one plays: of its drum's openings or spots the nearest that has some, the one before it where
 * two are as near. Nothing where it has its own, or none of them has any.
 */
export function lenderOf(kit: Kit, pad: Pad): Pad | undefined {
  if (!isEmptyPad(pad) || padSettings(kit, pad).mode === 'silencer') return undefined
  for (const row of rowsOf(kit, pad.id)) {
    const place = row.indexOf(pad.id)
    const near = row.map((padId, i) => ({ padId, away: Math.abs(i - place) - (i < place ? 0.5 : 0) })).sort((a, b) => a.away - b.away)
    const lender = near.map(({ padId }) => padById(kit, padId)).find((one) => one && one !== pad && !isEmptyPad(one))
    if (lender) return lender
  }
  return undefined
}

/**
 * A pad with what fills it from elsewhere: the parts of recordings that lie on it, as turns of one band, or what it borrows from
 * another spot or opening of its drum. What it has of its own goes before.
 */
export function filledPad(kit: Kit, pad: Pad): Pad {
  if (pad.bands.some(({ turns }) => turns.length > 0) || !kit.ties.some(({ kind }) => fills.has(kind))) return pad
  const ray = pad.rays[0]
  const parts = ray ? partsOfPad(kit, pad.id) : []
  if (!ray || parts.length === 0) {
    const lender = lenderOf(kit, pad)
    return lender ? { ...pad, rays: lender.rays, bands: lender.bands } : pad
  }
  const turns = parts.map((clip, i): Turn => ({ id: `${pad.id}.part.${i}` as TurnId, weight: 1, clips: { [ray.id]: clip } }))
  const band: Band = { id: `${pad.id}.parts` as BandId, fromVelocity: 1, blendVelocities: 0, blendLaw: 'power', values: {}, turns }
  return { ...pad, bands: [band] }
}

/** Ties by which an empty pad sounds all the same. */
const fills: ReadonlySet<Kit['ties'][number]['kind']> = new Set(['parts', 'openings', 'spots'])

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

/** The pads that each note strikes, in the order of the board; notes that strike none are missing. */
export function padsOfNotes(kit: Kit): Map<number, PadId[]> {
  const byNote = new Map<number, PadId[]>()
  for (const [padId, notes] of notesOfPads(kit)) for (const note of notes) byNote.set(note, [...(byNote.get(note) ?? []), padId])
  return byNote
}
