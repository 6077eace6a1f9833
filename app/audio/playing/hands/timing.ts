import type { PadId } from '@heliaster/core/kit'
import { createStore } from 'zustand/vanilla'

import { mixDelaySeconds } from '../../engine/mix-delay'
import { onSounded, sound } from '../../engine/sound'

/** How long the hand's strikes are under way, as far as they were measured. */
interface Timing {
  /** How far the last strikes differ from each other, from the hand to the first frame; nothing before there are two. */
  readonly spreadMs?: number
  readonly strikes: number
}

export const timing = createStore<Timing>(() => ({ strikes: 0 }))

const REMEMBERED = 24
const LOST_AFTER_MS = 1000
let waiting: { readonly padId: PadId; readonly atMs: number }[] = []
let delays: number[] = []

/** A hand has struck: how late it sounds is found out when it has. */
export function noteStrike(padId: PadId, atMs: number): void {
  const isKnown = (sound.getState().player?.clock.burstFrames() ?? 0) > 0
  if (!isKnown) return // the device is only waking up
  const now = performance.now()
  waiting = [...waiting.filter((one) => now - one.atMs < LOST_AFTER_MS), { padId, atMs }]
}

/** Measures strikes while someone looks. Returns the way to stop. */
export function measureTiming(): () => void {
  delays = []
  waiting = []
  timing.setState({ strikes: 0, spreadMs: undefined })
  return onSounded((sounded) => {
    const { player } = sound.getState()
    if (!player) return
    for (const { padId, frame } of sounded) {
      const at = waiting.findIndex((one) => one.padId === padId)
      if (at < 0) continue
      const [{ atMs }] = waiting.splice(at, 1)
      const line = player.clock.frameOf(atMs)
      if (line !== undefined) delays = [...delays, ((frame - line) * 1000) / player.sampleRateHz].slice(-REMEMBERED)
    }
    const spreadMs = delays.length > 1 ? Math.max(...delays) - Math.min(...delays) : undefined
    if (delays.length !== timing.getState().strikes || spreadMs !== timing.getState().spreadMs)
      timing.setState({ strikes: delays.length, spreadMs })
  })
}

/** What is added, ms: how much the device asks for at once, how long it takes from a rendered frame to the ear, and by how much the mix is later. */
export function deviceDelays(): { readonly burstMs: number; readonly outputMs: number; readonly mixMs: number } | undefined {
  const { player } = sound.getState()
  if (!player) return undefined
  const { outputLatency = 0, baseLatency = 0 } = player.context
  return {
    burstMs: (player.clock.burstFrames() * 1000) / player.sampleRateHz,
    outputMs: 1000 * (outputLatency || baseLatency),
    mixMs: 1000 * mixDelaySeconds(player.sampleRateHz),
  }
}
