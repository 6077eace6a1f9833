import type { Audio } from '../audio/audio'
import { joined, soundingFrames } from '../audio/join'
import { createOffline, EventType, renderOffline, toScore } from '../engine'
import type { AudioHash, Kit, PadId } from '../kit'

export interface ToDraw {
  readonly kit: Kit
  readonly padId: PadId
  readonly velocity: number
  readonly note?: number
  /** How many, 1 to 999. */
  readonly count: number
  readonly sampleRateHz: number
  audioOf(hash: AudioHash): Audio | undefined
}

const LONGEST_SECONDS = 60

/**
 * One strike as its pad would play it so many times, each from silence until it has died away: turns go on and chance draws anew
 * from one to the next, as under a hand.
 */
export function renderDraws({ kit, padId, velocity, note, count, sampleRateHz, audioOf }: ToDraw): Audio[] {
  const { engine, loader } = createOffline(kit, sampleRateHz, audioOf)
  const padSlot = loader.slotOf(padId)
  return Array.from({ length: count }, () => {
    const parts: [Float32Array, Float32Array][] = []
    let score = toScore([{ frame: engine.frame, type: EventType.strike, padSlot, velocity, note }])
    do {
      parts.push(renderOffline(engine, score, sampleRateHz))
      score = new Float64Array(0)
    } while (parts.length < LONGEST_SECONDS && (engine.strikes.active.includes(1) || engine.queue.length > 0))
    renderOffline(engine, toScore([{ frame: engine.frame, type: EventType.stopAll, padSlot: 0 }]), sampleRateHz) // what holds on for ever ends here
    const channels = [0, 1].map((side) => joined(parts.map((part) => part[side])))
    return { sampleRateHz, channels: channels.map((channel) => channel.slice(0, soundingFrames(channels))) }
  })
}
