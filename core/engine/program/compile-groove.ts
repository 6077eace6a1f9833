import type { BeadId, GrooveId, PadId } from '../../kit/ids'
import type { Groove, GrooveString, Kit } from '../../kit/kit'
import { grooveBeats, stringBeats, timedBeads } from '../../kit/groove-time'
import type { TimedBead } from '../../kit/groove-time'
import { mixPlace } from '../../kit/mix-places'
import { movedParameters, parameterRow } from '../../kit/parameters'
import { padSettings } from '../../kit/resolve'
import { hashId } from '../strike/chance'

import { bendToK, movedValue, table } from './context'
import type { CompileContext, Reading } from './context'
import { padHolds } from './compile-pad'
import { greatestCentsOf } from './greatest-rate'
import { addressHash, levelSlot, movedPlaceValue } from './write-moved'
import { BeadField, ClipField, GrooveHead, LaneField, LanePointField, LockField, ParamCode, SectionField, StringField } from './layout'
import { writeClip } from './write-bands'

/** What of a kit's grooves is played: one of them round and round, or its song. */
export type GrooveChoice = GrooveId | 'song'

export interface GrooveContext extends CompileContext {
  /** The slot of a bead, which stays while it is edited; undefined where there is no room for more. */
  beadSlotOf(beadId: BeadId): number | undefined
  /** Rows of beads that were written before, by their strings: an edit of one string writes the others no more. */
  readonly rowsOf?: WeakMap<GrooveString, WrittenRows>
}

/** The rows of a string's beads, of which none has a clip or parameters of its own, and for what timing they were written. */
export interface WrittenRows {
  readonly timing: string
  readonly rows: Float64Array
}

/** The same, and how a clip of a bead is read by its pad. */
interface BeadContext extends GrooveContext {
  readingOf(padId: PadId): Reading
}

function readingsIn(kit: Kit): (padId: PadId) => Reading {
  return (padId) => {
    const pad = kit.pads.find(({ id }) => id === padId)
    if (!pad) return { mostCents: 0, loops: false, isHeld: false }
    return { mostCents: Math.max(...greatestCentsOf(kit, pad)), ...padHolds(padSettings(kit, pad)) }
  }
}

/** Where the parts of a groove stand; sections that play the same one share them. */
interface Written {
  readonly strings: number
  readonly stringCount: number
  readonly lanes: number
  readonly laneCount: number
}

interface Section {
  readonly groove: Groove
  /** 0 for ever. */
  readonly laps: number
}

/** The sections that are played for a choice: the song where it is chosen and has any, else one groove for ever. */
function sectionsOf(kit: Kit, choice: GrooveChoice | undefined): Section[] {
  const byId = new Map(kit.grooves.map((groove) => [groove.id, groove]))
  const song = kit.song.flatMap(({ groove, laps }) => {
    const found = byId.get(groove)
    return found ? [{ groove: found, laps }] : []
  })
  if (song.length > 0 && (choice === undefined || choice === 'song')) return song
  const one = (choice !== undefined && choice !== 'song' && byId.get(choice)) || kit.grooves[0]
  return one ? [{ groove: one, laps: 0 }] : []
}

/** Compiles the groove or song that is played, every bead with all that is set on it; nothing where a kit has none. */
export function compileGroove(kit: Kit, choice: GrooveChoice | undefined, given: GrooveContext): Float64Array | undefined {
  const context: BeadContext = { ...given, readingOf: readingsIn(kit) }
  const sections = sectionsOf(kit, choice)
  if (sections.length === 0) return undefined
  const out: number[] = new Array<number>(GrooveHead.length).fill(0)
  out[GrooveHead.framesPerBeat] = (60 / kit.tempoBpm) * context.sampleRateHz
  out[GrooveHead.sectionCount] = sections.length
  const at = table(out, sections.length, SectionField.length)
  out[GrooveHead.sections] = at
  const written = new Map<Groove, Written>()
  sections.forEach(({ groove, laps }, i) => {
    const row = at + i * SectionField.length
    const parts = written.get(groove) ?? { ...writeStrings(out, kit, groove, context), ...writeLanes(out, kit, groove, context) }
    written.set(groove, parts)
    out[row + SectionField.grooveHash] = hashId(groove.id)
    out[row + SectionField.lengthBeats] = grooveBeats(groove)
    out[row + SectionField.laps] = laps
    out[row + SectionField.stringCount] = parts.stringCount
    out[row + SectionField.strings] = parts.strings
    out[row + SectionField.laneCount] = parts.laneCount
    out[row + SectionField.lanes] = parts.lanes
  })
  out[GrooveHead.size] = out.length
  return new Float64Array(out)
}

function writeStrings(out: number[], kit: Kit, groove: Groove, context: BeadContext): Pick<Written, 'strings' | 'stringCount'> {
  const here = new Set(kit.pads.map(({ id }) => id))
  const strings = groove.strings.filter(({ padId }) => here.has(padId))
  const feel = groove.feel && kit.grooves.find(({ id }) => id === groove.feel?.grooveId)
  const at = table(out, strings.length, StringField.length)
  strings.forEach((string, i) => {
    const row = at + i * StringField.length
    const written = feel ? undefined : writtenRows(groove, string, context)
    out[row + StringField.padSlot] = context.slotOf(string.padId)
    out[row + StringField.lengthBeats] = stringBeats(groove, string)
    out[row + StringField.beads] = out.length
    out[row + StringField.beadCount] = written ? written.length / BeadField.length : writeBeads(out, groove, string, feel, context)
    if (written) for (let field = 0; field < written.length; field++) out.push(written[field])
  })
  return { strings: at, stringCount: strings.length }
}

/** Writes the rows of a string's beads; returns how many. */
function writeBeads(out: number[], groove: Groove, string: GrooveString, feel: Groove | undefined, context: BeadContext): number {
  const timed = inLap(groove, string, timedBeads(groove, string, feel)).flatMap((one) => {
    const slot = context.beadSlotOf(one.bead.id)
    return slot === undefined ? [] : [{ ...one, slot }]
  })
  const beads = table(out, timed.length, BeadField.length)
  timed.forEach((one, place) => writeBead(out, beads + place * BeadField.length, groove, string, one, context))
  return timed.length
}

/** The rows of a string as they were written before, or now; nothing where beads have tables of their own. */
function writtenRows(groove: Groove, string: GrooveString, context: BeadContext): Float64Array | undefined {
  const { rowsOf } = context
  if (!rowsOf || string.beads.some(({ clip, locks }) => clip !== undefined || (locks !== undefined && locks.length > 0))) return undefined
  const timing = `${groove.lengthSteps} ${groove.stepsPerBeat} ${groove.swing}`
  const known = rowsOf.get(string)
  if (known?.timing === timing) return known.rows
  const own: number[] = []
  writeBeads(own, groove, string, undefined, context)
  const rows = new Float64Array(own)
  rowsOf.set(string, { timing, rows })
  return rows
}

/** Lanes of the mix; those of pads wait in the document. A level is known by its slot, anything else by the hash of its address. */
function writeLanes(out: number[], kit: Kit, groove: Groove, context: GrooveContext): Pick<Written, 'lanes' | 'laneCount'> {
  const lanes = (groove.lanes ?? []).flatMap(({ address, points }) => {
    const place = mixPlace(kit, address)
    if (!place || points.length === 0) return []
    const slot = levelSlot(kit, address, context) ?? -1
    return [{ slot, address, place, points: [...points].sort((a, b) => a.step - b.step) }]
  })
  const at = table(out, lanes.length, LaneField.length)
  lanes.forEach(({ slot, address, place, points }, i) => {
    const row = at + i * LaneField.length
    out[row + LaneField.slot] = slot
    out[row + LaneField.hash] = addressHash(address)
    out[row + LaneField.base] = movedPlaceValue(place, place.now)
    out[row + LaneField.pointCount] = points.length
    const first = table(out, points.length, LanePointField.length)
    out[row + LaneField.points] = first
    points.forEach(({ step, value, bend }, i) => {
      out[first + i * LanePointField.length + LanePointField.beat] = step / groove.stepsPerBeat
      out[first + i * LanePointField.length + LanePointField.value] = movedPlaceValue(place, value)
      out[first + i * LanePointField.length + LanePointField.k] = bendToK(bend)
    })
  })
  return { lanes: at, laneCount: lanes.length }
}

interface PlacedBead extends TimedBead {
  readonly lapShift: number
}

/** Beads within one lap, in order of time: one that lies before its lap stands at the end of the lap before. */
function inLap(groove: Groove, string: GrooveString, timed: readonly TimedBead[]): PlacedBead[] {
  const length = stringBeats(groove, string)
  return timed
    .map((one) => {
      const shift = -Math.floor(one.beat / length)
      return { ...one, beat: one.beat + shift * length, lapShift: shift }
    })
    .sort((a, b) => a.beat - b.beat)
}

function writeBead(
  out: number[],
  row: number,
  groove: Groove,
  string: GrooveString,
  { bead, beat, velocity, lapShift, slot }: PlacedBead & { readonly slot: number },
  context: BeadContext,
): void {
  const { when, repeats } = bead
  const slotOf = (id: BeadId | undefined) => (id === undefined ? -1 : (context.beadSlotOf(id) ?? -1))
  const bits = (from: number) =>
    (when?.laps?.in ?? []).reduce((mask, lap) => (lap > from && lap <= from + 32 ? mask | (1 << (lap - 1 - from)) : mask), 0)
  out[row + BeadField.beat] = beat
  out[row + BeadField.lapShift] = lapShift
  out[row + BeadField.slot] = slot
  out[row + BeadField.hash] = hashId(bead.id)
  out[row + BeadField.velocity] = velocity
  out[row + BeadField.chance] = bead.chance ?? 1
  out[row + BeadField.lapsOf] = when?.laps?.of ?? 0
  out[row + BeadField.lapsLow] = bits(0)
  out[row + BeadField.lapsHigh] = bits(32)
  out[row + BeadField.after] = slotOf(when?.after)
  out[row + BeadField.unless] = slotOf(when?.unless)
  out[row + BeadField.repeatCount] = repeats?.count ?? 1
  out[row + BeadField.repeatBeats] = (repeats?.steps ?? 1) / (string.stepsPerBeat ?? groove.stepsPerBeat)
  out[row + BeadField.rise] = repeats?.rise ?? 0
  out[row + BeadField.draw] = bendToK(-(repeats?.draw ?? 0))
  out[row + BeadField.bandHash] = bead.band === undefined ? -1 : hashId(bead.band)
  out[row + BeadField.turnHash] = bead.turn === undefined ? -1 : hashId(bead.turn)
  const clip = bead.clip ? table(out, 1, ClipField.length) : -1
  if (bead.clip) writeClip(out, clip, bead.clip, context.readingOf(string.padId), context)
  out[row + BeadField.clip] = clip
  const locks = (bead.locks ?? []).filter(({ param }) => movedParameters.includes(param))
  out[row + BeadField.lockCount] = locks.length
  const at = table(out, locks.length, LockField.length)
  out[row + BeadField.locks] = at
  locks.forEach(({ param, ray, value, mode }, i) => {
    const lock = at + i * LockField.length
    out[lock + LockField.to] = ParamCode[param]
    out[lock + LockField.ray] = ray === undefined ? -1 : hashId(ray)
    out[lock + LockField.value] = mode === 'set' ? movedValue(value, parameterRow(param).movedBy) : value
    out[lock + LockField.isSet] = mode === 'set' ? 1 : 0
  })
}
