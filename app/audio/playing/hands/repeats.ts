import { nextStepFrame, repeatFrames, velocityThrough } from '@heliaster/core/hands'
import type { Repeating } from '@heliaster/core/hands'
import type { PadId } from '@heliaster/core/kit'

import { kitNow, releasePad, sound, strikePad } from '../../engine/sound'
import { FINGERS, handSettings, settingsOfInput } from './hand-settings'

/** Repeats are sent so far ahead, s, and looked for so often, ms. */
const AHEAD_SECONDS = 0.06
const LOOK_MS = 20
const FIRST_KEY = 930

interface Going {
  readonly padId: PadId
  readonly key: number
  readonly repeating: Repeating
  readonly timer: ReturnType<typeof setInterval>
  sentFrame: number
  /** How hard the next one strikes, 1..127, as it came. */
  came: number
}

const going = new Map<number, Going>()

/** Lets a pad go on being struck in the kit's tempo while a finger is held; in step with a groove that plays. */
export function beginRepeats(finger: number, padId: PadId, came: number): void {
  const { player } = sound.getState()
  const kit = kitNow()
  if (!player || !kit || going.has(finger)) return
  const { repeatsPerBeat } = handSettings.getState()
  const how = { tempoBpm: kit.tempoBpm, repeatsPerBeat, sampleRateHz: player.sampleRateHz }
  const now = player.frameNow()
  const beat = player.grooveBeat()
  const step = (60 * how.sampleRateHz) / (how.tempoBpm * repeatsPerBeat)
  const fromFrame = beat >= 0 ? nextStepFrame(now, beat, how) - step : now
  const timer = setInterval(() => sendDue(finger), LOOK_MS)
  going.set(finger, { padId, key: FIRST_KEY + finger, repeating: { ...how, fromFrame }, timer, sentFrame: now, came })
  sendDue(finger)
}

/** The ring that the finger is on now says how hard the next one strikes. */
export function leadRepeats(finger: number, came: number): void {
  const one = going.get(finger)
  if (one) one.came = came
}

export const isRepeating = (finger: number): boolean => going.has(finger)

export function endRepeats(finger: number): void {
  const one = going.get(finger)
  if (!one) return
  clearInterval(one.timer)
  going.delete(finger)
  releasePad(one.padId, one.key)
}

function sendDue(finger: number): void {
  const one = going.get(finger)
  const { player } = sound.getState()
  if (!one || !player) return
  const until = player.frameNow() + AHEAD_SECONDS * one.repeating.sampleRateHz
  const velocity = velocityThrough(settingsOfInput(FINGERS).curve, Math.min(127, Math.max(1, Math.round(one.came))))
  for (const frame of repeatFrames(one.repeating, one.sentFrame, until)) strikePad({ padId: one.padId, velocity, key: one.key, frame })
  one.sentFrame = Math.max(one.sentFrame, Math.floor(until))
}
