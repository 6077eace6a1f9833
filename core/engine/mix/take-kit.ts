import { addEvent } from '../events'
import { isTableLocked, sayDone } from '../memory/memory'
import { controlNumbers, EventType, faderCodes, TILLERS } from '../program/codes'
import {
  BusField,
  DoneField,
  EventField,
  GROOVE_ENTRY,
  KIT_ENTRY,
  KitHead,
  MASTER,
  MAX_BUSES,
  MAX_PADS,
  MOST_SENDS,
  SendField,
} from '../program/layout'
import { takeGroove } from '../groove/play'
import { programOf } from '../state'
import type { EngineState } from '../state'
import { followEdits, followPlaces } from '../voice/follow'
import { takeInserts } from './chains'
import { beginLiveBuses, beginMoved } from './live-buses'

/** From now on plays what lies in memory: new programs of pads, of the kit, of the groove. What sounds follows what was edited. */
export function takeKit(engine: EngineState, number: number): void {
  const { playing, memory } = engine
  if (isTableLocked(memory)) return takeLater(engine, number)
  const kitBefore = playing[KIT_ENTRY]
  const grooveBefore = playing[GROOVE_ENTRY]
  let changed = false
  for (let entry = 0; entry < playing.length; entry++) {
    const wanted = Atomics.load(memory.programTable, entry)
    if (entry < MAX_PADS && wanted !== playing[entry]) changed = true
    playing[entry] = wanted
  }
  if (playing[KIT_ENTRY] !== kitBefore) beginKit(engine, kitBefore)
  if (playing[GROOVE_ENTRY] !== grooveBefore) takeGroove(engine)
  if (changed) followEdits(engine)
  sayDone(memory, DoneField.kit, number)
}

/** The page is writing the table: it is looked at again a frame later. */
function takeLater(engine: EngineState, number: number): void {
  const { made } = engine
  made.fill(0)
  made[EventField.frame] = engine.frame + 1
  made[EventField.type] = EventType.kit
  made[EventField.note] = number
  addEvent(engine, made, 0)
}

function beginKit(engine: EngineState, before: number): void {
  const { memory, mix, controls } = engine
  const { arena } = memory
  const kit = programOf(engine, KIT_ENTRY)
  engine.kit = kit
  if (kit === 0) return
  engine.seed = arena[kit + KitHead.seed] | 0
  mix.gainTarget[MASTER] = arena[kit + KitHead.gain]
  for (let i = 0; i < TILLERS; i++) controls[controlNumbers.tiller + i] = arena[kit + arena[kit + KitHead.tillers] + i]
  const known = engine.deck.scratch
  known.fill(0, 0, MAX_BUSES)
  for (let i = 0; i < arena[kit + KitHead.busCount]; i++) {
    const row = busRow(engine, i)
    const slot = arena[row + BusField.slot]
    known[slot] = 1
    mix.gainTarget[slot] = arena[row + BusField.gain]
    mix.pan[slot] = arena[row + BusField.pan]
    for (let send = 0; send < arena[row + BusField.sendCount]; send++)
      mix.sendTarget[slot * MOST_SENDS + send] = arena[kit + arena[row + BusField.sends] + send * SendField.length + SendField.gain]
  }
  mix.movedPan.fill(0)
  beginMoved(engine)
  settlePlaces(engine)
  takeInserts(engine, before, known)
  for (let slot = 0; slot < MAX_BUSES; slot++) if (slot === MASTER || known[slot] !== 0) beginBus(engine, slot)
  const { voices } = engine
  for (let voice = 0; voice < engine.voiceTop; voice++) if (known[voices.bus[voice]] === 0) voices.bus[voice] = MASTER
  for (let slot = 1; slot < MAX_BUSES; slot++) mix.isKnown[slot] = known[slot]
  mix.isKnown[MASTER] = 1
  beginLiveBuses(engine)
  followPlaces(engine)
}

/** A bus that was not there begins with its faders where they stand. */
function beginBus({ mix }: EngineState, slot: number): void {
  if (mix.isKnown[slot] !== 0) return
  mix.gain[slot] = mix.gainTarget[slot]
  mix.balance[slot] = mix.wayPan[slot]
  for (let send = slot * MOST_SENDS; send < (slot + 1) * MOST_SENDS; send++) mix.sendGain[send] = mix.sendTarget[send]
}

/** Where the row of a bus is, by its place in the order of sums. */
export function busRow({ kit, memory }: EngineState, place: number): number {
  return kit + memory.arena[kit + KitHead.buses] + place * BusField.length
}

/** The places on each bus's way add up; rows run from the first to the last on a way, so they are gone through backwards. */
export function settlePlaces(engine: EngineState): void {
  const { memory, mix, kit } = engine
  const { arena } = memory
  for (let i = arena[kit + KitHead.busCount] - 1; i >= 0; i--) {
    const row = busRow(engine, i)
    const out = arena[row + BusField.out]
    const slot = arena[row + BusField.slot]
    mix.wayPan[slot] = mix.pan[slot] + mix.movedPan[slot] + (out === MASTER ? 0 : mix.wayPan[out])
  }
}

/** A fader is moved: of the master, of a bus, or (from `send` on) one of a bus's sends. */
export function moveFader(engine: EngineState, slot: number, fader: number, value: number): void {
  const { mix } = engine
  if (!(slot >= 0 && slot < MAX_BUSES) || !(fader >= 0 && fader < faderCodes.send + MOST_SENDS)) return
  if (fader === faderCodes.gain) mix.gainTarget[slot] = value
  else if (fader !== faderCodes.pan) mix.sendTarget[slot * MOST_SENDS + fader - faderCodes.send] = value
  else {
    mix.pan[slot] = value
    settlePlaces(engine)
    followPlaces(engine)
  }
}
