import { createClockFollower, pulsesBetween, readClock, writeClock } from '@heliaster/core/hands'
import type { ClockAct } from '@heliaster/core/hands'
import { z } from 'zod'
import { createStore } from 'zustand/vanilla'

import { deviceSettings } from '../../../ui/device/device-settings'
import { kitNow, sound } from '../../engine/sound'
import { mixDelaySeconds } from '../../engine/mix-delay'
import type { Player } from '../../engine/player'
import { grooveState, startGroove, stopGroove } from '../groove-player'

/** Whose clock the groove follows, and to whom it sends its own, by the names of inputs and outputs. */
export const clockSettings = deviceSettings(
  'heliaster-clock',
  z.object({ follows: z.string().max(200), sends: z.array(z.string().max(200)).max(32) }),
  { follows: '', sends: [] as string[] },
)

/** The tempo of the clock that is followed, once it is known; and whether it leads the groove now. */
export const clockState = createStore<{ readonly tempoBpm?: number; readonly leads: boolean }>(() => ({ leads: false }))

const USUAL_BPM = 120
const newFollower = () => createClockFollower(() => kitNow()?.tempoBpm ?? USUAL_BPM)
let follower = newFollower()

clockSettings.subscribe(({ follows }, before) => {
  if (follows === before.follows) return
  if (clockState.getState().leads) stopGroove()
  follower = newFollower()
  clockState.setState({ tempoBpm: undefined, leads: false })
})

/** Takes a message of a clock; returns whether it was one. Only that of the input which is followed acts. */
export function takeClock(input: string, bytes: Uint8Array, atMs: number): boolean {
  const message = readClock(bytes)
  if (!message) return false
  if (input !== clockSettings.getState().follows) return true
  const act = follower.take(message, atMs)
  if (act) follow(act)
  if (act && act.type !== 'stop') clockState.setState({ tempoBpm: follower.tempoBpm() ?? act.tempoBpm, leads: true })
  return true
}

function follow(act: ClockAct): void {
  const { player } = sound.getState()
  const kit = kitNow()
  if (!player || !kit) return
  if (act.type === 'stop') {
    stopGroove()
    return clockState.setState({ leads: false })
  }
  const frame = player.clock.frameOf(act.atMs) ?? player.frameNow()
  const framesPerBeat = (60 * player.sampleRateHz) / act.tempoBpm
  if (act.type === 'begin') startGroove(kit.id, act.beat, frame)
  else if (grooveState.getState().playing) player.leadGroove(act.beat, framesPerBeat, frame)
}

/** How a page reaches an output: bytes, and when they are to leave, in ms of the page's clock. */
export type SendTo = (output: string, bytes: readonly number[], atMs: number) => void

/** Pulses are sent so far ahead, and looked for so often. */
const AHEAD_MS = 100
const LOOK_MS = 25

/** When a frame of the engine is heard, in ms of the page's clock; nothing before the two clocks are known. */
function heardAtMs(player: Player, frame: number): number | undefined {
  const zero = player.clock.frameOf(0)
  if (zero === undefined) return undefined
  const latency = (player.context.outputLatency || player.context.baseLatency || 0) + mixDelaySeconds(player.sampleRateHz)
  return (frame - zero + player.clock.burstFrames()) / (player.sampleRateHz / 1000) + 1000 * latency
}

/** Sends the groove's clock to the outputs that are chosen while it plays. Returns the way to stop. */
export function connectClock(sendTo: SendTo): () => void {
  /** The beat up to which pulses were sent; nothing while none plays. */
  let sentBeat: number | undefined
  const send = (bytes: readonly number[], atMs: number) => {
    for (const output of clockSettings.getState().sends) sendTo(output, bytes, atMs)
  }
  const look = () => {
    const { player } = sound.getState()
    const beat = player && clockSettings.getState().sends.length > 0 ? player.songBeat() : -1
    if (!player || beat < 0) {
      if (sentBeat !== undefined) send(writeClock({ type: 'stop' }), performance.now())
      sentBeat = undefined
      return
    }
    player.seeClock()
    const frame = player.frameNow()
    const tempoBpm = clockState.getState().leads ? (clockState.getState().tempoBpm ?? USUAL_BPM) : (kitNow()?.tempoBpm ?? USUAL_BPM)
    const msOf = (wanted: number) => heardAtMs(player, frame + ((wanted - beat) * 60 * player.sampleRateHz) / tempoBpm)
    if (msOf(beat) === undefined) return
    if (sentBeat === undefined || beat < sentBeat - 1) sentBeat = begin(beat, msOf, send)
    const until = beat + (AHEAD_MS / 60_000) * tempoBpm
    for (const pulse of pulsesBetween(sentBeat, until)) send(writeClock({ type: 'pulse' }), msOf(pulse)!)
    sentBeat = Math.max(sentBeat, until)
  }
  const timer = setInterval(look, LOOK_MS)
  return () => {
    clearInterval(timer)
    if (sentBeat !== undefined) send(writeClock({ type: 'stop' }), performance.now())
    sentBeat = undefined
  }
}

/** One that has begun less than this ago, in beats, is sent from its beginning: what is late of it comes at once. */
const JUST_BEGUN = 0.5

/** Says that it begins: from the beginning, or from the next position, so that the first pulse is that beat. Returns the beat before that pulse. */
function begin(beat: number, msOf: (beat: number) => number | undefined, send: (bytes: readonly number[], atMs: number) => void): number {
  if (beat < JUST_BEGUN) {
    send(writeClock({ type: 'start' }), msOf(0)!)
    return -1e-6
  }
  const position = Math.ceil(beat * 4 + 0.5) / 4
  send(writeClock({ type: 'position', beat: position }), performance.now())
  send(writeClock({ type: 'continue' }), msOf(position)! - 1)
  return position - 1e-6
}
