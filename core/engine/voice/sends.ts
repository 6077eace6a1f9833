import { dbToGain } from '../math'
import { nearer, placeAt } from '../mix/mix-state'
import { MOST_SENDS, ParamCode, PARAMS, RayField, SendField } from '../program/layout'
import type { EngineState } from '../state'

function sendRow({ voices: v, memory }: EngineState, voice: number, send: number): number {
  const { arena } = memory
  return memory.directory[v.program[voice]] + arena[v.ray[voice] + RayField.sends] + send * SendField.length
}

/** A voice begins with its sends where they stand. One from before the fader leaves out what pad and ray raise it by. */
export function beginSends(engine: EngineState, voice: number): void {
  const { voices: v, memory } = engine
  const { arena } = memory
  for (let send = 0; send < arena[v.ray[voice] + RayField.sendCount]; send++) {
    const row = sendRow(engine, voice, send)
    const gain = arena[row + SendField.gain] * (arena[row + SendField.isPre] === 1 ? v.preGain[voice] : 1)
    v.sendGain[voice * MOST_SENDS + send] = v.sendTarget[voice * MOST_SENDS + send] = gain
  }
}

/** After an edit its sends near what the ray sends now, in `program` at `ray`; a send that is gone fades out. */
export function followSends(engine: EngineState, voice: number, program: number, ray: number): void {
  const { voices: v, memory } = engine
  const { arena } = memory
  // What an edit raises the level by is in the voice already; from before the fader it is taken away again.
  const unfaded = v.preGain[voice] * dbToGain(-v.edited[voice * PARAMS + ParamCode.gainDb])
  for (let send = 0; send < arena[v.ray[voice] + RayField.sendCount]; send++) {
    const at = voice * MOST_SENDS + send
    v.sendTarget[at] = 0
    for (let i = 0; i < arena[ray + RayField.sendCount]; i++) {
      const row = program + arena[ray + RayField.sends] + i * SendField.length
      if (arena[row + SendField.to] !== arena[sendRow(engine, voice, send) + SendField.to]) continue
      v.sendTarget[at] = arena[row + SendField.gain] * (arena[row + SendField.isPre] === 1 ? unfaded : 1)
    }
  }
}

/** What of a ray goes to other buses: at its own place, moved by theirs. */
export function addToSends(engine: EngineState, voice: number, at: number, count: number, stereo: boolean): void {
  const { memory, mix, voices: v, scratchLeft, gainsLeft, gainsRight } = engine
  const scratchRight = stereo ? engine.scratchRight : scratchLeft
  const moves = v.isLive[voice] !== 0
  for (let send = 0; send < memory.arena[v.ray[voice] + RayField.sendCount]; send++) {
    const to = memory.arena[sendRow(engine, voice, send) + SendField.to]
    if (mix.isKnown[to] === 0) continue
    const target = v.sendTarget[voice * MOST_SENDS + send]
    let gain = v.sendGain[voice * MOST_SENDS + send]
    let ofSlice = v.sliceSend[voice * MOST_SENDS + send]
    for (let i = 0; i < count; i++) {
      if (gain !== target) gain = nearer(gain, target, mix.step)
      const place = placeAt(mix, to, i + at)
      const amount = gain * ofSlice
      mix.left[to][at + i] += scratchLeft[i] * (moves ? gainsLeft[i] : v.gainLeft[voice]) * amount * Math.sqrt(1 - place)
      mix.right[to][at + i] += scratchRight[i] * (moves ? gainsRight[i] : v.gainRight[voice]) * amount * Math.sqrt(1 + place)
      ofSlice += v.sliceSendStep[voice * MOST_SENDS + send]
    }
    v.sendGain[voice * MOST_SENDS + send] = gain
    v.sliceSend[voice * MOST_SENDS + send] = ofSlice
    mix.fed[to] = 1
  }
}
