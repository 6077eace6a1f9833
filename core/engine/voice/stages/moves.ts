import { PARAMS } from '../../program/layout'
import type { EngineState } from '../../state'

/** Where in memory lies what moves a voice while it sounds, by parameter: see MovesField. */
export function movesOf({ voices: v }: EngineState, voice: number): number {
  return v.isLive[voice] !== 0 ? v.offset.byteOffset / 8 + voice * PARAMS : v.still.byteOffset / 8
}

/** How many frames of its run have passed at an absolute frame. */
export function passedIn({ voices: v }: EngineState, voice: number, start: number): number {
  return v.isLive[voice] !== 0 ? start - v.runStart[voice] : 0
}
