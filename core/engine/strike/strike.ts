import { lawCodes, modeCodes, onCodes } from '../program/codes'
import { BandField, BeadField, ClipField, Head, LogField, MAX_PADS, MAX_RAYS, RayField, TurnField } from '../program/layout'
import { programOf } from '../state'
import { NEVER } from '../time'
import type { EngineState } from '../state'
import { forcedBand, forcedTurn } from './forced'
import { blendAbove, pickBand, pickTurn } from './pick'
import { beginRecord, endRecord, recordRay } from './record'
import { rememberStrike } from './latest'
import { gatherOffsets } from './responses'
import { startVoice } from './start-voice'
import { choke, endFirst, makeRoom, makeVoices, stopPad } from './stops'

/** Stands for all rays of a pad that share its bands. */
const SHARED = -1

/** Sounds the pad of `engine.now` at the engine's current frame. Everything is decided here, once, and then only rendered. */
export function strike(engine: EngineState): void {
  const { now } = engine
  const { padSlot } = now
  now.programSlot = engine.playing[padSlot]
  now.program = programOf(engine, padSlot)
  now.padStrike = engine.padCount[padSlot]++
  beginRecord(engine)
  if (now.program !== 0) decide(engine)
  endRecord(engine)
}

/** What sounds by the strike of `engine.now`, and what stops. */
function decide(engine: EngineState): void {
  const { memory, now } = engine
  const { arena } = memory
  const { padSlot, program } = now
  countTurn(engine)
  now.sinceLast = engine.lastFrame[padSlot] === NEVER ? -1 : engine.frame - engine.lastFrame[padSlot]
  engine.lastFrame[padSlot] = engine.lastFrame[now.turnsSlot] = engine.frame
  now.lastNote = engine.lastNote[padSlot]
  if (now.note >= 0) engine.lastNote[padSlot] = now.note
  now.turns = 0
  choke(engine, program, onCodes.strike)
  const mode = arena[program + Head.mode]
  if (mode === modeCodes.silencer) return
  if (mode === modeCodes.loopUntilStruckAgain && stopPad(engine, padSlot)) return
  makeRoom(engine)
  makeVoices(engine, 2 * arena[program + Head.rayCount])
  now.slot = takeStrike(engine)
  soundBands(engine, program + arena[program + Head.bands], SHARED)
  for (let ray = 0; ray < arena[program + Head.rayCount]; ray++) {
    const at = rayAt(engine, ray)
    if (arena[at + RayField.bandCount] >= 0) soundBands(engine, program + arena[at + RayField.bands], ray)
  }
  rememberStrike(engine)
  if (engine.strikes.voices[now.slot] === 0) engine.strikes.active[now.slot] = 0
}

/** Counts the strike for the turns that it goes by: those of its pad, or of the pad from which it borrows, as one row of strikes. */
function countTurn(engine: EngineState): void {
  const { memory, now } = engine
  const { arena } = memory
  const slot = arena[now.program + Head.turnsOf]
  now.turnsSlot = slot
  now.turnStrike = slot === now.padSlot ? now.padStrike : engine.padCount[slot]++
  const again = arena[now.program + Head.againFrames]
  if (again >= 0 && engine.frame - engine.lastFrame[slot] > again) countAnew(engine, slot, now.turnStrike)
}

function rayAt({ memory, now }: EngineState, ray: number): number {
  return now.program + memory.arena[now.program + Head.rays] + ray * RayField.length
}

/** Turns of a pad begin anew with the strike of this number. */
function countAnew(engine: EngineState, padSlot: number, padStrike: number): void {
  engine.countFrom[padSlot] = padStrike
  engine.bandCount.fill(0, padSlot * 128, padSlot * 128 + 128)
}

/** A groove begins: the turns that go by it begin anew. */
export function countAtGroove(engine: EngineState): void {
  for (let padSlot = 0; padSlot < MAX_PADS; padSlot++) {
    const program = programOf(engine, padSlot)
    if (program !== 0 && engine.memory.arena[program + Head.againAtGroove] === 1) countAnew(engine, padSlot, engine.padCount[padSlot])
  }
}

/** Sounds the cell of one list of bands, or the two cells where bands blend: of one ray, or of all that share them. */
function soundBands(engine: EngineState, bands: number, onlyRay: number): void {
  const { now } = engine
  const { arena, log } = engine.memory
  const isShared = onlyRay === SHARED
  now.bands = bands
  now.onlyRay = onlyRay
  now.pick = arena[isShared ? now.program + Head.pick : rayAt(engine, onlyRay) + RayField.pick]
  const count = arena[isShared ? now.program + Head.bandCount : rayAt(engine, onlyRay) + RayField.bandCount]
  const forced = isShared ? forcedBand(engine, count) : -1
  const band = forced >= 0 ? forced : pickBand(engine, count)
  if (band < 0) return
  const above = forced >= 0 ? 0 : blendAbove(engine, band, count)
  const power = above > 0 && arena[bands + (band + 1) * BandField.length + BandField.blendLaw] === lawCodes.power
  now.share = above > 0 ? (power ? Math.sqrt(1 - above) : 1 - above) : 1
  const turn = soundCell(engine, band)
  if (isShared) {
    log[now.record + LogField.band] = band
    log[now.record + LogField.turn] = turn
  }
  if (above > 0) {
    now.share = power ? Math.sqrt(above) : above
    const aboveTurn = soundCell(engine, band + 1)
    if (isShared) {
      log[now.record + LogField.aboveBand] = band + 1
      log[now.record + LogField.aboveTurn] = aboveTurn
    }
  }
  log[now.record + LogField.rays] = engine.strikes.voices[now.slot]
}

/** Sounds the cell of a band at a share of its level, and gives its turn; -1 where the band has none. */
function soundCell(engine: EngineState, bandIndex: number): number {
  const { now, memory } = engine
  const { arena } = memory
  const band = now.bands + bandIndex * BandField.length
  const turn = turnOf(engine, bandIndex)
  if (turn < 0) return -1
  now.bandHash = arena[band + BandField.hash]
  now.turn = turn
  now.turns = arena[band + BandField.turnCount]
  now.share = now.share * arena[band + BandField.gain] * now.gain
  const turns = now.program + arena[band + BandField.turns]
  const clips = now.program + arena[turns + turn * TurnField.length + TurnField.clips]
  for (let ray = 0; ray < arena[now.program + Head.rayCount]; ray++) soundRay(engine, ray, clips + ray * ClipField.length)
  return turn
}

/** Sounds one ray of a cell with its clip, or with that of the bead that struck. */
function soundRay(engine: EngineState, ray: number, cellClip: number): void {
  const { now, memory } = engine
  const { arena } = memory
  const at = rayAt(engine, ray)
  const isShared = now.onlyRay === SHARED
  if (isShared ? arena[at + RayField.bandCount] >= 0 : ray !== now.onlyRay) return
  const own = isShared && now.bead !== 0 ? arena[now.bead + BeadField.clip] : -1
  if (own >= 0 && ray > 0) return // a bead's own clip stands for the whole cell, and the first ray plays it
  const clip = own >= 0 ? memory.directory[now.beadProgram] + own : cellClip
  if (arena[clip + ClipField.chunk] < 0 || arena[at + RayField.mute] !== 0) return
  gatherOffsets(engine, ray)
  const voice = startVoice(engine, at, clip)
  if (voice < 0) return
  engine.voices.meter[voice] = now.padSlot * MAX_RAYS + ray
  recordRay(engine, ray)
}

/** The turn of a band for this strike, by the counter that its pad goes by; strikes of shared bands are counted. */
function turnOf(engine: EngineState, bandIndex: number): number {
  const { now } = engine
  const counter = now.turnsSlot * 128 + bandIndex
  const strike = now.turnStrike - engine.countFrom[now.turnsSlot]
  if (now.onlyRay !== SHARED) return pickTurn(engine, bandIndex, strike)
  const bandStrike = engine.bandCount[counter]++
  const forced = forcedTurn(engine, now.bands + bandIndex * BandField.length)
  if (forced >= 0) return forced
  const isPerBand = engine.memory.arena[now.program + Head.counter] === 1
  return pickTurn(engine, bandIndex, isPerBand ? bandStrike : strike)
}

/** A place among the strikes that sound; where all are taken the first that is to go makes room. */
function takeStrike(engine: EngineState): number {
  const { strikes: s, now } = engine
  for (let slot = 0; ; slot++) {
    if (slot === s.active.length) {
      endFirst(engine)
      slot = 0
    }
    if (s.active[slot] !== 0) continue
    s.active[slot] = 1
    s.padSlot[slot] = now.padSlot
    s.struckSlot[slot] = now.struckSlot
    s.voices[slot] = 0
    s.velocity[slot] = now.velocity
    s.released[slot] = 0
    s.stopping[slot] = 0
    s.group[slot] = engine.memory.arena[now.program + Head.group]
    s.limit[slot] = engine.memory.arena[now.program + Head.limit]
    s.startFrame[slot] = engine.frame
    s.key[slot] = now.key
    s.order[slot] = engine.strikeOrder++
    return slot
  }
}
