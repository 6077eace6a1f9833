import { liveParameters } from '../program/codes'
import { BEND_CODE, Head, ParamCode, PARAMS, RayField } from '../program/layout'
import { programOf } from '../state'
import type { EngineState } from '../state'
import { followSends } from './sends'
import { followSlices } from './slices'

/** Codes of the parameters that follow while a strike sounds, and of the bend. */
export const LIVE_CODES = Int32Array.from([...liveParameters.map((name) => ParamCode[name]), BEND_CODE])

/** After programs were switched: what sounds goes on from where it is to where its pad and ray stand now. */
export function followEdits(engine: EngineState): void {
  const { voices: v, strikes, playing } = engine
  for (let voice = 0; voice < engine.voiceTop; voice++) {
    if (v.active[voice] === 0) continue
    const padSlot = strikes.padSlot[v.strike[voice]]
    const isAnother = playing[padSlot] !== 0 && playing[padSlot] !== v.program[voice]
    followSlices(engine, voice, isAnother ? programOf(engine, padSlot) : 0)
    if (isAnother) followRay(engine, voice, programOf(engine, padSlot))
  }
}

function followRay(engine: EngineState, voice: number, program: number): void {
  const { voices: v, memory } = engine
  const { arena } = memory
  const ray = rayOf(arena, program, arena[v.ray[voice] + RayField.hash])
  if (ray === 0) return
  // A turn that has a shape of its own moves as its ray does.
  const old = memory.directory[v.program[voice]]
  const before = old + arena[rayOf(arena, old, arena[v.ray[voice] + RayField.hash]) + RayField.values]
  const now = program + arena[ray + RayField.values]
  for (let i = 0; i < LIVE_CODES.length; i++) {
    const change = arena[now + LIVE_CODES[i]] - arena[before + LIVE_CODES[i]]
    if (change === v.edited[voice * PARAMS + LIVE_CODES[i]]) continue
    v.edited[voice * PARAMS + LIVE_CODES[i]] = change
    v.isLive[voice] = 1
  }
  followSends(engine, voice, program, ray)
}

/** Where the ray of a hash is in a program; 0 where it has none. */
function rayOf(arena: Float64Array, program: number, hash: number): number {
  for (let ray = 0; ray < arena[program + Head.rayCount]; ray++) {
    const at = program + arena[program + Head.rays] + ray * RayField.length
    if (arena[at + RayField.hash] === hash) return at
  }
  return 0
}

/** After the place of a bus was moved: what goes into it follows. */
export function followPlaces({ voices: v, voiceTop, mix }: EngineState): void {
  for (let voice = 0; voice < voiceTop; voice++)
    if (v.active[voice] !== 0 && mix.wayPan[v.bus[voice]] !== v.busPan[voice]) v.isLive[voice] = 1
}
