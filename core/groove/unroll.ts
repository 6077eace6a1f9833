import { chance, hashId, Purpose } from '../engine/strike/chance'
import { grooveBeats, stringBeats, timedBeads } from '../kit/groove-time'
import type { BeadId, GrooveId, PadId } from '../kit/ids'
import type { Bead, Groove } from '../kit/grooves'
import type { Kit } from '../kit/kit'

/** One strike of a groove or song, beats counted from where it began. */
export interface UnrolledStrike {
  readonly beat: number
  readonly padId: PadId
  readonly velocity: number
  readonly beadId: BeadId
  /** Which lap of its string it belongs to, from 0; and which strike of a bead's repeats, from 0. */
  readonly lap: number
  readonly repeat: number
  readonly frame: number
}

interface Section {
  readonly groove: Groove
  readonly beats: number
}

/** Where a bead's time comes. */
interface Due {
  readonly frame: number
  readonly beat: number
  readonly place: number
  readonly padId: PadId
  readonly lap: number
  readonly bead: Bead
  readonly division: number
  readonly velocity: number
}

/**
 * Everything that a groove, or a kit's song, strikes in its first `beats` beats, as a plain list in order of time: each bead lap by
 * lap, with its laps, the other beads that it looks at, its chance and its repeats, as docs/kit-format.md says. Frames are those of
 * `sampleRateHz` at the kit's tempo, counted from the beginning; each section begins on whatever part of a frame it falls.
 */
export function unrolled(kit: Kit, what: GrooveId | 'song', beats: number, sampleRateHz = 48000): UnrolledStrike[] {
  const framesPerBeat = (60 / kit.tempoBpm) * sampleRateHz
  const memory: Memory = { sounded: new Map(), occasions: new Map() }
  const out: UnrolledStrike[] = []
  let from = 0
  for (const { groove, beats: length } of sectionsOf(kit, what, beats)) {
    if (from >= beats) break
    const ends = Math.min(length, beats - from)
    for (const due of duesOf(kit, groove, from, ends, length, framesPerBeat)) strike(kit, due, framesPerBeat, memory, out)
    from += length
  }
  const last = Math.floor(beats * framesPerBeat + 0.5)
  return out.filter(({ frame }) => frame < last).sort((a, b) => a.frame - b.frame)
}

/** What is played, one section after the other, round and round for as long as it is asked for. */
function sectionsOf(kit: Kit, what: GrooveId | 'song', beats: number): Section[] {
  const byId = new Map(kit.grooves.map((groove) => [groove.id, groove]))
  if (what !== 'song') {
    const groove = byId.get(what)
    return groove ? [{ groove, beats: Infinity }] : []
  }
  const song = kit.song.flatMap(({ groove, laps }) => {
    const found = byId.get(groove)
    return found ? [{ groove: found, beats: laps * grooveBeats(found) }] : []
  })
  const total = song.reduce((sum, one) => sum + one.beats, 0)
  return total > 0 ? Array.from({ length: Math.ceil(beats / total) }, () => song).flat() : []
}

/** When each bead of a section comes, in the order in which they are looked at. */
function duesOf(kit: Kit, groove: Groove, from: number, ends: number, length: number, framesPerBeat: number): Due[] {
  const feel = groove.feel && kit.grooves.find(({ id }) => id === groove.feel!.grooveId)
  const pads = new Set(kit.pads.map(({ id }) => id))
  const first = Math.floor(from * framesPerBeat + 0.5)
  const over = length === Infinity ? Infinity : Math.floor((from + length) * framesPerBeat + 0.5)
  const dues = groove.strings.filter(({ padId }) => pads.has(padId)).flatMap((string, place) => {
    const around = stringBeats(groove, string)
    const timed = timedBeads(groove, string, feel)
    const laps = Math.ceil(ends / around) + 1
    const division = string.stepsPerBeat ?? groove.stepsPerBeat
    return Array.from({ length: laps }, (_, lap) => timed.map(({ bead, beat, velocity }): Due => {
      const at = from + lap * around + beat
      return { frame: Math.max(first, Math.floor(at * framesPerBeat + 0.5)), beat: at, place, padId: string.padId, lap, bead, division, velocity }
    })).flat()
  }) // prettier-ignore
  return dues.filter(({ frame }) => frame < over).sort((a, b) => a.frame - b.frame || a.place - b.place || a.beat - b.beat)
}

interface Memory {
  readonly sounded: Map<BeadId, boolean>
  readonly occasions: Map<BeadId, number>
}

function strike(kit: Kit, due: Due, framesPerBeat: number, { sounded, occasions }: Memory, out: UnrolledStrike[]): void {
  const { bead, lap } = due
  const occasion = occasions.get(bead.id) ?? 0
  occasions.set(bead.id, occasion + 1)
  const { laps, after, unless } = bead.when ?? {}
  const isInLap = !laps || laps.in.includes((lap % laps.of) + 1)
  const others = (!after || sounded.get(after) === true) && (!unless || sounded.get(unless) !== true)
  const sounds = isInLap && others && chance(kit.seed, hashId(bead.id) | 0, occasion, Purpose.bead) < (bead.chance ?? 1)
  sounded.set(bead.id, sounds)
  if (!sounds) return
  for (let repeat = 0; repeat < (bead.repeats?.count ?? 1); repeat++) {
    const { beats, velocity } = repeatOf(due, repeat)
    const later = repeat === 0 ? 0 : Math.floor(beats * framesPerBeat + 0.5)
    out.push({ beat: due.beat + beats, padId: due.padId, velocity, beadId: bead.id, lap, repeat, frame: due.frame + later })
  }
}

/** How far into a bead's time one of its repeats falls, and how strong it is. */
function repeatOf({ bead, division, velocity }: Due, place: number): { readonly beats: number; readonly velocity: number } {
  const { count = 1, steps = 1, rise = 0, draw = 0 } = bead.repeats ?? {}
  if (place === 0) return { beats: 0, velocity }
  const curve = 64 ** -draw
  const even = place / count
  const share = even / (even + curve * (1 - even))
  const grown = velocity * (1 + (rise * place) / (count - 1))
  return { beats: share * (steps / division), velocity: Math.min(127, Math.max(1, Math.floor(grown + 0.5))) }
}
