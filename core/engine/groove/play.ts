import { addEvent } from '../events'
import { EventType } from '../program/codes'
import { BeadField, EventField, GROOVE_ENTRY, GrooveHead, SectionField, StatusField, StringField } from '../program/layout'
import { programOf } from '../state'
import { NEVER } from '../time'
import type { EngineState } from '../state'
import { chance, Purpose } from '../strike/chance'
import { strikeBead } from '../strike/links'
import { releaseKey } from '../strike/stops'
import { countAtGroove } from '../strike/strike'
import { beginLanes } from './lanes'
import { sectionRow } from './rows'
import { bent } from '../voice/envelope'

/** What the strikes of a groove are held by. */
const GROOVE_KEY = -1

/** The groove begins at the current frame, on a beat that is counted from its first section. */
export function beginGroove(engine: EngineState, beat = 0): void {
  const { groove } = engine
  countAtGroove(engine)
  groove.sounded.fill(0)
  groove.occasions.fill(0)
  groove.isPlaying = 1
  groove.isLed = 0
  takeProgram(engine)
  groove.passedBeats = 0
  let section = 0
  let left = Math.max(0, beat)
  for (let beats = sectionBeats(engine, 0); beats > 0 && left >= beats; beats = sectionBeats(engine, section)) {
    left -= beats
    groove.passedBeats += beats
    section = (section + 1) % engine.memory.arena[groove.program + GrooveHead.sectionCount]
  }
  beginSection(engine, section, engine.frame, left)
}

/** How many beats a section lasts with all its laps; 0 where it has no end, or there is none. */
function sectionBeats(engine: EngineState, section: number): number {
  const { groove, memory } = engine
  if (groove.program === 0 || memory.arena[groove.program + GrooveHead.sectionCount] === 0) return 0
  const row = sectionRow(engine, section)
  return memory.arena[row + SectionField.laps] * memory.arena[row + SectionField.lengthBeats]
}

/**
 * Another clock leads: the current frame is this beat, counted from the beginning, and so many frames are one. No bead sounds
 * twice by it and none is left out: what has come late sounds now.
 */
export function leadGroove(engine: EngineState, beat: number, framesPerBeat: number): void {
  const { groove } = engine
  if (groove.isPlaying === 0 || !(framesPerBeat > 0)) return
  groove.isLed = 1
  groove.framesPerBeat = framesPerBeat
  groove.anchorBeat = beat - groove.passedBeats
  groove.anchorFrame = engine.frame
  settleAll(engine)
}

/** The frames of the next beads anew, from the beats on which they lie. */
function settleAll(engine: EngineState): void {
  const { groove, memory } = engine
  const { arena } = memory
  if (groove.program === 0 || arena[groove.program + GrooveHead.sectionCount] === 0) return
  const beats = sectionBeats(engine, groove.section)
  groove.endFrame = beats > 0 ? frameOf(engine, beats) : NEVER
  for (let string = 0; string < arena[sectionRow(engine) + SectionField.stringCount]; string++)
    settleNext(engine, string, stringRow(engine, string))
  settleEarliest(engine)
}

/** It stops, and what it holds is let go. */
export function stopGroove(engine: EngineState): void {
  engine.groove.isPlaying = engine.groove.isLed = 0
  releaseKey(engine, GROOVE_KEY)
}

/** The groove was edited: it goes on from the beat on which it is. */
export function takeGroove(engine: EngineState): void {
  const { groove } = engine
  const beat = beatAt(engine, engine.frame)
  const framesBefore = groove.framesPerBeat
  const hash = groove.program === 0 ? -1 : engine.memory.arena[sectionRow(engine) + SectionField.grooveHash]
  takeProgram(engine)
  if (groove.isPlaying === 0) return
  groove.section = sectionOf(engine, hash)
  if (groove.framesPerBeat !== framesBefore) {
    groove.anchorBeat = beat
    groove.anchorFrame = engine.frame
  }
  findNext(engine)
}

function takeProgram(engine: EngineState): void {
  const { groove, memory, playing } = engine
  const { arena } = memory
  groove.programSlot = playing[GROOVE_ENTRY]
  groove.program = programOf(engine, GROOVE_ENTRY)
  groove.rows.fill(0)
  if (groove.program === 0) return
  if (groove.isLed === 0) groove.framesPerBeat = arena[groove.program + GrooveHead.framesPerBeat]
  beginLanes(engine)
  for (let section = 0; section < arena[groove.program + GrooveHead.sectionCount]; section++)
    for (let string = 0; string < arena[sectionRow(engine, section) + SectionField.stringCount]; string++) {
      const row = stringRow(engine, string, section)
      for (let bead = 0; bead < arena[row + StringField.beadCount]; bead++)
        groove.rows[arena[beadRow(engine, row, bead) + BeadField.slot]] = beadRow(engine, row, bead)
    }
}

/** The section of a groove, the one that is played where it is among them, the first one otherwise. */
function sectionOf(engine: EngineState, hash: number): number {
  const { groove, memory } = engine
  const count = groove.program === 0 ? 0 : memory.arena[groove.program + GrooveHead.sectionCount]
  if (groove.section < count && memory.arena[sectionRow(engine) + SectionField.grooveHash] === hash) return groove.section
  for (let i = 0; i < count; i++) if (memory.arena[sectionRow(engine, i) + SectionField.grooveHash] === hash) return i
  return 0
}

function stringRow(engine: EngineState, string: number, section = engine.groove.section): number {
  const { groove, memory } = engine
  return groove.program + memory.arena[sectionRow(engine, section) + SectionField.strings] + string * StringField.length
}

function beadRow({ groove, memory }: EngineState, string: number, bead: number): number {
  return groove.program + memory.arena[string + StringField.beads] + bead * BeadField.length
}

/** The beat of the section on a frame. */
export function beatAt({ groove }: EngineState, frame: number): number {
  return groove.anchorBeat + (frame - groove.anchorFrame) / groove.framesPerBeat
}

function frameOf({ groove }: EngineState, beat: number): number {
  return Math.floor(groove.anchorFrame + (beat - groove.anchorBeat) * groove.framesPerBeat + 0.5)
}

/** A section is on a beat at a frame, which may lie between two. */
function beginSection(engine: EngineState, section: number, atFrame: number, beat = 0): void {
  const { groove } = engine
  groove.section = section
  groove.anchorFrame = atFrame
  groove.anchorBeat = beat
  findNext(engine)
}

/** The next bead of each string, on this frame or later. */
function findNext(engine: EngineState): void {
  const { groove, memory } = engine
  const { arena } = memory
  groove.next = groove.endFrame = NEVER
  if (groove.program === 0 || arena[groove.program + GrooveHead.sectionCount] === 0) return
  const section = sectionRow(engine)
  const laps = arena[section + SectionField.laps]
  if (laps > 0) groove.endFrame = frameOf(engine, laps * arena[section + SectionField.lengthBeats])
  for (let string = 0; string < arena[section + SectionField.stringCount]; string++) {
    const row = stringRow(engine, string)
    groove.lap[string] = Math.floor(beatAt(engine, engine.frame) / arena[row + StringField.lengthBeats]) - 1
    groove.bead[string] = 0
    settleNext(engine, string, row)
    // What lies before the very first beat sounds on it, and what was before this frame has sounded.
    while (groove.nextFrame[string] < engine.frame && !isBeforeStart(engine, string, row)) step(engine, string, row)
  }
  settleEarliest(engine)
}

/** Whether the next bead of a string belongs to the first lap and lies before it, while that lap is only about to begin. */
function isBeforeStart(engine: EngineState, string: number, row: number): boolean {
  const { groove, memory } = engine
  if (groove.lap[string] !== -1 || beatAt(engine, engine.frame) * groove.framesPerBeat > 1) return false
  return memory.arena[beadRow(engine, row, groove.bead[string]) + BeadField.lapShift] === 1
}

function step(engine: EngineState, string: number, row: number): void {
  const { groove, memory } = engine
  if (++groove.bead[string] >= memory.arena[row + StringField.beadCount]) {
    groove.bead[string] = 0
    groove.lap[string]++
  }
  settleNext(engine, string, row)
}

function settleNext(engine: EngineState, string: number, row: number): void {
  const { groove, memory } = engine
  const { arena } = memory
  if (arena[row + StringField.beadCount] === 0) {
    groove.nextFrame[string] = NEVER
    return
  }
  const beat = groove.lap[string] * arena[row + StringField.lengthBeats] + arena[beadRow(engine, row, groove.bead[string]) + BeadField.beat]
  groove.nextFrame[string] = frameOf(engine, beat)
}

function settleEarliest(engine: EngineState): void {
  const { groove, memory } = engine
  groove.next = groove.endFrame
  const strings = memory.arena[sectionRow(engine) + SectionField.stringCount]
  for (let string = 0; string < strings; string++) groove.next = Math.min(groove.next, groove.nextFrame[string])
}

/** The frame on which the groove next does something; `NEVER` where it does nothing. */
export function nextGrooveFrame({ groove }: EngineState): number {
  return groove.isPlaying === 0 ? NEVER : groove.next
}

/** Plays what is due: beads of the section, and the section after it when it is over. */
export function runGroove(engine: EngineState): void {
  const { groove, memory } = engine
  const { arena } = memory
  while (groove.isPlaying !== 0 && groove.next <= engine.frame) {
    if (groove.endFrame <= engine.frame) {
      const section = sectionRow(engine)
      const beats = arena[section + SectionField.laps] * arena[section + SectionField.lengthBeats]
      const after = (groove.section + 1) % arena[groove.program + GrooveHead.sectionCount]
      groove.passedBeats += beats
      beginSection(engine, after, groove.anchorFrame + (beats - groove.anchorBeat) * groove.framesPerBeat)
      continue
    }
    const strings = arena[sectionRow(engine) + SectionField.stringCount]
    for (let string = 0; string < strings; string++) {
      const row = stringRow(engine, string)
      while (groove.nextFrame[string] <= engine.frame) {
        reachBead(engine, row, beadRow(engine, row, groove.bead[string]), groove.lap[string])
        step(engine, string, row)
      }
    }
    settleEarliest(engine)
  }
}

/** The time of a bead has come: it sounds if its laps, the other beads it looks at and its chance let it. */
function reachBead(engine: EngineState, string: number, bead: number, stringLap: number): void {
  const { memory, groove } = engine
  const { arena } = memory
  const lap = stringLap + arena[bead + BeadField.lapShift]
  if (lap < 0) return
  const slot = arena[bead + BeadField.slot]
  const occasion = groove.occasions[slot]++
  const draw = chance(engine.seed, arena[bead + BeadField.hash] | 0, occasion, Purpose.bead)
  const sounds = isInLap(arena, bead, lap) && othersLet(engine, bead) && draw < arena[bead + BeadField.chance]
  groove.sounded[slot] = sounds ? 1 : 0
  if (!sounds) return
  const count = arena[bead + BeadField.repeatCount]
  for (let i = 1; i < count; i++) addRepeat(engine, string, bead, i, count)
  putBead(engine, string, bead, arena[bead + BeadField.velocity], engine.frame)
  strikeRow(engine, bead)
}

/** Laps are told by bits of two words: the first lap by the lowest of the first. */
function isInLap(arena: Float64Array, bead: number, lap: number): boolean {
  const of = arena[bead + BeadField.lapsOf]
  if (of === 0) return true
  const place = lap % of
  const word = arena[bead + (place < 32 ? BeadField.lapsLow : BeadField.lapsHigh)]
  return ((word >>> (place & 31)) & 1) === 1
}

function othersLet({ memory, groove }: EngineState, bead: number): boolean {
  const { arena } = memory
  const after = arena[bead + BeadField.after]
  const unless = arena[bead + BeadField.unless]
  return (after < 0 || groove.sounded[after] === 1) && (unless < 0 || groove.sounded[unless] === 0)
}

/** Lays a strike of a bead out in `engine.made`. */
function putBead(engine: EngineState, string: number, bead: number, velocity: number, frame: number): void {
  const { made, memory } = engine
  made.fill(0)
  made[EventField.frame] = made[EventField.inputFrame] = frame
  made[EventField.type] = EventType.bead
  made[EventField.padSlot] = memory.arena[string + StringField.padSlot]
  made[EventField.velocity] = velocity
  made[EventField.note] = -1
  made[EventField.key] = GROOVE_KEY
  made[EventField.bead] = memory.arena[bead + BeadField.slot]
}

/** A repeat: as far into the bead's time as its place says, drawn together or apart, rising or falling. */
function addRepeat(engine: EngineState, string: number, bead: number, place: number, count: number): void {
  const { arena } = engine.memory
  const share = bent(0, 1, place / count, arena[bead + BeadField.draw])
  const grown = arena[bead + BeadField.velocity] * (1 + (arena[bead + BeadField.rise] * place) / (count - 1))
  const velocity = Math.min(127, Math.max(1, Math.floor(grown + 0.5)))
  const frames = Math.floor(share * arena[bead + BeadField.repeatBeats] * engine.groove.framesPerBeat + 0.5)
  putBead(engine, string, bead, velocity, engine.frame + frames)
  addEvent(engine, engine.made, 0)
}

/** A repeat's time has come; a bead that was taken away meanwhile is silent. */
export function repeatBead(engine: EngineState, event: Float64Array): void {
  const row = engine.groove.rows[event[EventField.bead]]
  if (engine.groove.isPlaying === 0 || row === 0) return
  engine.made.set(event)
  strikeRow(engine, row)
}

function strikeRow(engine: EngineState, bead: number): void {
  engine.now.bead = bead
  engine.now.beadProgram = engine.groove.programSlot
  strikeBead(engine, engine.made, 0)
}

/** Says where the groove is, for the page. */
export function tellGroove(engine: EngineState): void {
  const { status } = engine.memory
  status[StatusField.grooveBeat] = engine.groove.isPlaying === 0 ? -1 : beatAt(engine, engine.frame)
  status[StatusField.grooveSection] = engine.groove.section
  status[StatusField.songBeat] = engine.groove.isPlaying === 0 ? -1 : engine.groove.passedBeats + beatAt(engine, engine.frame)
}
