// Renders minutes of everything at once with the built engine and says where they begin and end; its parent counts collections.
import { createBus } from '../core/kit/make'
import { responseTo } from '../core/kit/responses'
import { busyPerformance } from '../core/engine/testing/busy-performance'
import type { Kit } from '@heliaster/core/kit'
import { loadEngine } from './engine-file'

const RATE = 48000
const BLOCK = 128
const minutes = Number(process.argv[2])
const moves = process.argv[3] === 'moving'

/** The busy minute; and with a groove, buses, and a wheel, a bend and an oscillator that move every strike. */
function performance() {
  const { kit, audio, events } = busyPerformance(60, RATE)
  const buses = [
    { ...createBus('room' as never, 'Room'), isReturn: true },
    { ...createBus('all' as never, 'All'), sends: [{ busId: 'room' as never, values: { gainDb: -12 }, tap: 'post' as const }] },
  ]
  const sway = { ...responseTo('oscillator', 'pan', 0.5), from: { kind: 'oscillator' as const, id: 'sway' } }
  const pads = kit.pads.map((pad) => ({
    ...pad,
    own: { ...pad.own, bus: buses[1].id, responses: [...(pad.own.responses ?? []), responseTo('wheel', 'gainDb', -12), responseTo('bend', 'tuneCents', 300), sway] },
  })) // prettier-ignore
  const beads = (place: number) => Array.from({ length: 8 }, (_, i) => ({ id: `${place}.${i}` as never, step: 2 * i, velocity: 40 + i, chance: 0.7, repeats: { count: 2 } })) // prettier-ignore
  const groove = { id: 'groove' as never, name: '', lengthSteps: 16, stepsPerBeat: 4, swing: 0.6, strings: pads.map(({ id }, i) => ({ padId: id, beads: beads(i) })) } // prettier-ignore
  const oscillators = [{ id: 'sway', name: '', wave: 'sine' as const, rate: { unit: 'Hz' as const, value: 3 }, runs: 'always' as const, phase: 0 }] // prettier-ignore
  const moving: Kit = { ...kit, pads, buses, grooves: [groove], oscillators }
  return { kit: moves ? moving : kit, audio, events }
}

const engine = await loadEngine()
const { kit, audio, events } = performance()
const { engine: state, loader } = engine.createOffline(kit, RATE, (hash) => audio.get(hash))
const controls = Array.from({ length: 2000 }, (_, i) => ({
  frame: 1400 * i,
  type: engine.EventType.controller,
  padSlot: 0,
  note: i % 2 === 0 ? engine.controlNumbers.wheel : engine.controlNumbers.bend,
  velocity: i % 2 === 0 ? i % 128 : (i % 100) / 100,
}))
const score = engine.toScore([...events.map((event) => ({ ...event, padSlot: loader.slotOf(event.padId) })), ...(moves ? controls : [])])
if (moves) engine.act(state, engine.toScore([{ frame: 0, type: engine.EventType.groove, padSlot: 0 }]))
const left = new Float32Array(BLOCK)
const right = new Float32Array(BLOCK)
const shifted = new Float64Array(score.length)

function minute(): void {
  const from = state.frame
  for (let i = 0; i < score.length; i++) shifted[i] = i % engine.EventField.length === 0 ? score[i] + from : score[i]
  state.score = shifted
  state.scoreCursor = 0
  for (let block = 0; block < (60 * RATE) / BLOCK; block++) engine.render(state, left, right, 0, BLOCK)
}

for (let i = 0; i < 2; i++) minute() // until everything is compiled
console.log('BEGIN')
for (let i = 0; i < minutes; i++) minute()
console.log('END')
