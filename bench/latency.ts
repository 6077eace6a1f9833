import { aKit, anImpulse } from '../core/kit/builders'
import { loadEngine } from './engine-file'
import type { Figure } from './figure'

const RATE = 48000

/** Frames from a strike's event to the first frame of an impulse clip: the most over many places and block sizes. */
export async function figuresOfLatency(): Promise<Record<string, Figure>> {
  const engine = await loadEngine()
  const { kit, audio } = aKit([{ bands: [[anImpulse()]] }])
  let most = 0
  for (const blockFrames of [64, 128, 441])
    for (let frame = 1; frame < 6000; frame += 397) {
      const { engine: state, loader } = engine.createOffline(kit, RATE, (hash) => audio.get(hash))
      const score = engine.toScore([{ frame, type: engine.EventType.strike, padSlot: loader.slotOf(kit.pads[0].id), velocity: 127 }])
      const [left] = engine.renderOffline(state, score, 8000, blockFrames)
      most = Math.max(most, Math.abs(left.findIndex((sample) => sample !== 0) - frame))
    }
  return { 'engine.strikeToSoundFrames': { value: most, unit: 'frames' } }
}
